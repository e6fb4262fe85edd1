import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { useRef, useState } from "react";
import { sentence } from "../../api/client";
import type { WholeShop as Brought } from "../../api/types";
import { sendFile } from "../../api/upload";

/** The whole shop as one file: out at any time, in where nothing is yet. */
export default function WholeShop({ empty }: { empty: boolean }) {
  const [said, setSaid] = useState("");
  const [wrong, setWrong] = useState("");
  const client = useQueryClient();
  const input = useRef<HTMLInputElement>(null);
  const bring = (file: File | undefined) => {
    if (!file) return;
    setWrong("");
    setSaid("The file is being read and checked…");
    void sendFile<Brought>("/api/shop/everything", file)
      .then(async ({ rows, missing_photos }) => {
        const missing = missing_photos ? `, ${missing_photos} photographs were not in it` : "";
        setSaid(`${rows["jobs"] ?? 0} jobs with ${rows["lines"] ?? 0} lines are here, as they were${missing}.`);
        await client.invalidateQueries();
      })
      .catch((error: unknown) => {
        setSaid("");
        setWrong(sentence(error));
      });
  };
  return (
    <Box
      component="section"
      aria-label="The whole shop"
      sx={{
        mt: 4,
        pt: 1,
        borderTop: "1px solid var(--rule)",
        display: "flex",
        flexWrap: "wrap",
        gap: 1.5,
        alignItems: "center",
      }}
    >
      <Box sx={{ flex: "1 1 320px", color: "var(--second)" }}>
        The whole shop as one file: jobs with their undo, stock, own entries, tools, preferences and photographs.
      </Box>
      {empty && (
        <>
          <input
            ref={input}
            type="file"
            hidden
            aria-label="Shop file"
            accept=".zip,application/zip"
            onChange={(event) => {
              bring(event.target.files?.[0]);
              event.target.value = "";
            }}
          />
          <Button variant="text" onClick={() => input.current?.click()}>
            Bring in a whole shop…
          </Button>
        </>
      )}
      <Button variant="text" component="a" href="/api/shop/everything.zip" download>
        Export everything
      </Button>
      <Link to="/notices" style={{ color: "var(--second)" }}>
        Licence and notices
      </Link>
      {said && (
        <Box role="status" sx={{ flexBasis: "100%" }}>
          {said}
        </Box>
      )}
      {wrong && (
        <Box role="alert" sx={{ flexBasis: "100%", color: "var(--stop)" }}>
          {wrong}
        </Box>
      )}
    </Box>
  );
}
