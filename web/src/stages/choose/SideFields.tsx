import type { Catalogue, Side } from "../../api/types";
import { Field, Pick } from "../../ui/Field";

interface Props {
  /** Whose side it is, such as "Side A". */
  label: string;
  side: Side;
  /** What it is as long as nobody has said it. */
  usual: string;
  catalogue: Catalogue;
  problem: (name: string) => string | undefined;
  onChange: (side: Side) => void;
}

const KINDS: { id: Side["kind"]; name: string }[] = [
  { id: "plug", name: "goes into or over a seat" },
  { id: "socket", name: "has a seat" },
  { id: "spigot", name: "a spigot for hose" },
];
const FORMS = [
  { id: "barb", name: "barbed" },
  { id: "bead", name: "beaded" },
  { id: "plain", name: "plain" },
];
const UNDER_HOSE = new Set(["hose", "plain"]);

/** What one side of a component, or a hose's own end, is: how it seals, and its thread. */
export function SideFields({ label, side, usual, catalogue, problem, onChange }: Props) {
  const first = { plug: "single-37", socket: "cone-37", spigot: "barb", "": "" } as const;
  const named =
    side.kind === "socket"
      ? catalogue.seats.filter(({ id }) => id !== "hose" && id !== "spigot")
      : side.kind === "spigot"
        ? FORMS
        : catalogue.fittings.filter((row) => !UNDER_HOSE.has(row.kind));
  return (
    <>
      <Pick
        label={label}
        value={side.kind}
        options={[{ id: "", name: usual }, ...KINDS]}
        onChange={(id) => {
          const kind = id as Side["kind"];
          onChange({ kind, of: first[kind], thread: kind === "plug" || kind === "socket" ? side.thread : "" });
        }}
      />
      {side.kind !== "" && (
        <Pick
          label={side.kind === "socket" ? "Its seat" : side.kind === "spigot" ? "It is" : "Seals as"}
          value={side.of}
          options={named.map(({ id, name }) => ({ id, name }))}
          problem={problem("of")}
          onChange={(of) => onChange({ ...side, of })}
        />
      )}
      {(side.kind === "plug" || side.kind === "socket") && (
        <Field
          label="Its thread"
          text={side.thread}
          placeholder="such as 9/16-18 or M14x1.5"
          problem={problem("thread")}
          onText={(thread) => onChange({ ...side, thread: thread.slice(0, 40) })}
        />
      )}
    </>
  );
}
