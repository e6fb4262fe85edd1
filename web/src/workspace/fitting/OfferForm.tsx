import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useId, useRef, useState } from "react";
import type { TypedOffer } from "../../api/types";
import { Input } from "../../ui/Input";
import { homeOf } from "./offers";

type Field = "along" | "off" | "off_clock" | "tilt" | "tilt_clock";

interface Props {
  start: TypedOffer;
  wrong: readonly { name: Field; message: string }[];
  large: boolean;
  text: string;
  /** How many bends the part has: clocks seen from B are from the plane of its last. */
  bends: number;
  onSave: (offer: TypedOffer) => void;
}

/** Where an end lies when the part is offered with the other one home: every field may stay blank. */
export function OfferForm({ start, wrong, large, text, bends, onSave }: Props) {
  const [offer, setOffer] = useState(start);
  const { lands } = offer;
  const home = homeOf(lands);
  const set = (change: Partial<TypedOffer>) => setOffer((was) => ({ ...was, ...change }));
  const field = (name: Field, label: string, holder: string, takes?: "length" | "angle") => (
    <OfferField
      label={label}
      holder={holder}
      takes={takes}
      text={offer[name]}
      large={large}
      problem={wrong.find((item) => item.name === name)?.message}
      first={wrong[0]?.name === name}
      onText={(value) => set({ [name]: value.slice(0, 40) })}
    />
  );
  return (
    <Box
      component="form"
      aria-label="Offer the part"
      onSubmit={(event) => {
        event.preventDefault();
        onSave(offer);
      }}
      sx={{ mt: 1.5 }}
    >
      <Box sx={{ mb: 1 }}>
        End {home} home, the part rolled to its best, end {lands} not trimmed. Where does end {lands} lie against its
        port (or against the target of the jig sheet)? Leave out what you cannot see.
        {lands === "A" && ` Clocks are as seen from B; 12:00 is the plane of bend ${bends}.`}
        <Button
          size="small"
          variant="text"
          onClick={() => set({ lands: home })}
          sx={{ display: "block", minHeight: 44, fontSize: large ? 17 : 14, px: 0 }}
        >
          Read at end {home}
        </Button>
      </Box>
      <Box sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fit, minmax(150px, 1fr))", gap: 1.5 }}>
        <Box>
          {field("along", offer.short ? "Too short by" : "Too long by", "touches", "length")}
          <Button
            size="small"
            variant="text"
            onClick={() => set({ short: !offer.short })}
            sx={{ minHeight: 40, fontSize: large ? 17 : 14 }}
          >
            {offer.short ? "It is too long" : "It is too short"}
          </Button>
        </Box>
        {field("off", "Beside by", "touches, 4 mm", "length")}
        {field("off_clock", "Towards", `3:00, from ${home}`)}
        {field("tilt", "Leans by", "square, 1.5", "angle")}
        {field("tilt_clock", "Leans towards", `6:00, from ${home}`)}
      </Box>
      <Button
        type="submit"
        variant="contained"
        color="secondary"
        sx={{ mt: 1, minHeight: large ? 64 : 44, fontSize: large ? 22 : 16 }}
      >
        {text}
      </Button>
    </Box>
  );
}

interface FieldProps {
  label: string;
  holder: string;
  takes: "length" | "angle" | undefined;
  text: string;
  large: boolean;
  problem: string | undefined;
  /** Of all problems it is the first: the cursor goes there. */
  first: boolean;
  onText: (text: string) => void;
}

function OfferField({ label, holder, takes, text, large, problem, first, onText }: FieldProps) {
  const id = useId();
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (!problem || !first) return;
    field.current?.select();
    field.current?.scrollIntoView({ block: "center" });
  }, [problem, first]);
  return (
    <Box>
      <Box component="label" htmlFor={id} sx={{ color: "var(--second)", fontSize: large ? 18 : 14 }}>
        {label}
      </Box>
      <Input
        ref={field}
        id={id}
        text={text}
        placeholder={holder}
        takes={takes}
        size={large ? "large" : "form"}
        wrong={problem !== undefined}
        aria-describedby={problem && `${id}-problem`}
        onText={onText}
      />
      {problem && (
        <Box role="alert" id={`${id}-problem`} sx={{ color: "var(--stop)", fontSize: 16 }}>
          {problem}
        </Box>
      )}
    </Box>
  );
}
