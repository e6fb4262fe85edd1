import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { Dialog } from "./Dialog";
import { useRef, useState } from "react";
import { Refusal, sentence } from "../api/client";
import { useNotice } from "./notice";

interface Props {
  /** What the photograph shows, for those who do not see the button. */
  of: string;
  photo: string;
  onPhoto: (id: string) => void;
}

/** Take or choose a photograph; once there is one, look at it large or take it off again. */
export function PhotoButton({ of, photo, onPhoto }: Props) {
  const file = useRef<HTMLInputElement>(null);
  const [open, setOpen] = useState(false);
  const [busy, setBusy] = useState(false);
  const [gone, setGone] = useState(false);
  const notice = useNotice();
  const pick = (chosen: File | undefined) => {
    if (!chosen) return;
    setBusy(true);
    keepPhoto(chosen)
      .then(onPhoto)
      .catch((error: unknown) => notice({ text: sentence(error) }))
      .finally(() => setBusy(false));
  };
  return (
    <>
      <input
        ref={file}
        type="file"
        hidden
        accept="image/jpeg,image/png,image/webp"
        aria-label={`Photograph of ${of}`}
        onChange={(event) => pick(event.target.files?.[0])}
      />
      {photo === "" ? (
        <Button
          size="small"
          variant="text"
          disabled={busy}
          aria-label={`Add a photograph of ${of}`}
          title="Add a photograph"
          onClick={() => file.current?.click()}
          sx={{ minWidth: 36, px: 0.5 }}
        >
          <Camera />
        </Button>
      ) : (
        <Box
          component="button"
          type="button"
          onClick={() => setOpen(true)}
          aria-label={`Photograph of ${of}`}
          sx={{
            all: "unset",
            cursor: "pointer",
            width: 36,
            height: 36,
            flex: "none",
            border: "1px solid var(--ink)",
            "&:focus-visible": { outline: "3px solid var(--ink)" },
            "& img": { width: "100%", height: "100%", objectFit: "cover", display: "block" },
          }}
        >
          {gone ? <Missing /> : <img src={`/api/photos/${photo}`} alt="" onError={() => setGone(true)} />}
        </Box>
      )}
      {open && (
        <Dialog
          untitled
          title={`Photograph of ${of}`}
          width={900}
          onClose={() => setOpen(false)}
          actions={
            <>
              {" "}
              <Button
                variant="text"
                color="error"
                onClick={() => {
                  onPhoto("");
                  setOpen(false);
                }}
              >
                Take it off
              </Button>
              <Button onClick={() => setOpen(false)}>Close</Button>
            </>
          }
        >
          {gone ? (
            <Box sx={{ p: 3 }}>
              This photograph did not come along with the line; a whole job as a file carries its photographs.
            </Box>
          ) : (
            <Box
              component="img"
              src={`/api/photos/${photo}`}
              alt={of}
              sx={{ maxWidth: "100%", maxHeight: "75vh", objectFit: "contain" }}
            />
          )}
        </Dialog>
      )}
    </>
  );
}

function Missing() {
  return (
    <Box
      component="span"
      sx={{ display: "grid", placeItems: "center", height: "100%", color: "var(--caution)", fontWeight: 600 }}
      title="not in this shop"
    >
      ?
    </Box>
  );
}

function Camera() {
  return (
    <svg width="22" height="18" viewBox="0 0 22 18" fill="none" stroke="var(--ink)" strokeWidth="1.6" aria-hidden>
      <path d="M1 4h5l2-3h6l2 3h5v13H1z" />
      <circle cx="11" cy="10" r="4" />
    </svg>
  );
}

async function keepPhoto(file: File): Promise<string> {
  const answer = await fetch("/api/photos", { method: "POST", body: file }).catch(() => null);
  if (!answer) throw new Refusal("Bendrel does not answer. Is it still running?", 0);
  const body = (await answer.json()) as { id?: string; message?: string };
  if (!answer.ok || !body.id) throw new Refusal(body.message ?? "The photograph was not kept.", answer.status);
  return body.id;
}
