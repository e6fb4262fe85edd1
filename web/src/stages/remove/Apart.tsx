import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { ComesApart, TakenApart } from "../../api/types";
import { Field, Pick } from "../../ui/Field";
import { Ticks } from "../../ui/Ticks";

interface Props {
  apart: readonly ComesApart[];
  taken: readonly TakenApart[];
  set: (taken: TakenApart[]) => void;
}

const ENDED: { id: TakenApart["ended"]; name: string }[] = [
  { id: "", name: "not opened yet" },
  { id: "came undone", name: "came undone" },
  { id: "came, damaged", name: "came, and is damaged" },
  { id: "tube cut behind it", name: "cut off behind it" },
  { id: "left shut", name: "left shut, mended behind it" },
];

/** Both old ends: how they came apart, and in order what to try on one that will not. */
export function Apart({ apart, taken, set }: Props) {
  return (
    <Box component="section" aria-label="Getting it apart">
      <Typography variant="h2">Getting it apart</Typography>
      {apart.map((one) => {
        const noted = taken.find((own) => own.end === one.end) ?? { end: one.end, tried: [], how_long: "", ended: "" };
        const change = (part: Partial<TakenApart>) =>
          set([...taken.filter((own) => own.end !== one.end), { ...noted, ...part }]);
        const tried = new Set(noted.tried);
        const ids = one.ways.map((way) => way.id);
        return (
          <Box key={one.end} role="group" aria-label={`End ${one.end}, apart`} sx={{ mb: 1 }}>
            <Box sx={{ display: "flex", gap: 1, alignItems: "baseline" }}>
              <b>End {one.end}</b>
              <span>{one.name}</span>
            </Box>
            <Pick
              label="It"
              value={noted.ended}
              options={ENDED}
              onChange={(ended) => change({ ended: ended as TakenApart["ended"] })}
            />
            <Box component="details" open={noted.tried.length > 0 || undefined}>
              <Box component="summary" sx={{ cursor: "pointer", color: "var(--second)" }}>
                It will not come
              </Box>
              <Ticks
                list={one.ways.map(({ id, text }) => ({ id, text }))}
                done={tried}
                onTick={(id, on) => change({ tried: ids.filter((way) => (way === id ? on : tried.has(way))) })}
              />
              {one.warning && <Box sx={{ color: "var(--stop)", fontSize: 15 }}>{one.warning}</Box>}
              <Field
                label="How long"
                text={noted.how_long}
                placeholder="soaked overnight, an hour at it"
                onText={(how_long) => change({ how_long: how_long.slice(0, 80) })}
              />
            </Box>
          </Box>
        );
      })}
    </Box>
  );
}
