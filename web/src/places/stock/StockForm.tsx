import { useState } from "react";
import { api, newerThan, sentence, take } from "../../api/client";
import type { Catalogue, StockDraft } from "../../api/types";
import { Dialog } from "../../ui/Dialog";
import { Field, Pick } from "../../ui/Field";
import { KeepOrLeave } from "../../ui/KeepOrLeave";
import { Wrong } from "../../ui/Wrong";
import { StockBook } from "./StockBook";

/** Putting something into the stock, or correcting what is said of it. */
export function StockForm({
  catalogue,
  first,
  onClose,
  onKept,
}: {
  catalogue: Catalogue;
  first: { id: string | null; version: number; draft: StockDraft };
  onClose: () => void;
  onKept: () => Promise<unknown>;
}) {
  const [draft, setDraft] = useState(first.draft);
  const [count, setCount] = useState(String(first.draft.count));
  const [problem, setProblem] = useState("");
  const [version, setVersion] = useState(first.version);
  const set = (change: Partial<StockDraft>) => setDraft((was) => ({ ...was, ...change }));
  const submit = () => {
    if (!/^[1-9]\d{0,2}$/.test(count.trim())) {
      setProblem("Pieces: a whole number from 1 to 999.");
      return;
    }
    const body = { ...draft, count: Number(count) };
    const kept =
      first.id === null
        ? take(api.POST("/api/stock", { body }))
        : take(
            api.PUT("/api/stock/{stock_id}", { params: { path: { stock_id: first.id }, query: { version } }, body }),
          );
    void kept
      .then(onKept)
      .then(onClose)
      .catch((error: unknown) => {
        setProblem(sentence(error));
        setVersion(newerThan(error) ?? version);
      });
  };
  const name = (tube: Catalogue["tubes"][number]) =>
    `${tube.size} × ${tube.wall_mm} mm ${catalogue.materials.find((row) => row.id === tube.material)?.name ?? ""}`;
  return (
    <Dialog
      title={first.id === null ? "Put in stock" : "Correct the stock"}
      onClose={onClose}
      onSubmit={submit}
      actions={<KeepOrLeave onClose={onClose} stale={version !== first.version} />}
    >
      <Pick
        label="Tube"
        value={draft.tube}
        options={catalogue.tubes.map((tube) => ({ id: tube.id, name: name(tube) }))}
        onChange={(tube) => set({ tube })}
      />
      <Pick
        label="It is"
        value={draft.form}
        options={[
          { id: "stick", name: "a straight stick" },
          { id: "coil", name: "a coil" },
          { id: "offcut", name: "an offcut" },
        ]}
        onChange={(form) => set({ form: form as "stick" | "coil" | "offcut" })}
      />
      <Field
        label="Length"
        text={draft.length}
        placeholder="1500 mm"
        takes="length"
        onText={(length) => set({ length: length.slice(0, 40) })}
      />
      <Field label="Pieces" text={count} placeholder="1" onText={setCount} />
      <Field
        label="Finished end"
        text={draft.finished}
        placeholder="plain, or such as 45° double flare with 3/8-24"
        onText={(finished) => set({ finished: finished.slice(0, 120) })}
      />
      <Field
        label="Note"
        text={draft.note}
        placeholder="where it lies"
        onText={(note) => set({ note: note.slice(0, 120) })}
      />
      {first.id !== null && <StockBook id={first.id} />}
      <Wrong text={problem} />
    </Dialog>
  );
}
