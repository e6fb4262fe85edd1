import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { Closing, FollowUp } from "../../api/types";
import { changed, freeId, localTime, withProving } from "../../doc/proving";
import type { LineEditor } from "../../doc/useLine";
import { condensed } from "../../theme/theme";
import { Typed } from "../../ui/Entry";

/** Second looks and services, whichever comes first; what was found then. */
export function FollowUps({ editor, closing }: { editor: LineEditor; closing: Closing }) {
  const list = editor.document.proving.follow_ups;
  const change = (id: string, part: Partial<FollowUp>) =>
    editor.edit((was) => withProving(was, ({ follow_ups }) => ({ follow_ups: changed(follow_ups, id, part) })));
  return (
    <Box component="section" aria-label="Come back" sx={{ mb: 2 }}>
      <Box component="h3" sx={{ m: 0, font: `600 18px ${condensed}` }}>
        Come back
      </Box>
      {list.length === 0 && (
        <Box sx={{ color: "var(--second)" }}>The second look is set when the line is signed off.</Box>
      )}
      {list.map((one, k) => {
        const due = closing.due.find((item) => item.id === one.id);
        const n = k + 1;
        const small = (label: string, name: "km" | "hours" | "cycles", hint: string) => (
          <Typed
            label={`${label}, ${n}`}
            text={one[name]}
            placeholder={hint}
            width={68}
            onText={(text) => change(one.id, { [name]: text.slice(0, 24) })}
          />
        );
        return (
          <Box key={one.id} data-follow-up={one.id} sx={{ borderBottom: "1px solid var(--rule)", py: 0.75 }}>
            <Box sx={{ display: "flex", gap: 0.5, flexWrap: "wrap" }}>
              <Typed
                label={`What is due, ${n}`}
                text={one.what}
                placeholder="second look, filter"
                width={210}
                onText={(what) => change(one.id, { what: what.slice(0, 80) })}
              />
              <Typed
                label={`Day, ${n}`}
                type="date"
                text={one.day}
                placeholder=""
                width={136}
                onText={(day) => change(one.id, { day })}
              />
              {small("Kilometres", "km", "km")}
              {small("Hours", "hours", "hours")}
              {small("Heat cycles", "cycles", "cycles")}
            </Box>
            {one.done ? (
              <Box sx={{ color: "var(--good)" }}>
                Looked at on {one.done}. {one.found}
                <Button size="small" variant="text" onClick={() => change(one.id, { done: "" })}>
                  Not done after all
                </Button>
              </Box>
            ) : (
              <>
                <Box sx={{ color: due?.late ? "var(--stop)" : "var(--second)", fontWeight: due?.late ? 600 : 400 }}>
                  {due?.late ? "Overdue: " : "Due "}
                  {due?.text}
                </Box>
                <Box sx={{ display: "flex", gap: 0.5, flexWrap: "wrap", mt: 0.25 }}>
                  <Typed
                    label={`What was found, ${n}`}
                    text={one.found}
                    placeholder="what was found"
                    width={190}
                    onText={(found) => change(one.id, { found: found.slice(0, 400) })}
                  />
                  <Button size="small" onClick={() => change(one.id, { done: localTime(new Date()).slice(0, 10) })}>
                    Looked at
                  </Button>
                  <Button
                    size="small"
                    variant="text"
                    aria-label={`Take out follow-up ${n}`}
                    onClick={() =>
                      editor.edit((was) =>
                        withProving(was, ({ follow_ups }) => ({
                          follow_ups: follow_ups.filter((item) => item.id !== one.id),
                        })),
                      )
                    }
                  >
                    ✕
                  </Button>
                </Box>
              </>
            )}
          </Box>
        );
      })}
      <Button
        size="small"
        sx={{ mt: 0.75 }}
        onClick={() =>
          editor.edit((was) =>
            withProving(was, ({ follow_ups }) => ({
              follow_ups: [
                ...follow_ups,
                {
                  id: freeId(follow_ups, "n"),
                  what: "",
                  day: "",
                  km: "",
                  hours: "",
                  cycles: "",
                  done: "",
                  found: "",
                  by: "",
                },
              ],
            })),
          )
        }
      >
        Something else is due
      </Button>
    </Box>
  );
}
