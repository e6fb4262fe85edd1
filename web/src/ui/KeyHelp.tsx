import Button from "@mui/material/Button";
import { lazy, Suspense, useEffect, useState } from "react";

const KeyList = lazy(() => import("./KeyList"));

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
      {open && (
        <Suspense fallback={null}>
          <KeyList onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
