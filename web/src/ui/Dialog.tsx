import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import { useId, useLayoutEffect, useRef } from "react";
import { createPortal } from "react-dom";
import { condensed } from "../theme/theme";

interface Props {
  title: string;
  /** Its name where no title is shown. */
  untitled?: boolean;
  width?: number;
  onClose: () => void;
  /** What the key Enter and its submitting button do. */
  onSubmit?: () => void;
  /** The buttons at its foot. */
  actions: ReactNode;
  children: ReactNode;
}

/** A dialog of the browser's own: the focus stays in it and goes back where it was, Escape and a click on the
 * ground beside it leave it. It is there for as long as it is drawn. */
export function Dialog({ title, untitled = false, width = 600, onClose, onSubmit, actions, children }: Props) {
  const id = useId();
  const ref = useRef<HTMLDialogElement>(null);
  useLayoutEffect(() => {
    const dialog = ref.current;
    dialog?.showModal();
    return () => dialog?.close();
  }, []);
  const content = (
    <>
      {!untitled && (
        <Box
          component="h2"
          id={id}
          sx={{ m: 0, px: 3, py: 2, font: `600 22px ${condensed}`, overflowWrap: "anywhere" }}
        >
          {title}
        </Box>
      )}
      <Box sx={{ px: untitled ? 0 : 3, pb: 2, overflowY: "auto", minHeight: 0 }}>{children}</Box>
      <Box sx={{ p: 1, display: "flex", flexWrap: "wrap", gap: 1, justifyContent: "flex-end" }}>{actions}</Box>
    </>
  );
  return createPortal(
    <Box
      component="dialog"
      ref={ref}
      {...(untitled ? { "aria-label": title } : { "aria-labelledby": id })}
      onCancel={(event) => {
        event.preventDefault();
        onClose();
      }}
      onMouseDown={(event) => {
        if (event.target === ref.current) onClose();
      }}
      sx={{
        p: 0,
        width,
        maxWidth: "calc(100vw - 48px)",
        maxHeight: "calc(100vh - 48px)",
        font: "400 15px Barlow, sans-serif",
        color: "var(--ink)",
        background: "var(--sheet)",
        border: "1.5px solid var(--ink)",
        borderRadius: "2px",
        "&::backdrop": { background: "rgb(0 0 0 / 0.5)" },
        "& > *": { display: "flex", flexDirection: "column", maxHeight: "calc(100vh - 51px)" },
      }}
    >
      {onSubmit ? (
        <form
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            onSubmit();
          }}
        >
          {content}
        </form>
      ) : (
        <div>{content}</div>
      )}
    </Box>,
    document.body,
  );
}
