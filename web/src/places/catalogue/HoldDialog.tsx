import Box from "@mui/material/Box";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, newerThan, sentence, take } from "../../api/client";
import type { Held } from "../../api/types";
import { readMoney, sayMetres, sayMoney } from "../../format/amounts";
import { Dialog } from "../../ui/Dialog";
import { Field } from "../../ui/Field";
import { KeepOrLeave } from "../../ui/KeepOrLeave";
import { Wrong } from "../../ui/Wrong";
import type { Row } from "./tables";

interface Props {
  row: Row;
  reference: string;
  held: Held | undefined;
  onClose: () => void;
}

/** How much of a row is in stock, and what the shop pays for it. */
export function HoldDialog({ row, reference, held, onClose }: Props) {
  const factor = row.per === "metre" ? 1000 : 1;
  const [have, setHave] = useState(held ? String(held.have / factor) : "");
  const [price, setPrice] = useState(held?.unit_cents == null ? "" : sayMoney(held.unit_cents));
  const [problem, setProblem] = useState("");
  const first = held?.version ?? 0;
  const [version, setVersion] = useState(first);
  const client = useQueryClient();
  const tube = reference.startsWith("tube:");
  const amount = tube || have.trim() === "" ? 0 : Number(have);
  const cents = price.trim() === "" ? null : readMoney(price);
  const submit = () => {
    if (!Number.isFinite(amount) || amount < 0) {
      setProblem("In stock: write a plain number, such as 3 or 7.5.");
      return;
    }
    if (price.trim() !== "" && cents === null) {
      setProblem("Price: write an amount such as 12.50, or leave it blank for the supplier’s.");
      return;
    }
    const body = { ref: reference, have: amount * factor, unit_cents: cents, version };
    void take(api.PUT("/api/holdings", { body }))
      .then(async () => {
        await client.invalidateQueries({ queryKey: ["holdings"] });
        await client.invalidateQueries({ queryKey: ["kit"] });
        onClose();
      })
      .catch((error: unknown) => {
        setProblem(sentence(error));
        setVersion(newerThan(error) ?? version);
      });
  };
  return (
    <Dialog
      title={row.cells.slice(0, 4).join(", ")}
      onClose={onClose}
      onSubmit={submit}
      actions={<KeepOrLeave onClose={onClose} stale={version > first} />}
    >
      {tube ? (
        <Box sx={{ mb: 2 }}>
          {sayMetres(held?.have ?? 0)} lie in the shop, kept piece by piece under <Link to="/stock">Stock</Link>.
        </Box>
      ) : (
        <Field label={`In stock, ${row.per}s`} text={have} placeholder="0" onText={setHave} />
      )}
      <Field label={`Price a ${row.per}`} text={price} placeholder="the supplier’s" onText={setPrice} />
      <Wrong text={problem} />
    </Dialog>
  );
}
