import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { asideOf, dropAside } from "../doc/draft";

/** A draft that could not be read was put aside: to be kept as a file, or thrown away. */
export function DraftAside({ lineId }: { lineId: string }) {
  const [text, setText] = useState(() => asideOf(lineId));
  if (text === null) return null;
  return (
    <Box
      role="status"
      sx={{
        display: "flex",
        flexWrap: "wrap",
        gap: 1.5,
        alignItems: "center",
        px: 2,
        py: 1,
        background: "var(--sheet)",
      }}
    >
      <span>
        What was typed here and not saved cannot be read any more. It was put aside; the line is as it was saved.
      </span>
      <Button component="a" href={fileOf(text)} download="draft.json">
        Keep it as a file
      </Button>
      <Button
        onClick={() => {
          dropAside(lineId);
          setText(null);
        }}
      >
        Throw it away
      </Button>
    </Box>
  );
}

const fileOf = (text: string): string => `data:application/json;charset=utf-8,${encodeURIComponent(text)}`;
