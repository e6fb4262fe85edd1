import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, sentence, take } from "../../api/client";
import { Bar } from "../../ui/Bar";
import { useNotice } from "../../ui/notice";
import { condensed } from "../../theme/theme";
import { fetched } from "../../ui/fetched";
import { NameDialog } from "../../ui/NameDialog";
import { sayDay } from "../../format/days";
import { LineTable } from "./LineTable";
import { OpenBoard } from "./OpenBoard";
import { askAgain } from "./askAgain";

const SetAside = fetched(() => import("./SetAside"));
const WholeShop = fetched(() => import("./WholeShop"));
const BringIn = fetched(() => import("./BringIn"));

function Promised({ date }: { date: string }) {
  const late = date < new Date().toISOString().slice(0, 10);
  return (
    <Box sx={{ font: `600 17px ${condensed}`, color: late ? "var(--stop)" : "var(--ink)" }}>
      {late ? "was promised for" : "promised for"} {sayDay(date)}
    </Box>
  );
}

/** The bench board: every job and its lines by what happens next. */
export default function Board() {
  const jobs = useQuery({
    queryKey: ["jobs"],
    queryFn: () => take(api.GET("/api/jobs")),
    refetchInterval: (query) => askAgain(query.state.data ?? []),
  });
  const waiting = (jobs.data ?? []).flatMap((job) => job.lines).filter((line) => !line.reckoned).length;
  const backups = useQuery({ queryKey: ["backups"], queryFn: () => take(api.GET("/api/backups")) });
  const [naming, setNaming] = useState(false);
  const [bringing, setBringing] = useState(false);
  const client = useQueryClient();
  const navigate = useNavigate();
  const notice = useNotice();

  const create = (name: string) =>
    take(api.POST("/api/jobs", { body: { name, machine: "", unit: "in", customer: "", parked: "", tried: "" } }))
      .then(async (job) => {
        await client.invalidateQueries({ queryKey: ["jobs"] });
        await navigate(`/jobs/${job.id}`);
      })
      .catch((error: unknown) => notice({ text: sentence(error) }));

  return (
    <>
      <Bar trail={[]} title="Bendrel · bench board">
        <Button variant="text" onClick={() => setBringing(true)}>
          Bring in a job…
        </Button>
        <Button onClick={() => setNaming(true)}>New job</Button>
      </Bar>
      <Box component="main" sx={{ p: 2, maxWidth: 1280, mx: "auto" }}>
        {jobs.isError && (
          <Box role="alert" sx={{ color: "var(--stop)" }}>
            {sentence(jobs.error)}
          </Box>
        )}
        {backups.data?.problem && (
          <Box role="alert" sx={{ color: "var(--stop)", fontWeight: 600, mb: 2 }}>
            {backups.data.newest
              ? `The last good backup is of ${sayDay(backups.data.newest)}. `
              : "There is no backup yet. "}
            {backups.data.problem}
          </Box>
        )}
        <SetAside />
        {jobs.data?.length === 0 && (
          <Box sx={{ py: 6, textAlign: "center", color: "var(--second)", fontSize: 18 }}>
            Nothing on the bench. Start with a job for the machine, then add the line that leaks.
          </Box>
        )}
        {waiting > 0 && (
          <Box role="status" sx={{ mb: 1, color: "var(--second)" }}>
            {waiting} {waiting === 1 ? "line is" : "lines are"} being worked out anew; what stands there is from before.
          </Box>
        )}
        <OpenBoard jobs={jobs.data ?? []} />
        {jobs.data?.map((job) => (
          <Box component="section" key={job.id} aria-label={job.name} sx={{ mb: 4 }}>
            <Box
              sx={{
                display: "flex",
                flexWrap: "wrap",
                alignItems: "baseline",
                columnGap: 2,
                borderBottom: "2px solid var(--ink)",
              }}
            >
              <Box
                component="h2"
                sx={{
                  m: 0,
                  font: `600 24px ${condensed}`,
                  overflowWrap: "anywhere",
                  "& a": { color: "inherit", textDecoration: "none" },
                  "& a:hover": { textDecoration: "underline" },
                }}
              >
                <Link to={`/jobs/${job.id}`}>{job.name}</Link>
              </Box>
              <Box sx={{ color: "var(--second)", overflowWrap: "anywhere", flex: 1 }}>
                {[job.machine, job.customer].filter(Boolean).join(" · ")}
              </Box>
              {job.promised && <Promised date={job.promised} />}
            </Box>
            {job.parked && (
              <Box sx={{ py: 0.5, overflowWrap: "anywhere" }}>
                <strong>Parked: {job.parked}</strong>
                {job.tried && (
                  <Box component="span" sx={{ color: "var(--second)" }}>
                    {" "}
                    · tried: {job.tried}
                  </Box>
                )}
              </Box>
            )}
            {job.still_off > 0 && (
              <Box sx={{ py: 0.5, color: "var(--second)" }}>
                {job.still_off === 1 ? "One thing" : `${job.still_off} things`} of the strip-down still off
              </Box>
            )}
            <LineTable lines={job.lines} />
          </Box>
        ))}
        {jobs.data && <WholeShop empty={jobs.data.length === 0} />}
      </Box>
      {bringing && <BringIn onClose={() => setBringing(false)} />}
      <NameDialog
        open={naming}
        title="New job"
        label="Name of the job or machine"
        first=""
        done="Make the job"
        onClose={() => setNaming(false)}
        onDone={(name) => void create(name)}
      />
    </>
  );
}
