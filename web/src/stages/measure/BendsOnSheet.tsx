import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import type { BendOnSheet, DrawnEnd, OnSheet, Unit } from "../../api/types";
import { sayLength } from "../../format/units";
import { Field, Pick } from "../../ui/Field";
import { blankBend } from "./further";
import { ReadGroup } from "./ReadGroup";

interface Props {
  sheet: OnSheet;
  /** What the sheet shows that the part lies on. */
  drawn: DrawnEnd | null;
  bends: { id: string; name: string }[];
  unit: Unit;
  problem: (path: string) => string | undefined;
  verdict: (id: string) => ReactNode;
  onSet: (bends: BendOnSheet[]) => void;
}

/** Bends of the old part beside their drawing and over the board. */
export function BendsOnSheet({ sheet, drawn, bends, unit, problem, verdict, onSet }: Props) {
  const change = (id: string, to: Partial<BendOnSheet>) =>
    onSet(sheet.bends.map((one) => (one.id === id ? { ...one, ...to } : one)));
  return (
    <>
      {sheet.bends.map((one) => {
        const name = bends.find((bend) => bend.id === one.row)?.name ?? "a bend that is gone";
        const at = `sheet/bends/${one.id}`;
        const high = drawn?.bends.find((bend) => bend.row === one.row)?.high;
        return (
          <ReadGroup
            key={one.id}
            at={at}
            name={`${name} on its sheet`}
            onTakeOut={() => onSet(sheet.bends.filter((other) => other.id !== one.id))}
          >
            <Pick
              label="Bend"
              value={one.row}
              options={bends}
              problem={problem(`${at}/row`)}
              onChange={(row) => change(one.id, { row })}
            />
            <Field
              takes="length"
              label={one.left ? "Left of its drawing by" : "Right of its drawing by"}
              text={one.beside}
              placeholder="touches, 2"
              problem={problem(`${at}/beside`)}
              onText={(text) => change(one.id, { beside: text.slice(0, 40) })}
            />
            <Button
              size="small"
              variant="text"
              onClick={() => change(one.id, { left: !one.left })}
              sx={{ ml: "112px" }}
            >
              {one.left ? "It lies to the right, seen from A" : "It lies to the left, seen from A"}
            </Button>
            <Field
              takes="length"
              label="Its underside over the board"
              text={one.height}
              placeholder={high === undefined ? "by rule, at the bend" : `drawn at ${sayLength(high, unit)}`}
              problem={problem(`${at}/height`)}
              onText={(text) => change(one.id, { height: text.slice(0, 40) })}
            />
            {verdict(one.id)}
          </ReadGroup>
        );
      })}
      <Button
        size="small"
        variant="text"
        disabled={!drawn || bends.length === 0}
        onClick={() => onSet([...sheet.bends, blankBend(next(sheet, bends))])}
      >
        + bend on the sheet
      </Button>
    </>
  );
}

/** The first bend that was not read yet. */
const next = (sheet: OnSheet, bends: { id: string }[]) =>
  (bends.find((bend) => !sheet.bends.some((one) => one.row === bend.id)) ?? bends[0])?.id ?? "";
