import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { Closing } from "../../api/types";
import { changed, freeId, withProving } from "../../doc/proving";
import type { LineEditor } from "../../doc/useLine";
import { Typed } from "../../ui/Entry";

/** What is on the machine for the time of the work: counted in, counted out. */
export function CountedIn({ editor, closing }: { editor: LineEditor; closing: Closing }) {
  const on = closing.put_on.filter((thing) => closing.on.includes(thing.id));
  const own = editor.document.proving.counted;
  return (
    <Box component="section" aria-label="Counted in and out" sx={{ mt: 2 }}>
      <Typography variant="h2">On the machine for the work</Typography>
      <Box role="status" sx={{ color: on.length > 0 ? "var(--caution)" : "var(--good)", fontWeight: 600 }}>
        {on.length > 0 ? `${on.length} still on: ${on.map((thing) => thing.what).join(" · ")}` : "All off again."}
      </Box>
      {own.map((thing, k) => (
        <Box key={thing.id} sx={{ display: "flex", gap: 0.5, mt: 0.5 }}>
          <Typed
            label={`Thing put on ${k + 1}`}
            text={thing.what}
            placeholder="padded clamp, funnel, rag in the inlet"
            width="100%"
            onText={(what) =>
              editor.edit((was) =>
                withProving(was, ({ counted }) => ({
                  counted: changed(counted, thing.id, { what: what.slice(0, 80) }),
                })),
              )
            }
          />
          <Button
            size="small"
            variant="text"
            aria-label={`Take out thing put on ${k + 1}`}
            sx={{ minWidth: 32, px: 0.5 }}
            onClick={() =>
              editor.edit((was) =>
                withProving(was, ({ counted }) => ({ counted: counted.filter((one) => one.id !== thing.id) })),
              )
            }
          >
            ✕
          </Button>
        </Box>
      ))}
      <Button
        size="small"
        sx={{ mt: 0.75 }}
        onClick={() =>
          editor.edit((was) =>
            withProving(was, ({ counted }) => ({
              counted: [...counted, { id: freeId(counted, "c"), what: "" }],
            })),
          )
        }
      >
        Something else was put on
      </Button>
    </Box>
  );
}
