import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { Catalogue, Unit } from "../api/types";
import { mainTube } from "../doc/rows";
import { Bar } from "../ui/Bar";
import { InstrumentButton } from "../instruments/InstrumentButton";
import { Segments } from "../ui/Segments";
import { NameDialog } from "../ui/NameDialog";
import type { LineEditor } from "../doc/useLine";
import { SaveMark } from "./SaveMark";

interface Props {
  editor: LineEditor;
  catalogue: Catalogue | null;
}

/** Which line this is, whether it is saved, undo and redo, and the unit. */
export function LineBar({ editor, catalogue }: Props) {
  const { document: line, opened, edit } = editor;
  const [naming, setNaming] = useState(false);
  const tube = catalogue?.tubes.find((row) => row.id === mainTube(line)?.tube);
  const material = catalogue?.materials.find((row) => row.id === tube?.material);
  const service = catalogue?.services.find((row) => row.id === line.service);
  return (
    <Bar
      trail={[
        { text: "Bench", to: "/" },
        { text: opened.job_name, to: `/jobs/${opened.job_id}` },
      ]}
      title={
        <Box
          component="button"
          onClick={() => setNaming(true)}
          title="Rename this line"
          sx={{
            all: "unset",
            cursor: "text",
            maxWidth: "100%",
            overflow: "hidden",
            textOverflow: "ellipsis",
            "&:focus-visible": { outline: "3px solid var(--ink)" },
          }}
        >
          {line.name}
        </Box>
      }
    >
      <Box sx={{ color: "var(--second)", whiteSpace: "nowrap", "@media (max-width: 1560px)": { display: "none" } }}>
        {[service?.name, tube && `${tube.size} ${material?.name ?? ""}`].filter(Boolean).join(" · ")}
      </Box>
      <SaveMark />
      <InstrumentButton />
      <Box sx={{ display: "flex" }}>
        <Button
          variant="text"
          aria-label="Undo"
          title="Undo (Ctrl+Z)"
          disabled={!opened.can_undo && editor.save === "saved"}
          onClick={editor.undo}
          sx={{ minWidth: 44, fontSize: 22 }}
        >
          ↶
        </Button>
        <Button
          variant="text"
          aria-label="Redo"
          title="Redo (Ctrl+Y)"
          disabled={!opened.can_redo || editor.save !== "saved"}
          onClick={editor.redo}
          sx={{ minWidth: 44, fontSize: 22 }}
        >
          ↷
        </Button>
      </Box>
      <Segments<Unit>
        label="Unit"
        value={line.unit}
        options={[
          { value: "in", text: "inch" },
          { value: "mm", text: "mm" },
        ]}
        onChange={(unit) => edit((was) => ({ ...was, unit }))}
      />
      <NameDialog
        open={naming}
        title="Rename this line"
        label="Name of the line"
        first={line.name}
        onClose={() => setNaming(false)}
        onDone={(name) => edit((was) => ({ ...was, name }))}
      />
    </Bar>
  );
}
