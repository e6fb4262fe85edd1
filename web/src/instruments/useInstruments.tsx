import type { ReactNode } from "react";
import { createContext, useContext, useEffect, useMemo, useState } from "react";
import { keep, kept } from "../api/kept";
import { useNotice } from "../ui/notice";
import type { InstrumentEvent, InstrumentKind } from "../api/types";
import { dropReading } from "./drop";

const KEPT = "bendrel.instruments";

export type Link = InstrumentEvent["state"] | "no answer";
export interface Instrument {
  link: Link;
  last: string;
  trouble: string;
}

interface Instruments {
  listening: boolean;
  listen: (on: boolean) => void;
  all: Record<InstrumentKind, Instrument>;
}

export const NAMES: Record<InstrumentKind, string> = {
  caliper: "caliper",
  gauge: "angle gauge",
  probe: "point probe",
  pressure: "pressure gauge",
};
const KINDS: InstrumentKind[] = ["caliper", "gauge", "probe", "pressure"];
const nothing: Instrument = { link: "off", last: "", trouble: "" };
const none = { caliper: nothing, gauge: nothing, probe: nothing, pressure: nothing };

const Context = createContext<Instruments | null>(null);

/** Listens to the instruments while that is wanted; a good reading goes to the field in hand. */
export function InstrumentsProvider({ children }: { children: ReactNode }) {
  const [listening, setListening] = useState(() => kept(KEPT) === "on");
  const [all, setAll] = useState<Record<InstrumentKind, Instrument>>(none);
  const notice = useNotice();

  useEffect(() => {
    keep(KEPT, listening ? "on" : "off");
    if (!listening) return;
    const source = new EventSource("/api/instruments/stream");
    source.onmessage = (message: MessageEvent<string>) => {
      const event = JSON.parse(message.data) as InstrumentEvent;
      const name = NAMES[event.instrument];
      const last = event.last?.texts.join(", ") ?? "";
      setAll((was) => ({ ...was, [event.instrument]: { link: event.state, last, trouble: event.trouble } }));
      if (event.reading) {
        const refused = dropReading(event.reading);
        if (refused) notice({ text: refused });
      }
      if (event.trouble)
        notice({ text: `${event.trouble} ${last ? `The last good reading stays: ${last}.` : "Nothing was changed."}` });
      if (event.state === "lost") notice({ text: `The connection to the ${name} is lost. What is typed stays.` });
    };
    source.onerror = () =>
      setAll(
        (was) =>
          Object.fromEntries(KINDS.map((kind) => [kind, { ...was[kind], link: "no answer" as const }])) as Record<
            InstrumentKind,
            Instrument
          >,
      );
    return () => source.close();
  }, [listening, notice]);

  const value = useMemo(() => ({ listening, listen: setListening, all: listening ? all : none }), [listening, all]);
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

export function useInstruments(): Instruments {
  const instruments = useContext(Context);
  if (!instruments) throw new Error("useInstruments needs an InstrumentsProvider");
  return instruments;
}
