import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { OpenItem } from "../../api/types";
import { Typed, Word } from "../../ui/Entry";
import { removeAt } from "../../doc/rows";

interface Props {
  items: readonly OpenItem[];
  set: (items: OpenItem[]) => void;
}

const KINDS: OpenItem["kind"][] = ["temporary tie", "better clamp", "tray left off", "missing hold-down", "other"];

/** What was left for later, with who does it and by when; it stays on the board until it is closed. */
export function OpenItems({ items, set }: Props) {
  const change = (k: number, part: Partial<OpenItem>) =>
    set(items.map((item, i) => (i === k ? { ...item, ...part } : item)));
  return (
    <Box component="section" aria-label="Left for later" sx={{ mt: 3 }}>
      <Typography variant="h2">Left for later</Typography>
      {items.length === 0 && (
        <Box sx={{ color: "var(--second)" }}>
          A temporary tie, a better clamp to fetch, a tray left off: each with a person and a date.
        </Box>
      )}
      {items.map((item, k) => {
        const n = k + 1;
        return (
          <Box
            key={k}
            data-open={!item.closed}
            sx={{
              borderBottom: "1px solid var(--rule)",
              py: 0.75,
              display: "grid",
              gap: 0.5,
              opacity: item.closed ? 0.7 : 1,
            }}
          >
            <Box sx={{ display: "flex", gap: 0.5 }}>
              <Word
                label={`Kind of open item ${n}`}
                value={item.kind}
                list={KINDS}
                onChange={(kind) => change(k, { kind })}
              />
              <Typed
                label={`Open item ${n}`}
                text={item.what}
                placeholder="what is left"
                width="100%"
                onText={(what) => change(k, { what: what.slice(0, 80) })}
              />
            </Box>
            <Box sx={{ display: "flex", gap: 0.5, alignItems: "center" }}>
              <Typed
                label={`Who closes ${n}`}
                text={item.person}
                placeholder="who"
                width={110}
                onText={(person) => change(k, { person: person.slice(0, 60) })}
              />
              <Typed
                label={`By when, ${n}`}
                type="date"
                text={item.due}
                placeholder=""
                width={136}
                onText={(due) => change(k, { due })}
              />
              <Button
                size="small"
                variant={item.closed ? "text" : "outlined"}
                onClick={() => change(k, { closed: !item.closed })}
                sx={{ ml: "auto" }}
              >
                {item.closed ? "Open again" : "Close it"}
              </Button>
              <Button
                size="small"
                variant="text"
                aria-label={`Take out open item ${n}`}
                onClick={() => set(removeAt(items, k))}
                sx={{ minWidth: 32, px: 0.5 }}
              >
                ✕
              </Button>
            </Box>
          </Box>
        );
      })}
      <Button
        size="small"
        sx={{ mt: 0.75 }}
        onClick={() => set([...items, { kind: "temporary tie", what: "", person: "", due: "", closed: false }])}
      >
        Leave something for later
      </Button>
    </Box>
  );
}
