import { useState } from "react";
import type { LineSummary, NewLine, Unit } from "../../api/types";
import { Field, Pick } from "../../ui/Field";
import { useCatalogue } from "../../doc/useCatalogue";
import { NameDialog } from "../../ui/NameDialog";

interface Props {
  open: boolean;
  /** The unit of the job, in which bare numbers are. */
  unit: Unit;
  /** Lines that the new one may be made after. */
  lines: readonly LineSummary[];
  onClose: () => void;
  onDone: (line: NewLine, at: string) => void;
}

interface Kind {
  id: string;
  name: string;
  begins: NonNullable<NewLine["begins"]>["begins"];
  /** Where one goes on with it. */
  at: string;
  /** What its length is called where that is asked first. */
  length?: string;
  /** It is made after a line that is there. */
  after?: true;
}

const KINDS: readonly Kind[] = [
  { id: "tube", name: "a tube like the old one", begins: "like the old one", at: "measure" },
  { id: "hose", name: "a hose", begins: "hose", at: "choose", length: "Length of it" },
  {
    id: "mend",
    name: "an old tube with a bad place",
    begins: "old tube",
    at: "look",
    length: "Its whole length",
  },
  {
    id: "let-in",
    name: "an old tube, something let in",
    begins: "old tube",
    at: "choose?piece=s1&let-in=s1",
    length: "Its whole length",
  },
  { id: "corners", name: "a tube by points", begins: "corners", at: "measure" },
  { id: "mirror", name: "the mirror image of another line", begins: "like the old one", at: "measure", after: true },
  { id: "same", name: "a copy of another line", begins: "like the old one", at: "measure", after: true },
  {
    id: "alongside",
    name: "a tube bent beside the old part",
    begins: "alongside",
    at: "measure",
    length: "Of the old part",
  },
];

/** A new line begins with what it is, and the two or three first things that are known of that. */
export function NewLineDialog({ open, unit, lines, onClose, onDone }: Props) {
  const catalogue = useCatalogue();
  const [service, setService] = useState("brake");
  const [chosen, setChosen] = useState("tube");
  const [length, setLength] = useState("");
  const [goesOn, setGoesOn] = useState("");
  const [like, setLike] = useState("");
  const kinds = KINDS.filter((one) => !one.after || lines.length > 0);
  const kind = kinds.find((one) => one.id === chosen);
  const hose = kind?.begins === "hose";
  const source = kind?.after ? like || (lines[0]?.id ?? "") : "";
  const begins = {
    begins: kind?.begins ?? ("like the old one" as const),
    length: kind?.length ? length.slice(0, 80) : "",
    goes_on: hose ? goesOn.slice(0, 80) : "",
    like: source,
    mirror: chosen === "mirror",
  };
  return (
    <NameDialog
      open={open}
      title="New line"
      label="Name of the line"
      first=""
      done="Make the line"
      onClose={onClose}
      onDone={(name) => onDone({ name, service, reasons: [], urgency: "soon", begins }, kind?.at ?? "measure")}
    >
      <Pick label="It is" value={chosen} options={kinds} onChange={setChosen} />
      {kind?.after && <Pick label="Line" value={source} options={[...lines]} onChange={setLike} />}
      {!kind?.after && (
        <Pick label="Service" value={service} options={catalogue?.services ?? []} onChange={setService} />
      )}
      {hose && (
        <Field
          label="Goes on"
          text={goesOn}
          placeholder={unit === "mm" ? "outside diameter, such as 8" : 'outside diameter, such as 3/8"'}
          onText={setGoesOn}
        />
      )}
      {kind?.length && (
        <Field
          label={kind.length}
          text={length}
          placeholder={hose ? "as cut, or later" : "by string along it"}
          onText={setLength}
        />
      )}
    </NameDialog>
  );
}
