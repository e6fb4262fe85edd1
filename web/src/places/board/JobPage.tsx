import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { api, sentence, take } from "../../api/client";
import { saveFile } from "../../api/download";
import type { JobDraft, JobSummary, LineSummary, NewLine } from "../../api/types";
import { Bar } from "../../ui/Bar";
import { NotHere } from "../../ui/NotHere";
import { useNotice } from "../../ui/notice";
import { NameDialog } from "../../ui/NameDialog";
import { Circuits } from "./circuit/Circuits";
import { JobCutList } from "./JobCutList";
import { JobKit } from "./JobKit";
import { JobPapers } from "./JobPapers";
import { JobStripDown } from "./JobStripDown";
import { JobTabs } from "./JobTabs";
import { Ledger } from "./Ledger";
import { LineTable } from "./LineTable";
import { NewLineDialog } from "./NewLineDialog";
import { NextUp } from "./NextUp";
import { TakeIn } from "./TakeIn";
import { askAgain } from "./askAgain";
import type { JobPart } from "./jobParts";
import { jobPartOf } from "./jobParts";

/** One job, a part of it at a time: its lines first. */
export default function JobPage() {
  const { jobId = "", part: word } = useParams();
  const part = jobPartOf(word);
  const job = useQuery({
    queryKey: ["jobs", jobId],
    queryFn: () => take(api.GET("/api/jobs/{job_id}", { params: { path: { job_id: jobId } } })),
    refetchInterval: (query) => askAgain(query.state.data ? [query.state.data] : []),
  });
  if (job.isError) return <NotHere text={sentence(job.error)} />;
  if (part === null) return <NotHere text="There is nothing at this address." />;
  return job.data ? <JobView job={job.data} part={part} /> : null;
}

type Asking = { what: "line" | "job" } | { what: "rename"; line: LineSummary } | null;

function JobView({ job, part }: { job: JobSummary; part: JobPart }) {
  const [asking, setAsking] = useState<Asking>(null);
  const client = useQueryClient();
  const navigate = useNavigate();
  const notice = useNotice();
  const close = () => setAsking(null);
  const again = () => client.invalidateQueries({ queryKey: ["jobs"] });
  const attempt = (work: () => Promise<unknown>) =>
    void work()
      .catch((error: unknown) => notice({ text: sentence(error) }))
      .then(again);
  const path = { params: { path: { job_id: job.id } } };

  // changes are sent one after the other, each on the version that the one before has left
  const latest = useRef(job);
  const queue = useRef(Promise.resolve());
  useEffect(() => {
    if (job.version > latest.current.version) latest.current = job;
  }, [job]);

  const put = (part: Partial<JobDraft>) => {
    const { version, name, machine, unit, customer, promised, parked, tried } = latest.current;
    return take(
      api.PUT("/api/jobs/{job_id}", {
        ...path,
        body: { version, job: { name, machine, unit, customer, promised, parked, tried, ...part } },
      }),
    ).then((now) => {
      latest.current = now;
    });
  };

  const change = (part: Partial<JobDraft>, kept?: () => void) => {
    queue.current = queue.current.then(async () => {
      const names = Object.keys(part) as (keyof JobDraft)[];
      const before = Object.fromEntries(names.map((name) => [name, latest.current[name]])) as Partial<JobDraft>;
      try {
        await put(part);
        kept?.();
        const said = `${names.join(" and ")} changed.`;
        notice({
          small: true,
          text: `${said.charAt(0).toUpperCase()}${said.slice(1)}`,
          undo: () => attempt(() => put(before)),
        });
      } catch (error) {
        notice({ text: sentence(error) });
      }
      await again();
    });
  };

  const addLine = (body: NewLine, at: string) =>
    attempt(async () => {
      const line = await take(api.POST("/api/jobs/{job_id}/lines", { ...path, body }));
      await navigate(`/lines/${line.id}/${at}`);
    });

  const rename = (line: LineSummary, name: string) =>
    attempt(async () => {
      const here = { params: { path: { line_id: line.id } } };
      const open = await take(api.GET("/api/lines/{line_id}", here));
      await take(
        api.PUT("/api/lines/{line_id}", {
          ...here,
          body: { version: open.version, document: { ...open.document, name } },
        }),
      );
    });

  const removeLine = (line: LineSummary) =>
    attempt(async () => {
      const here = { params: { path: { line_id: line.id } } };
      const query = { version: line.version };
      await take(api.DELETE("/api/lines/{line_id}", { params: { ...here.params, query } }));
      notice({
        text: `“${line.name}” is deleted.`,
        undo: () => attempt(() => take(api.POST("/api/lines/{line_id}/restore", here))),
      });
    });

  const removeJob = () =>
    attempt(async () => {
      const query = { version: latest.current.version };
      await take(api.DELETE("/api/jobs/{job_id}", { params: { ...path.params, query } }));
      await navigate("/");
      notice({
        text: `“${job.name}” and its lines are deleted.`,
        undo: () => attempt(() => take(api.POST("/api/jobs/{job_id}/restore", path))),
      });
    });

  return (
    <>
      <Bar trail={[{ text: "Bench", to: "/" }]} title={job.name}>
        <Button
          variant="text"
          onClick={() =>
            void saveFile(`/api/archives/${job.id}`)
              .then(({ missingPhotos, unreadableLines }) => {
                const without = [
                  missingPhotos &&
                    `${missingPhotos} ${missingPhotos === 1 ? "photograph is" : "photographs are"} missing from it`,
                  unreadableLines && `${unreadableLines} of its lines cannot be read and came as they are kept`,
                ].filter(Boolean);
                if (without.length) notice({ text: `The job is exported; ${without.join(", ")}.` });
              })
              .catch((error: unknown) => notice({ text: sentence(error) }))
          }
        >
          As a file
        </Button>
        <Button variant="text" onClick={() => setAsking({ what: "job" })}>
          Rename…
        </Button>
        <Button variant="text" color="error" onClick={removeJob}>
          Delete job
        </Button>
        <Button autoFocus={job.lines.length === 0} onClick={() => setAsking({ what: "line" })}>
          New line
        </Button>
      </Bar>
      <JobTabs job={job} part={part} />
      <Box component="main" sx={{ p: 2, maxWidth: 1280, mx: "auto" }}>
        {part === "lines" && (
          <>
            <TakeIn job={job} change={change} />
            <NextUp lines={job.lines} />
            <LineTable
              lines={job.lines}
              actions={(line) => (
                <Box sx={{ display: "flex", gap: 1 }}>
                  <Button
                    size="small"
                    aria-label={`Rename ${line.name}`}
                    onClick={() => setAsking({ what: "rename", line })}
                  >
                    Rename
                  </Button>
                  <Button
                    size="small"
                    color="error"
                    sx={{ borderColor: "var(--stop)" }}
                    aria-label={`Delete ${line.name}`}
                    onClick={() => removeLine(line)}
                  >
                    Delete
                  </Button>
                </Box>
              )}
            />
          </>
        )}
        {part === "circuits" && <Circuits jobId={job.id} unit={job.unit} />}
        {part === "strip-down" && <JobStripDown jobId={job.id} />}
        {part === "cuts" && <JobCutList jobId={job.id} unit={job.unit} />}
        {part === "kit" && <JobKit jobId={job.id} unit={job.unit} />}
        {part === "money" && <Ledger jobId={job.id} />}
        {part === "papers" && <JobPapers job={job} />}
      </Box>
      <NewLineDialog
        open={asking?.what === "line"}
        unit={job.unit}
        lines={job.lines}
        onClose={close}
        onDone={addLine}
      />
      <NameDialog
        open={asking?.what === "job"}
        title="Rename this job"
        label="Name of the job"
        first={job.name}
        onClose={close}
        onDone={(name) => change({ name })}
      />
      <NameDialog
        open={asking?.what === "rename"}
        title="Rename this line"
        label="Name of the line"
        first={asking?.what === "rename" ? asking.line.name : ""}
        onClose={close}
        onDone={(name) => asking?.what === "rename" && rename(asking.line, name)}
      />
    </>
  );
}
