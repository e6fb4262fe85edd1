import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, sentence, take } from "../../api/client";
import type { Closing, Hold, ProofRun } from "../../api/types";
import { blankHold, changed, freeId, localTime, withProving } from "../../doc/proving";
import type { ClosingView } from "../../doc/useClosing";
import type { LineEditor } from "../../doc/useLine";
import { condensed } from "../../theme/theme";
import { SourceLine } from "../../ui/Working";
import { HoldCard } from "./HoldCard";

interface Props {
  editor: LineEditor;
  closing: Closing;
  view: ClosingView;
}

/** Does it hold: what is proposed and why not more, then readings by eye, from the gauge, or from a file. */
export function HoldTests({ editor, closing, view }: Props) {
  const { document: line, edit, opened } = editor;
  const offer = closing.hold;
  const client = useQueryClient();
  const [problem, setProblem] = useState("");
  const file = useRef<HTMLInputElement>(null);
  const runs = useQuery({
    queryKey: ["runs", opened.id],
    queryFn: () => take(api.GET("/api/lines/{line_id}/runs", { params: { path: { line_id: opened.id } } })),
  });
  const kind: Hold["kind"] = offer?.kind ?? "liquid";
  const add = (run = "", counts: Partial<Hold> = {}) =>
    edit((was) =>
      withProving(was, ({ holds }) => ({
        holds: [...holds, { ...blankHold(was, kind, localTime(new Date(), true), run), ...counts }],
      })),
    );
  const kept = (run: ProofRun) => {
    setProblem("");
    add(run.id, run.absolute ? { reads: "absolute" } : { reads: "above the air" });
    void client.invalidateQueries({ queryKey: ["runs", opened.id] });
  };
  const fail = (error: unknown) => setProblem(sentence(error));
  const record = () =>
    void take(
      api.POST("/api/lines/{line_id}/runs", { params: { path: { line_id: opened.id } }, body: { absolute: false } }),
    )
      .then((run) => (line.proving.holds.some((hold) => hold.run === run.id) ? undefined : kept(run)))
      .catch(fail);
  const bringIn = (picked: File) =>
    void picked
      .arrayBuffer()
      .then((body) =>
        take(
          api.POST("/api/lines/{line_id}/runs/file", {
            params: { path: { line_id: opened.id } },
            body: body as unknown as string,
            bodySerializer: (bytes: unknown) => bytes as BodyInit,
            headers: { "content-type": "application/octet-stream" },
          }),
        ),
      )
      .then(kept)
      .catch(fail);
  const day = localTime(new Date()).slice(0, 10);
  const joined = useQuery({
    queryKey: ["jobs", opened.job_id, "joined-holds", opened.id],
    queryFn: () =>
      take(
        api.GET("/api/lines/{line_id}/joined-holds", {
          params: { path: { line_id: opened.id }, query: { today: day } },
        }),
      ),
  });
  const notes = new Set(line.proving.holds.map((hold) => `${hold.note} ${hold.at}`));
  const offered = (joined.data ?? []).filter(({ hold }) => !notes.has(`${hold.note} ${hold.at}`));
  const takeOver = (hold: Hold) =>
    edit((was) => withProving(was, ({ holds }) => ({ holds: [...holds, { ...hold, id: freeId(holds, "h") }] })));
  const used = new Set(line.proving.holds.map((hold) => hold.run));
  const spare = (runs.data ?? []).filter((run) => !used.has(run.id));
  return (
    <Box component="section" aria-label="Does it hold" sx={{ mb: 2 }}>
      <Box component="h3" sx={{ m: 0, font: `600 18px ${condensed}` }}>
        Does it hold{offer?.must ? "" : offer ? ", where it can be done" : ""}
      </Box>
      {offer ? (
        <Box>
          {offer.text} {offer.said}
          {offer.liquid && <Box>{offer.liquid}</Box>}
          {offer.danger && <Box sx={{ color: "var(--caution)", fontWeight: 600 }}>{offer.danger}</Box>}
          <SourceLine source={offer.source} />
        </Box>
      ) : (
        <Box sx={{ color: "var(--second)" }}>This service is proved running; a hold test may be added.</Box>
      )}
      {line.proving.holds.map((hold) => (
        <HoldCard
          key={hold.id}
          editor={editor}
          hold={hold}
          told={closing.holds.find((one) => one.id === hold.id)}
          again={view.again}
          change={(part) => edit((was) => withProving(was, ({ holds }) => ({ holds: changed(holds, hold.id, part) })))}
          takeOut={() =>
            edit((was) => withProving(was, ({ holds }) => ({ holds: holds.filter((one) => one.id !== hold.id) })))
          }
        />
      ))}
      {offered.map(({ line: other, name, hold, leak }) => (
        <Box
          key={`${other} ${hold.at} ${leak}`}
          sx={{ display: "flex", gap: 1, alignItems: "center", flexWrap: "wrap", mt: 1 }}
        >
          <Button size="small" onClick={() => takeOver(hold)}>
            Proved together with {name}
          </Button>
          <Box sx={{ color: "var(--second)" }}>{leak}</Box>
        </Box>
      ))}
      <Box sx={{ display: "flex", gap: 0.75, flexWrap: "wrap", mt: 1 }}>
        <Button size="small" onClick={record}>
          Record the gauge
        </Button>
        <Button
          size="small"
          onClick={() =>
            add("", {
              rows: ["0", "1", "2", "3", "5"].map((minutes) => ({ minutes, pressure: "", temperature: "" })),
            })
          }
        >
          Read it by eye
        </Button>
        <Button size="small" onClick={() => file.current?.click()}>
          Bring in a CSV
        </Button>
        <input
          ref={file}
          type="file"
          accept=".csv,text/csv"
          aria-label="File of readings"
          hidden
          onChange={(event) => {
            const picked = event.target.files?.[0];
            if (picked) bringIn(picked);
            event.target.value = "";
          }}
        />
        {spare.map((run) => (
          <Button key={run.id} size="small" variant="text" onClick={() => kept(run)}>
            Use the run of {run.at.slice(0, 16).replace("T", " ")}
          </Button>
        ))}
      </Box>
      {problem && (
        <Box role="alert" sx={{ color: "var(--stop)", mt: 0.5 }}>
          {problem}
        </Box>
      )}
    </Box>
  );
}
