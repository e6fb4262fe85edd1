import type { LineJoint, Plan } from "../../api/types";
import { setPiece } from "../../doc/chain";
import { seen } from "../../doc/proving";
import { useCatalogue } from "../../doc/useCatalogue";
import type { LineEditor } from "../../doc/useLine";
import { asNoted } from "../../doc/who";
import { Pick } from "../../ui/Field";

interface Props {
  editor: LineEditor;
  joint: LineJoint;
  plan: Plan | null;
  onDone: () => void;
}

/** Which clamp goes on instead: it is put into the line, its kit and its record, and noted at the joint. */
export function OtherClamp({ editor, joint, plan, onDone }: Props) {
  const catalogue = useCatalogue();
  const hose = editor.document.spans.find(
    (span) => span.kind === "hose" && (span.id === joint.span || span.id === joint.meets),
  );
  if (!catalogue || hose?.kind !== "hose") return null;
  const placed = plan?.chosen?.pieces.hoses.find((one) => one.stands.span === hose.id);
  const offers = new Set(placed?.ends.flatMap((end) => end.offers) ?? []);
  const kindOf = (id: string) => catalogue.clamp_kinds.find((row) => row.id === id)?.name ?? id;
  return (
    <Pick
      label="Which clamp"
      value=""
      options={[
        { id: "", name: "choose what goes on" },
        ...catalogue.clamps
          .filter((row) => offers.has(row.id) && row.id !== hose.clamp)
          .map((row) => ({ id: row.id, name: `${kindOf(row.kind)} ${row.name} mm` })),
      ]}
      onChange={(clamp) => {
        if (!clamp) return;
        onDone();
        editor.edit((was) => seen(setPiece(was, hose.id, { clamp }), [joint], "another clamp", asNoted()));
      }}
    />
  );
}
