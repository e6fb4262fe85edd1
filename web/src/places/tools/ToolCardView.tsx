import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQueryClient } from "@tanstack/react-query";
import type { SubmitEvent } from "react";
import { useState } from "react";
import { api, sentence, take } from "../../api/client";
import type { ToolCard } from "../../api/types";
import { useNotice } from "../../ui/notice";
import { Field } from "../../ui/Field";
import { SourceLine } from "../../ui/Working";
import { condensed } from "../../theme/theme";
import { PieceDrawing } from "./PieceDrawing";

const heading = { m: 0, font: `600 20px ${condensed}`, borderBottom: "2px solid var(--ink)", mb: 1 } as const;

/** One bender in one material: what it really does, the next test piece, and those bent so far. */
export function ToolCardView({ card }: { card: ToolCard }) {
  const client = useQueryClient();
  const notice = useNotice();
  const refresh = () =>
    Promise.all([["tool"], ["tools"], ["jobs"]].map((queryKey) => client.invalidateQueries({ queryKey })));
  const fail = (error: unknown) => notice({ text: sentence(error) });
  const one = (id: string) => ({ params: { path: { trial_id: id } } });
  const takeOut = (id: string) =>
    void take(api.DELETE("/api/tools/trials/{trial_id}", one(id)))
      .then(refresh)
      .then(() =>
        notice({
          text: "The piece is out of the reckoning.",
          undo: () =>
            void take(api.POST("/api/tools/trials/{trial_id}/restore", one(id)))
              .then(refresh)
              .catch(fail),
        }),
      )
      .catch(fail);
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: "minmax(300px, 400px) minmax(0, 1fr)",
        columnGap: 5,
        rowGap: 3,
        "@media (max-width: 800px)": { gridTemplateColumns: "minmax(0, 1fr)" },
      }}
    >
      <Box component="section" aria-label="Next test piece">
        <Box component="h2" sx={heading}>
          {card.trials.length === 0 ? "First test piece" : "The piece that would tell most next"}
        </Box>
        <PieceForm key={`${card.trials.length} ${card.next.dial_deg}`} card={card} onKept={refresh} />
      </Box>
      <Box>
        <Told card={card} />
        <Box component="section" aria-label="Test pieces" sx={{ mt: 3 }}>
          <Box component="h2" sx={heading}>
            Test pieces
          </Box>
          {card.trials.length === 0 && (
            <Box sx={{ color: "var(--second)" }}>None yet. One makes the tool usable, three make it good.</Box>
          )}
          {card.trials.map(({ trial, odd }, k) => (
            <Box key={trial.id} data-trial={k + 1} sx={{ py: 0.5, borderBottom: "1px solid var(--rule)" }}>
              <Box sx={{ display: "flex", gap: 1.5, alignItems: "center" }}>
                <Box sx={{ font: `600 18px ${condensed}`, minWidth: 24 }}>{k + 1}</Box>
                <Box sx={{ flex: 1, minWidth: 0, overflowWrap: "anywhere" }}>
                  {trial.fields.cut} cut, mark at {trial.fields.mark}, dial {trial.fields.dial}°:{" "}
                  {[
                    trial.fields.leg_a && `legs ${trial.fields.leg_a}`,
                    trial.fields.leg_b && trial.fields.leg_b,
                    trial.fields.angle && `angle ${trial.fields.angle}°`,
                    trial.fields.width && `width ${trial.fields.width}`,
                  ]
                    .filter(Boolean)
                    .join(", ")}{" "}
                  <Box component="span" sx={{ color: "var(--second)" }}>
                    ({trial.unit})
                  </Box>
                </Box>
                <Button
                  size="small"
                  variant="text"
                  aria-label={`Take out piece ${k + 1}`}
                  onClick={() => takeOut(trial.id)}
                  sx={{ minWidth: 36 }}
                >
                  ✕
                </Button>
              </Box>
              {odd.map((text) => (
                <Box key={text} role="alert" sx={{ color: "var(--caution)", pl: 4.5 }}>
                  {text}
                </Box>
              ))}
            </Box>
          ))}
        </Box>
      </Box>
    </Box>
  );
}

function Told({ card }: { card: ToolCard }) {
  const { calibration: told, bender } = card;
  if (!told) {
    return (
      <Box component="section" aria-label="What it does">
        <Box component="h2" sx={heading}>
          Until then
        </Box>
        <Box>
          R {bender.radius_mm} mm, zero on the mark, spring-back from the tube’s own properties: it may be a millimetre
          or two out. <SourceLine source={bender.source} />
        </Box>
      </Box>
    );
  }
  const rows = [
    {
      name: "Finished radius on 90°",
      value: told.radius_mm * (1 + told.springback + told.springback_deg / 90),
      doubt: told.doubt[0],
      unit: " mm",
      digits: 2,
    },
    {
      name: "Tool’s zero, towards the clamp",
      value: told.zero_offset_mm,
      doubt: told.doubt[1],
      unit: " mm",
      digits: 2,
    },
    {
      name: "Spring-back on 90°",
      value: told.springback * 90 + told.springback_deg,
      doubt: Math.hypot(told.doubt[2] * 90, told.doubt[3]),
      unit: "°",
      digits: 1,
    },
  ];
  return (
    <Box component="section" aria-label="What it does">
      <Box component="h2" sx={heading}>
        What it really does in {card.material_name}
      </Box>
      {rows.map((row) => (
        <Box
          key={row.name}
          data-told={row.name}
          sx={{
            display: "flex",
            justifyContent: "space-between",
            gap: 2,
            py: 0.5,
            borderBottom: "1px solid var(--rule)",
            maxWidth: 520,
          }}
        >
          <span>{row.name}</span>
          <Box sx={{ font: `600 19px ${condensed}`, whiteSpace: "nowrap" }}>
            {row.value.toFixed(row.digits)} ± {row.doubt.toFixed(row.digits)}
            {row.unit}
          </Box>
        </Box>
      ))}
      <Box sx={{ color: "var(--second)", mt: 0.5 }}>
        The next 90° bend lands within {card.leg_doubt_mm.toFixed(1)} mm along each leg and{" "}
        {card.angle_doubt_deg.toFixed(1)}°.
        <br />
        From {told.pieces} {told.pieces === 1 ? "piece; two more make it good" : "pieces"}; the doubt is twice the
        standard deviation. Every plan with this tool and material uses it.
      </Box>
    </Box>
  );
}

function PieceForm({ card, onKept }: { card: ToolCard; onKept: () => Promise<unknown> }) {
  const { next } = card;
  const [fields, setFields] = useState<Record<string, string>>({
    cut: `${next.cut_mm} mm`,
    mark: `${next.mark_mm} mm`,
    dial: String(next.dial_deg),
  });
  const [problem, setProblem] = useState("");
  const dial = Number(fields.dial);
  const hooked = Number.isFinite(dial) ? dial >= 150 : card.next_hooked;
  const set = (name: string) => (text: string) => setFields((was) => ({ ...was, [name]: text.slice(0, 40) }));
  const submit = (event: SubmitEvent) => {
    event.preventDefault();
    void take(
      api.POST("/api/tools/{bender}/{material}", {
        params: { path: { bender: card.bender.id, material: card.material } },
        body: { fields, unit: "mm" },
      }),
    )
      .then(onKept)
      .catch((error: unknown) => setProblem(sentence(error)));
  };
  return (
    <form onSubmit={submit}>
      <Box component="ol" sx={{ pl: 2.5, mt: 0, "& li": { mb: 0.5 } }}>
        <li>
          Cut {next.cut_mm} mm, square; mark it {next.mark_mm} mm from the end that will be clamped.
        </li>
        <li>Set the tool’s zero on the mark and bend to {next.dial_deg} on the dial.</li>
        <li>
          {hooked
            ? "Read both legs with the tape hooked over the back of the bend."
            : "Read both legs to the outside corner, and the angle."}{" "}
          A bare figure is in millimetres.
        </li>
      </Box>
      <PieceDrawing degrees={Number.isFinite(dial) && dial > 0 ? dial : next.dial_deg} />
      <Field label="Cut" text={fields.cut ?? ""} takes="length" onText={set("cut")} />
      <Field label="Mark at" text={fields.mark ?? ""} takes="length" onText={set("mark")} />
      <Field label="Dial" text={fields.dial ?? ""} takes="angle" onText={set("dial")} />
      <Field
        label="Clamped leg"
        text={fields.leg_a ?? ""}
        placeholder={hooked ? "its end to the back" : "its end to the corner"}
        takes="length"
        onText={set("leg_a")}
      />
      <Field
        label="Free leg"
        text={fields.leg_b ?? ""}
        placeholder={hooked ? "its end to the back" : "its end to the corner"}
        takes="length"
        onText={set("leg_b")}
      />
      <Field label="Angle" text={fields.angle ?? ""} placeholder="as it came out" takes="angle" onText={set("angle")} />
      {dial >= 175 && (
        <Field
          label="Width of U"
          text={fields.width ?? ""}
          placeholder="outside to outside"
          takes="length"
          onText={set("width")}
        />
      )}
      {problem && (
        <Box role="alert" sx={{ color: "var(--stop)", mt: 0.5 }}>
          {problem}
        </Box>
      )}
      <Button type="submit" variant="contained" sx={{ mt: 1 }}>
        Reckon with it
      </Button>
    </form>
  );
}
