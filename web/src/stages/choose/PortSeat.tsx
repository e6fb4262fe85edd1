import type { Catalogue, Port } from "../../api/types";
import { Pick } from "../../ui/Field";

interface Props {
  port: Port;
  catalogue: Catalogue;
  onChange: (change: Partial<Port>) => void;
}

/** What a port seals on and what it is made of. */
export function PortSeat({ port, catalogue, onChange }: Props) {
  return (
    <>
      <Pick
        label="Port’s seat"
        value={port.seat}
        options={[{ id: "", name: "not looked at yet" }, ...catalogue.seats.map(({ id, name }) => ({ id, name }))]}
        onChange={(seat) => onChange({ seat })}
      />
      <Pick
        label="Port is of"
        value={port.body}
        options={[{ id: "", name: "not said" }, ...catalogue.bodies.map(({ id, name }) => ({ id, name }))]}
        onChange={(body) => onChange({ body })}
      />
    </>
  );
}
