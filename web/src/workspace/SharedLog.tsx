import Box from "@mui/material/Box";
import { useQuery } from "@tanstack/react-query";
import { api, take } from "../api/client";
import type { RemovedItem, SharedItem } from "../api/types";
import { useCatalogue } from "../doc/useCatalogue";
import type { useStripDown } from "../doc/useStripDown";
import { ItemRows, NOTHING } from "./ItemRows";

const blank = (): SharedItem => ({ ...NOTHING, id: crypto.randomUUID(), lines: [] });

/** A thing of one line's log as one of the job's: it came off once, whichever line it was noted with. */
export const shared = (item: RemovedItem): SharedItem => ({ ...item, id: crypto.randomUUID(), lines: [] });

/** What comes off once for all lines of a job, and for which of them. */
export function SharedLog({ jobId, log }: { jobId: string; log: ReturnType<typeof useStripDown> }) {
  const catalogue = useCatalogue();
  const job = useQuery({
    queryKey: ["jobs", jobId],
    queryFn: () => take(api.GET("/api/jobs/{job_id}", { params: { path: { job_id: jobId } } })),
  });
  const lines = job.data?.lines ?? [];
  return (
    <Box>
      <ItemRows
        title="Off once, for the whole job"
        hint="Wheels, covers and brackets that more than one line hides behind: noted here they come off, and go back on, once."
        addText="Next thing off, for the job"
        prefix="shared "
        items={log.value}
        singleUse={catalogue?.single_use.kinds ?? []}
        blank={blank}
        set={log.change}
        more={(item, change, n) =>
          lines.length > 1 && (
            <Box
              component="details"
              role="group"
              aria-label={`Lines that ${n} is off for`}
              sx={{
                pl: "24px",
                fontSize: 15,
                "& summary": {
                  cursor: "pointer",
                  color: "var(--second)",
                  minHeight: 30,
                  "@media (pointer: coarse)": { minHeight: 44, pt: 1 },
                },
              }}
            >
              <summary>
                {item.lines.length === 0
                  ? "for every line"
                  : `for ${lines
                      .filter((line) => item.lines.includes(line.id))
                      .map((line) => line.name)
                      .join(", ")}`}
              </summary>
              {lines.map((line) => (
                <Box
                  component="label"
                  key={line.id}
                  sx={{
                    display: "flex",
                    alignItems: "center",
                    gap: 0.75,
                    minHeight: 30,
                    minWidth: 0,
                    overflowWrap: "anywhere",
                    "@media (pointer: coarse)": { minHeight: 44 },
                  }}
                >
                  <input
                    type="checkbox"
                    checked={item.lines.includes(line.id)}
                    onChange={(event) =>
                      change({
                        lines: event.target.checked
                          ? [...item.lines, line.id]
                          : item.lines.filter((id) => id !== line.id),
                      })
                    }
                    style={{ width: 18, height: 18, flex: "none", accentColor: "var(--ink)" }}
                  />
                  {line.name}
                </Box>
              ))}
            </Box>
          )
        }
      />
      {log.problem && (
        <Box role="alert" sx={{ color: "var(--stop)" }}>
          {log.problem}
        </Box>
      )}
    </Box>
  );
}
