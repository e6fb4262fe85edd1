import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { sentence } from "../../api/client";
import type { BroughtIn } from "../../api/types";
import { sendFile } from "../../api/upload";
import { Dialog } from "../../ui/Dialog";

/** Bring in a job from a file: what it holds is shown before anything is kept. */
export default function BringIn({ onClose }: { onClose: () => void }) {
  const [file, setFile] = useState<File | null>(null);
  const [found, setFound] = useState<BroughtIn | null>(null);
  const [problem, setProblem] = useState("");
  const client = useQueryClient();
  const navigate = useNavigate();

  const pick = (chosen: File | undefined) => {
    setFound(null);
    setProblem("");
    setFile(chosen ?? null);
    if (chosen)
      void send(chosen, false)
        .then(setFound)
        .catch((error: unknown) => setProblem(sentence(error)));
  };
  const keep = () => {
    if (file)
      void send(file, true)
        .then(async (kept) => {
          await client.invalidateQueries({ queryKey: ["jobs"] });
          onClose();
          await navigate(`/jobs/${kept.job_id ?? ""}`);
        })
        .catch((error: unknown) => setProblem(sentence(error)));
  };
  return (
    <Dialog
      title="Bring in a job"
      onClose={onClose}
      actions={
        <>
          {" "}
          <Button variant="text" onClick={onClose}>
            Leave it
          </Button>
          <Button variant="contained" disabled={!found} onClick={keep}>
            Bring it in
          </Button>
        </>
      }
    >
      <Box sx={{ mb: 2 }}>A job file that Bendrel has written (.bendrel.zip): its lines, bookings and photographs.</Box>
      <input
        type="file"
        aria-label="Job file"
        accept=".zip,application/zip"
        onChange={(event) => pick(event.target.files?.[0])}
      />
      {problem && (
        <Box role="alert" sx={{ color: "var(--stop)", mt: 1 }}>
          {problem}
        </Box>
      )}
      {found && (
        <Box role="status" sx={{ mt: 2 }}>
          <strong>{found.name}</strong>
          {found.machine && `, ${found.machine}`}: {found.lines.length} {found.lines.length === 1 ? "line" : "lines"}
          {found.lines.length > 0 &&
            ` (${found.lines.slice(0, 6).join(", ")}${found.lines.length > 6 ? "…" : ""})`}, {found.bookings} bookings,{" "}
          {found.photos} photographs, {found.makings} makings.
          {found.own.length > 0 && (
            <Box>
              With entries of that shop’s own: {found.own.slice(0, 6).join(", ")}
              {found.own.length > 6 ? "…" : ""}.
            </Box>
          )}
          {found.missing_photos > 0 && (
            <Box sx={{ color: "var(--caution)" }}>{found.missing_photos} photographs are not in the file.</Box>
          )}
          <Box sx={{ color: "var(--second)" }}>It becomes a job of its own beside those that are here.</Box>
        </Box>
      )}
    </Dialog>
  );
}

const send = (file: File, keep: boolean): Promise<BroughtIn> => sendFile<BroughtIn>(`/api/archives?keep=${keep}`, file);
