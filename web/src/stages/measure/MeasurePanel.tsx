import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { memo, useState } from "react";
import { api, sentence, take } from "../../api/client";
import { useNotice } from "../../ui/notice";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { Segments } from "../../ui/Segments";
import { Alongside } from "./Alongside";
import { BendTable } from "./BendTable";
import { Bought } from "./Bought";
import { Checks } from "./Checks";
import { CopyDialog } from "./CopyDialog";
import { CornerTable } from "./CornerTable";
import { CutSum } from "../../workspace/CutSum";
import { ImportDialog } from "./ImportDialog";
import { LeftLong } from "./LeftLong";
import { RadiusDialog } from "./RadiusDialog";
import { ReadingHelp } from "./ReadingHelp";
import { isCopied, readingsAt, spanOf } from "../../doc/rows";

interface Props {
  editor: LineEditor;
  view: PlanView;
}

type Asking = "file" | "line" | "radius";

const ENTRIES = [
  { value: "bends" as const, text: "bend by bend" },
  { value: "wire" as const, text: "wire" },
  { value: "corners" as const, text: "corner points" },
  { value: "alongside" as const, text: "alongside" },
];

/** Readings of the old line, typed as they are read, redrawn at every key. */
export default function MeasurePanel({ editor, view }: Props) {
  const { document: line, edit } = editor;
  const { readings } = spanOf(line, editor.tube);
  const [asking, setAsking] = useState<Asking | null>(null);
  const close = () => setAsking(null);
  const notice = useNotice();

  const rows = readings.kind === "bends" ? readings.rows : [];
  const wire = readings.kind === "bends" && readings.last_by === "wire" && rows.every((row) => row.by === "wire");
  const copied = isCopied(line, editor.tube);
  const entry = copied ? "alongside" : wire ? "wire" : readings.kind;
  const switchTo = (to: typeof entry) => {
    if (to === entry) return;
    take(api.POST("/api/convert", { body: { document: line, to, span: editor.tube } }))
      .then((converted) => edit((was) => (was === line ? converted : was)))
      .catch((error: unknown) => notice({ text: sentence(error) }));
  };

  const general = view.plan?.problems.filter((problem) => problem.path === `${readingsAt(editor.tube)}/rows`) ?? [];

  return (
    <Box sx={{ minHeight: "100%", display: "flex", flexDirection: "column" }}>
      <Box sx={{ px: 2, pt: 1.25, pb: 1, flex: 1 }}>
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, justifyContent: "space-between", mb: 1 }}>
          <Segments label="Way of entry" value={entry} options={ENTRIES} onChange={switchTo} />
        </Box>
        {view.message && (
          <Typography role="alert" color="error">
            {view.message}
          </Typography>
        )}
        {copied && readings.kind === "bends" ? (
          <Alongside editor={editor} view={view} readings={readings} />
        ) : readings.kind === "bends" ? (
          <BendTable editor={editor} view={view} readings={readings} />
        ) : (
          <CornerTable editor={editor} view={view} readings={readings} />
        )}
        {general.map((problem) => (
          <Typography key={problem.message} color="error" sx={{ mt: 1 }}>
            {problem.message}
          </Typography>
        ))}
        <Elsewhere bent={view.part !== null && !view.old && !copied} onAsk={setAsking} />
        {!copied && <Checks editor={editor} view={view} />}
        <LeftLong editor={editor} view={view} />
        {!copied && <Bought editor={editor} view={view} />}
        {readings.kind === "bends" && !copied && <ReadingHelp />}
        {asking === "file" && <ImportDialog editor={editor} onClose={close} />}
        {asking === "line" && <CopyDialog editor={editor} onClose={close} />}
        {asking === "radius" && <RadiusDialog editor={editor} onClose={close} />}
      </Box>
      <CutSum unit={line.unit} copied={copied} view={view} pinned />
    </Box>
  );
}

/** Readings that come from elsewhere, and another radius for those that are here. */
const Elsewhere = memo(function Elsewhere({ bent, onAsk }: { bent: boolean; onAsk: (what: Asking) => void }) {
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 1, my: 1 }}>
      <Button size="small" variant="text" onClick={() => onAsk("file")}>
        From a file…
      </Button>
      <Button size="small" variant="text" onClick={() => onAsk("line")}>
        From another line…
      </Button>
      <Button size="small" variant="text" disabled={!bent} onClick={() => onAsk("radius")}>
        Another radius…
      </Button>
    </Box>
  );
});
