import Button from "@mui/material/Button";
import { useEffect, useState } from "react";
import { fetched } from "./fetched";

const KeyList = fetched(() => import("./KeyList"));

function inText(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.matches("input, textarea, select, [contenteditable]");
}

/** The list of shortcuts, behind a button and the question mark. */
export function KeyHelp() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === "?" && !inText(event.target)) setOpen(true);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  return (
    <>
      <Button size="small" variant="text" onClick={() => setOpen(true)} sx={{ minWidth: 44 }}>
        Keys
      </Button>
      {open && <KeyList onClose={() => setOpen(false)} />}
    </>
  );
}
