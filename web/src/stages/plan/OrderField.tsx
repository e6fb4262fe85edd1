import { useState } from "react";
import { turnsOf, writtenOrder } from "../../doc/order";
import { bendIds, spanOf, withSpan } from "../../doc/rows";
import type { LineEditor } from "../../doc/useLine";
import { Field } from "../../ui/Field";

/** The order of bends as people write it; it is kept by what it names, once it can be read. */
export function OrderField({ editor, problem }: { editor: LineEditor; problem: string | undefined }) {
  const span = spanOf(editor.document, editor.tube);
  const ids = bendIds(span);
  const written = writtenOrder(span.order, ids);
  const [typing, setTyping] = useState<string | null>(null);
  // what is kept has changed under the field: by undo, a proposal, another bend
  const unread = typing !== null && turnsOf(typing, ids) === null;
  const same = typing !== null && !unread && writtenOrder(turnsOf(typing, ids) ?? [], ids) === written;
  const text = typing !== null && (unread || same) ? typing : written;
  return (
    <Field
      label="Order"
      text={text}
      placeholder="one after the other"
      problem={
        unread
          ? "Write the end held and the bend for each step, such as A1 A2 B3; it is kept once it reads so."
          : problem
      }
      onText={(next) => {
        setTyping(next.slice(0, 1000));
        const order = turnsOf(next, ids);
        if (order) editor.edit((was) => withSpan(was, { order }, editor.tube));
      }}
    />
  );
}
