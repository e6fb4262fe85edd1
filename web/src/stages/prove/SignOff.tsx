import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { api, take } from "../../api/client";
import type { Closing } from "../../api/types";
import { localTime, withProving } from "../../doc/proving";
import { useSelection } from "../../doc/select";
import { whoIsAtIt } from "../../doc/who";
import type { LineEditor } from "../../doc/useLine";
import { Field } from "../../ui/Field";

/** What is in the way, or the sign-off itself; and what was signed, with its papers. */
export function SignOff({ editor, closing }: { editor: LineEditor; closing: Closing }) {
  const { signed } = editor.document.proving;
  return (
    <Box component="section" aria-label="Sign-off" sx={{ borderTop: "2px solid var(--ink)", pt: 1.5, mt: 2 }}>
      <Typography variant="h2">Sign-off</Typography>
      {signed ? (
        <Signed editor={editor} closing={closing} />
      ) : closing.in_the_way.length > 0 ? (
        <InTheWay closing={closing} />
      ) : (
        <SignForm editor={editor} closing={closing} />
      )}
      <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap", mt: 1, "& a": { color: "var(--ink)" } }}>
        <a href={`/api/lines/${editor.opened.id}/record.pdf`} target="_blank" rel="noopener">
          The record
        </a>
        <a href={`/api/lines/${editor.opened.id}/handover.pdf`} target="_blank" rel="noopener">
          Handover note for the owner
        </a>
        <a href={`/api/lines/${editor.opened.id}/follow-ups.ics`}>Reminder for the calendar</a>
      </Box>
      <Box sx={{ fontSize: 14, color: "var(--second)", mt: 1 }}>
        The machine’s service manual, local law and licensed practice stand above this program. It judges what was
        noted, not what was not.
      </Box>
    </Box>
  );
}

function InTheWay({ closing }: { closing: Closing }) {
  const { chooseJoint } = useSelection();
  return (
    <Box aria-label="In the way">
      <Box sx={{ fontWeight: 600 }}>
        {closing.in_the_way.length} {closing.in_the_way.length === 1 ? "thing is" : "things are"} in the way:
      </Box>
      <Box component="ol" sx={{ m: 0, pl: 2.5, maxHeight: 240, overflowY: "auto" }} tabIndex={0}>
        {closing.in_the_way.map((one) => (
          <li key={`${one.stage} ${one.text} ${one.joint} ${one.step}`}>
            {one.joint ? (
              <Box
                component="button"
                onClick={() => chooseJoint(one.joint)}
                sx={{
                  all: "unset",
                  cursor: "pointer",
                  textDecoration: "underline",
                  verticalAlign: "top",
                  "&:focus-visible": { outline: "3px solid var(--ink)" },
                }}
              >
                {one.text}
              </Box>
            ) : (
              one.text
            )}
          </li>
        ))}
      </Box>
    </Box>
  );
}

function SignForm({ editor, closing }: { editor: LineEditor; closing: Closing }) {
  const [draft, setDraft] = useState({
    by: whoIsAtIt(),
    competent: "",
    day: localTime(new Date()).slice(0, 10),
    km: "",
    hours: "",
    note: "",
  });
  const [refused, setRefused] = useState("");
  const set = (part: Partial<typeof draft>) => setDraft((was) => ({ ...was, ...part }));
  const sign = () =>
    void editor
      .ask((version) =>
        take(
          api.POST("/api/lines/{line_id}/sign-off", {
            params: { path: { line_id: editor.opened.id } },
            body: { version, sign_off: draft },
          }),
        ),
      )
      .then(setRefused);
  return (
    <Box>
      <Box sx={{ color: "var(--good)", fontWeight: 600, mb: 0.5 }}>Nothing is in the way.</Box>
      <Field label="Signed by" text={draft.by} onText={(by) => set({ by: by.slice(0, 60) })} />
      {closing.competent && (
        <Field
          label="Tested by"
          text={draft.competent}
          placeholder="someone competent, before the road"
          onText={(competent) => set({ competent: competent.slice(0, 60) })}
        />
      )}
      <Field label="Day" type="date" text={draft.day} onText={(day) => set({ day })} />
      <Field
        label="Kilometres"
        text={draft.km}
        placeholder="what the counter shows"
        onText={(km) => set({ km: km.slice(0, 24) })}
      />
      <Field
        label="Hours"
        text={draft.hours}
        placeholder="what the counter shows"
        onText={(hours) => set({ hours: hours.slice(0, 24) })}
      />
      <Field label="Note" text={draft.note} onText={(note) => set({ note: note.slice(0, 400) })} />
      {refused && (
        <Box role="alert" sx={{ color: "var(--stop)" }}>
          {refused}
        </Box>
      )}
      <Button
        fullWidth
        variant="contained"
        color="secondary"
        onClick={sign}
        sx={{ minHeight: 48, fontSize: 20, mt: 0.5 }}
      >
        Sign the line off
      </Button>
    </Box>
  );
}

function Signed({ editor, closing }: { editor: LineEditor; closing: Closing }) {
  const { signed } = editor.document.proving;
  if (!signed) return null;
  return (
    <Box data-signed={closing.signed_stands}>
      {/* an answer of before the sign-off says nothing of it */}
      <Box sx={{ fontWeight: 600, color: closing.signed_stands === false ? "var(--stop)" : "var(--good)" }}>
        {closing.signed_stands === false
          ? `Signed off by ${signed.by} on ${signed.at}, but the line has been changed since: it is not signed off any more.`
          : `Signed off by ${signed.by} on ${signed.at}.`}
      </Box>
      {signed.competent && <Box>Tested by {signed.competent}.</Box>}
      {signed.note && <Box>{signed.note}</Box>}
      <Button
        size="small"
        variant="text"
        onClick={() => editor.edit((was) => withProving(was, () => ({ signed: null })))}
      >
        Take the sign-off back
      </Button>
    </Box>
  );
}
