import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Port } from "../../api/types";
import type { LineEditor } from "../../doc/useLine";
import { Typed, Word } from "../../ui/Entry";

const ROLES: Port["role"][] = ["not known", "source", "feed", "return", "signal"];

/** What each port does, how that was established, and the tag put on it before it came apart. */
export function Ports({ editor }: { editor: LineEditor }) {
  const { document: line, edit } = editor;
  return (
    <Box component="section" aria-label="Ports" sx={{ mt: 2 }}>
      <Typography variant="h2">Which port is which</Typography>
      {(["A", "B"] as const).map((end) => {
        const key = end === "A" ? "port_a" : "port_b";
        const port = line[key];
        const set = (change: Partial<Port>) => edit((was) => ({ ...was, [key]: { ...was[key], ...change } }));
        return (
          <Box
            key={end}
            sx={{ display: "flex", gap: 0.5, alignItems: "center", borderBottom: "1px solid var(--rule)", py: 0.5 }}
          >
            <Box sx={{ width: 18, fontWeight: 600 }}>{end}</Box>
            <Word label={`Port ${end} is`} value={port.role} list={ROLES} onChange={(role) => set({ role })} />
            <Typed
              label={`How port ${end} was established`}
              text={port.role_how}
              placeholder="how established"
              width="100%"
              onText={(role_how) => set({ role_how: role_how.slice(0, 80) })}
            />
            <Typed
              label={`Tag on port ${end}`}
              text={port.tag}
              placeholder="tag"
              width={92}
              onText={(tag) => set({ tag: tag.slice(0, 40) })}
            />
          </Box>
        );
      })}
    </Box>
  );
}
