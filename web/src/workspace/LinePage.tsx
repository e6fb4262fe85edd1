import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { useParams, useSearchParams } from "react-router";
import Button from "@mui/material/Button";
import { api, Refusal, sentence, take } from "../api/client";
import { NotHere } from "../ui/NotHere";
import { Caught } from "../ui/Caught";
import type { Span } from "../api/types";
import { bringUpToDate, putAside } from "../doc/draft";
import type { ChosenPlace } from "../doc/select";
import { SelectionProvider } from "../doc/select";
import type { Panels } from "./stages";
import { STAGES } from "./stages";
import { DraftAside } from "./DraftAside";
import { Unreadable } from "./Unreadable";
import { Workspace } from "./Workspace";

/** What is asked for in the address; else what is the only piece, where that is no tube. */
function placeOf(asked: URLSearchParams, spans: readonly Span[]): ChosenPlace | null {
  const [piece, port] = [asked.get("piece"), asked.get("port")];
  if (piece) return { kind: "span", id: piece };
  if (port) return { kind: "port", id: port };
  const [only, ...others] = spans;
  return only && only.kind !== "rigid" && others.length === 0 ? { kind: "span", id: only.id } : null;
}

/** The page failed: what was typed is not lost, and does not make it fail again. */
function Failed({ lineId }: { lineId: string }) {
  return (
    <NotHere
      title="This page failed"
      text="Something went wrong in showing this line. Everything that was saved is there."
    >
      <Button onClick={() => window.location.reload()}>Show it again</Button>
      <Button
        onClick={() => {
          putAside(lineId);
          window.location.reload();
        }}
      >
        Open it as it was saved, the draft put aside
      </Button>
    </NotHere>
  );
}

/** One line, at the stage that the address names; `panels` are what the stages ask. */
export function LinePage({ panels }: { panels: Panels }) {
  const { lineId = "", stage = "measure" } = useParams();
  const [asked] = useSearchParams();
  const client = useQueryClient();
  const line = useQuery({
    queryKey: ["line", lineId],
    queryFn: async () => {
      await bringUpToDate(lineId);
      return take(api.GET("/api/lines/{line_id}", { params: { path: { line_id: lineId } } }));
    },
    staleTime: Infinity,
    gcTime: 0,
    refetchOnWindowFocus: false,
  });
  // the board's figures are old once a line has been open
  useEffect(() => () => void client.invalidateQueries({ queryKey: ["jobs"] }), [client]);
  if (line.error instanceof Refusal && line.error.unreadable)
    return <Unreadable lineId={lineId} text={line.error.message} again={() => void line.refetch()} />;
  if (line.isError) return <NotHere text={sentence(line.error)} />;
  if (!line.data) return null;
  const known = STAGES.find((name) => name === stage);
  if (!known) return <NotHere text={`There is no stage “${stage}”.`} />;
  return (
    <Caught key={lineId} instead={<Failed lineId={lineId} />}>
      <DraftAside lineId={lineId} />
      <SelectionProvider first={placeOf(asked, line.data.document.spans)}>
        <Workspace first={line.data} stage={known} panels={panels} />
      </SelectionProvider>
    </Caught>
  );
}
