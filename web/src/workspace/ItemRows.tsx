import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import type { RemovedItem } from "../api/types";
import { Typed, Word } from "../ui/Entry";
import { moveRow, removeAt } from "../doc/rows";
import { PhotoButton } from "../ui/PhotoButton";
import { condensed } from "../theme/theme";
import { thenFocus } from "../ui/thenFocus";

interface Props<T extends RemovedItem> {
  title: string;
  hint: string;
  /** What the button that adds a row says. */
  addText?: string;
  /** What each row is called for whoever cannot see where it stands, such as "shared ". */
  prefix?: string;
  items: readonly T[];
  /** Kinds that are replaced unless somebody decides otherwise. */
  singleUse: readonly RemovedItem["kind"][];
  blank: () => T;
  set: (items: T[]) => void;
  /** What else a row asks. */
  more?: (item: T, change: (part: Partial<T>) => void, n: string) => ReactNode;
}

const KINDS: RemovedItem["kind"][] = [
  "bolt",
  "nut",
  "screw",
  "clip",
  "hose clamp",
  "washer",
  "O-ring",
  "bracket",
  "shield",
  "connector",
  "part",
  "moved aside",
];
const FATES: RemovedItem["fate"][] = ["reuse", "replace", "should be here and is not", "out for good"];
export const NOTHING: RemovedItem = {
  kind: "bolt",
  what: "",
  wrench: "",
  count: 1,
  where: "",
  fate: "reuse",
  note: "",
  photo: "",
  refitted: false,
};

/** A removal log: every thing in the order it came off. It is read backwards to put it together. */
export function ItemRows<T extends RemovedItem>({
  title,
  hint,
  addText = "Next thing off",
  prefix = "",
  items,
  singleUse,
  blank,
  set,
  more,
}: Props<T>) {
  const change = (k: number, part: Partial<T>) => set(items.map((item, i) => (i === k ? { ...item, ...part } : item)));
  const add = () => {
    thenFocus(
      () => set([...items, blank()]),
      () => document.querySelector<HTMLElement>(`[aria-label="What came off, ${prefix}${items.length + 1}"]`)?.focus(),
    );
  };
  return (
    <Box component="section" aria-label={title} sx={{ mt: 2 }}>
      <Typography variant="h2">{title}</Typography>
      {items.length === 0 && <Box sx={{ color: "var(--second)" }}>{hint}</Box>}
      {items.map((item, k) => {
        const n = `${prefix}${k + 1}`;
        return (
          <Box
            key={k}
            data-item={item.fate}
            sx={{ borderBottom: "1px solid var(--rule)", py: 0.75, display: "grid", gap: 0.5 }}
          >
            <Box sx={{ display: "flex", gap: 0.5, alignItems: "center" }}>
              <Box sx={{ font: `600 17px ${condensed}`, width: 20, flex: "none" }}>{k + 1}</Box>
              <Word
                label={`Kind of thing ${n}`}
                value={item.kind}
                list={KINDS}
                onChange={(kind) => change(k, refate(item, kind, singleUse) as Partial<T>)}
              />
              <Typed
                label={`What came off, ${n}`}
                text={item.what}
                placeholder="M8 × 20, bracket"
                width="100%"
                onText={(what) => change(k, { what: what.slice(0, 80) } as Partial<T>)}
              />
              <Typed
                label={`Wrench for ${n}`}
                text={item.wrench}
                placeholder="wrench"
                width={92}
                onText={(wrench) => change(k, { wrench: wrench.slice(0, 30) } as Partial<T>)}
              />
              ×
              <Typed
                label={`How many of ${n}`}
                text={String(item.count)}
                placeholder="1"
                width={36}
                onText={(text) =>
                  change(k, { count: Math.min(999, Math.max(1, Number.parseInt(text, 10) || 1)) } as Partial<T>)
                }
              />
            </Box>
            <Box sx={{ display: "flex", gap: 0.5, alignItems: "center", pl: "24px" }}>
              <Typed
                label={`Where ${n} sits`}
                text={item.where}
                placeholder="where it sits"
                width="100%"
                onText={(where) => change(k, { where: where.slice(0, 80) } as Partial<T>)}
              />
              <Word
                label={`What becomes of ${n}`}
                value={item.fate}
                list={FATES}
                onChange={(fate) => change(k, { fate } as Partial<T>)}
              />
            </Box>
            <Box sx={{ display: "flex", gap: 0.5, alignItems: "center", pl: "24px" }}>
              <Typed
                label={`Note on ${n}`}
                text={item.note}
                placeholder="note"
                width="100%"
                onText={(note) => change(k, { note: note.slice(0, 400) } as Partial<T>)}
              />
              <PhotoButton
                of={`${item.kind} ${item.what} (${n})`}
                photo={item.photo}
                onPhoto={(photo) => change(k, { photo } as Partial<T>)}
              />
              <Small label={`Move ${n} up`} text="↑" off={k === 0} onClick={() => set(moveRow(items, k, k - 1))} />
              <Small
                label={`Move ${n} down`}
                text="↓"
                off={k === items.length - 1}
                onClick={() => set(moveRow(items, k, k + 1))}
              />
              <Small label={`Take out ${n}`} text="✕" off={false} onClick={() => set(removeAt(items, k))} />
            </Box>
            {more?.(item, (part) => change(k, part), n)}
          </Box>
        );
      })}
      <Button size="small" sx={{ mt: 0.75 }} disabled={items.length >= 200} onClick={add}>
        {addText}
      </Button>
    </Box>
  );
}

/** Another kind of thing: what is used once is replaced, unless it is not there at all. */
function refate(
  item: RemovedItem,
  kind: RemovedItem["kind"],
  singleUse: Props<RemovedItem>["singleUse"],
): Partial<RemovedItem> {
  if (item.fate === "should be here and is not") return { kind };
  return { kind, fate: singleUse.includes(kind) ? "replace" : "reuse" };
}

function Small({ label, text, off, onClick }: { label: string; text: string; off: boolean; onClick: () => void }) {
  return (
    <Button
      size="small"
      variant="text"
      disabled={off}
      aria-label={label}
      onClick={onClick}
      sx={{ minWidth: 32, px: 0.5 }}
    >
      {text}
    </Button>
  );
}
