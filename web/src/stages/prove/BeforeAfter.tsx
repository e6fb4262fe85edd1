import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { changed, freeId, withProving } from "../../doc/proving";
import type { LineEditor } from "../../doc/useLine";
import { condensed } from "../../theme/theme";
import { Typed } from "../../ui/Entry";

/** Figures of the machine before the work and after it: a pressure, a temperature, a level, a check of one's own. */
export function BeforeAfter({ editor }: { editor: LineEditor }) {
  const list = editor.document.proving.compared;
  const field = (id: string, name: "what" | "before" | "after", label: string, hint: string, width: number) => (
    <Typed
      label={label}
      text={list.find((one) => one.id === id)?.[name] ?? ""}
      placeholder={hint}
      width={width}
      onText={(text) =>
        editor.edit((was) =>
          withProving(was, ({ compared }) => ({ compared: changed(compared, id, { [name]: text.slice(0, 80) }) })),
        )
      }
    />
  );
  return (
    <Box component="section" aria-label="Before and after" sx={{ mb: 2 }}>
      <Box component="h3" sx={{ m: 0, font: `600 18px ${condensed}` }}>
        Before and after
      </Box>
      {list.map(({ id }, k) => (
        <Box key={id} data-compared={id} sx={{ display: "flex", gap: 0.5, flexWrap: "wrap", py: 0.25 }}>
          {field(id, "what", `What was read ${k + 1}`, "oil pressure, hot at idle", 190)}
          {field(id, "before", `Before ${k + 1}`, "before", 90)}
          {field(id, "after", `After ${k + 1}`, "after", 90)}
          <Button
            size="small"
            variant="text"
            aria-label={`Take out reading ${k + 1}`}
            sx={{ minWidth: 32, px: 0.5 }}
            onClick={() =>
              editor.edit((was) =>
                withProving(was, ({ compared }) => ({ compared: compared.filter((one) => one.id !== id) })),
              )
            }
          >
            ✕
          </Button>
        </Box>
      ))}
      {list.length < 40 && (
        <Button
          size="small"
          sx={{ mt: 0.5 }}
          onClick={() =>
            editor.edit((was) =>
              withProving(was, ({ compared }) => ({
                compared: [...compared, { id: freeId(compared, "b"), what: "", before: "", after: "" }],
              })),
            )
          }
        >
          A figure of the machine
        </Button>
      )}
    </Box>
  );
}
