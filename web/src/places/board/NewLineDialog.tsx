import { useState } from "react";
import type { LineSummary, NewLine, Reason, Urgency } from "../../api/types";
import { Pick } from "../../ui/Field";
import { useCatalogue } from "../../doc/useCatalogue";
import { REASONS, URGENCIES, words } from "../../format/words";
import { NameDialog } from "../../ui/NameDialog";

interface Props {
  open: boolean;
  /** Lines that the new one may be the mirror image of. */
  lines: readonly LineSummary[];
  onClose: () => void;
  onDone: (line: NewLine, mirrorOf: string) => void;
}

/** A new line: its name, and what is known of it when it comes in. */
export function NewLineDialog({ open, lines, onClose, onDone }: Props) {
  const catalogue = useCatalogue();
  const [service, setService] = useState("brake");
  const [reason, setReason] = useState<Reason | "">("");
  const [urgency, setUrgency] = useState<Urgency>("soon");
  const [twin, setTwin] = useState("");
  return (
    <NameDialog
      open={open}
      title="New line"
      label="Name of the line"
      first=""
      done="Make the line"
      onClose={onClose}
      onDone={(name) => onDone({ name, service, reasons: reason ? [reason] : [], urgency }, twin)}
    >
      <Pick label="Service" value={service} options={catalogue?.services ?? []} onChange={setService} />
      <Pick
        label="Because"
        value={reason}
        options={[{ id: "", name: "not said yet" }, ...words(REASONS)]}
        onChange={(id) => setReason(id as Reason | "")}
      />
      <Pick
        label="How urgent"
        value={urgency}
        options={words(URGENCIES)}
        onChange={(id) => setUrgency(id as Urgency)}
      />
      {lines.length > 0 && (
        <Pick
          label="Starts as"
          value={twin}
          options={[
            { id: "", name: "nothing read yet" },
            ...lines.map((line) => ({ id: line.id, name: `mirror image of ${line.name}` })),
          ]}
          onChange={setTwin}
        />
      )}
    </NameDialog>
  );
}
