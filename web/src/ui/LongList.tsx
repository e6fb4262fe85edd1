import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import { useState } from "react";

interface Props<Row> {
  rows: readonly Row[];
  row: (row: Row, k: number) => ReactNode;
  /** So many are shown at first; a list that is hardly longer is shown whole. */
  most?: number;
}

/** A long list, folded behind its first rows until all of it is wanted. */
export function LongList<Row>({ rows, row, most = 14 }: Props<Row>) {
  const [all, setAll] = useState(false);
  const folded = !all && rows.length > most + 3;
  return (
    <>
      {(folded ? rows.slice(0, most) : rows).map(row)}
      {folded && (
        <Button size="small" sx={{ my: 0.5 }} aria-expanded={false} onClick={() => setAll(true)}>
          {rows.length - most} more
        </Button>
      )}
    </>
  );
}
