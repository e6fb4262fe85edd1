import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useMemo, useState } from "react";
import type { Line } from "../api/types";
import { condensed } from "../theme/theme";
import { Segments } from "../ui/Segments";
import type { Difference, Side } from "../doc/differ";
import { differences, merged } from "../doc/differ";
import type { Conflict, LineEditor } from "../doc/useLine";

/** A save that did not go through: why, and where somebody else saved first, both versions side by side. */
export function ConflictBar({ editor }: { editor: LineEditor }) {
  const { conflict, save, saveMessage } = editor;
  if (save !== "conflict" && save !== "failed" && save !== "refused") return <div />;
  return (
    <Box
      role="alert"
      sx={{
        px: 2,
        py: 1,
        borderBottom: "2px solid var(--stop)",
        background: "var(--sheet)",
        maxHeight: "46vh",
        overflowY: "auto",
      }}
    >
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, alignItems: "center" }}>
        <Box component="strong" sx={{ flex: "1 1 320px" }}>
          {saveMessage}
        </Box>
        {!conflict && <Button onClick={editor.retry}>Try again</Button>}
      </Box>
      {conflict && <Sides key={conflict.version} mine={editor.document} conflict={conflict} editor={editor} />}
    </Box>
  );
}

function Sides({ mine, conflict, editor }: { mine: Line; conflict: Conflict; editor: LineEditor }) {
  const found = useMemo(() => differences(mine, conflict.theirs, conflict.base), [mine, conflict]);
  const [own, setOwn] = useState<ReadonlyMap<string, Side>>(new Map());
  const chosen = new Map(found.map((item) => [item.pointer, own.get(item.pointer) ?? usual(item)]));
  const choose = (pointers: readonly string[], side: Side) =>
    setOwn((was) => new Map([...was, ...pointers.map((pointer) => [pointer, side] as const)]));
  const all = found.map((item) => item.pointer);
  return (
    <>
      <Box
        component="table"
        aria-label="Both versions"
        sx={{
          width: "100%",
          borderCollapse: "collapse",
          mt: 0.5,
          "& td, & th": {
            textAlign: "left",
            borderBottom: "1px solid var(--rule)",
            py: 0.5,
            pr: 2,
            overflowWrap: "anywhere",
          },
          "& th": { fontWeight: 400, color: "var(--second)" },
        }}
      >
        <thead>
          <tr>
            <th scope="col">field</th>
            <th scope="col">yours</th>
            <th scope="col">saved</th>
            <th scope="col">keep</th>
          </tr>
        </thead>
        <tbody>
          {found.map((item) => (
            <tr key={item.pointer} data-differs={item.pointer}>
              <td>
                {item.path}
                {item.changed === "both" && conflict.base && (
                  <Box sx={{ fontSize: 13, color: "var(--caution)" }}>changed by both</Box>
                )}
              </td>
              <Box component="td" sx={{ font: `600 17px ${condensed}` }}>
                {item.mine}
              </Box>
              <Box component="td" sx={{ font: `600 17px ${condensed}` }}>
                {item.theirs}
              </Box>
              <td>
                <Segments
                  label={`Keep for ${item.path}`}
                  value={chosen.get(item.pointer) ?? "mine"}
                  options={[
                    { value: "mine", text: "yours" },
                    { value: "theirs", text: "saved" },
                  ]}
                  onChange={(side) => choose([item.pointer], side)}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </Box>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, mt: 1 }}>
        <Button size="small" variant="text" onClick={() => choose(all, "mine")}>
          All yours
        </Button>
        <Button size="small" variant="text" onClick={() => choose(all, "theirs")}>
          All saved
        </Button>
        <Button variant="contained" onClick={() => editor.settle(merged(mine, conflict.theirs, found, chosen))}>
          Keep this choice
        </Button>
      </Box>
    </>
  );
}

const usual = (item: Difference): Side => (item.changed === "theirs" ? "theirs" : "mine");
