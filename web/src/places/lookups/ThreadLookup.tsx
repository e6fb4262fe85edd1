import Box from "@mui/material/Box";
import { useState } from "react";
import { Link } from "react-router";
import { api, take } from "../../api/client";
import type { ThreadFound, ThreadOrder } from "../../api/types";
import { Field } from "../../ui/Field";
import { SourceLine } from "../../ui/Working";
import { condensed } from "../../theme/theme";
import { Segments } from "../../ui/Segments";
import { Ask } from "./Ask";
import { useAsked } from "../../doc/useAsked";

const START: ThreadOrder = {
  gender: "male",
  diameter: "",
  diameter_error: "0.1 mm",
  pitch: "",
  pitch_error_percent: 2,
  taper: "not sure",
  unit: "mm",
};

/** From a caliper and a pitch gauge to the thread, with what it is taken for. */
export function ThreadLookup() {
  const [order, setOrder] = useState<ThreadOrder>(START);
  const set = (part: Partial<ThreadOrder>) => setOrder((was) => ({ ...was, ...part }));
  const { answer, problem } = useAsked(
    ["thread", order],
    (signal) => take(api.POST("/api/lookups/thread", { body: order, signal })),
    { wanted: order.diameter.trim() !== "" },
  );
  return (
    <Ask
      hint="Measure over the crests of a male thread, or the bore of a female one, then the pitch."
      problem={problem}
      answer={
        answer ? (
          <Found answer={answer} gender={order.gender} />
        ) : (
          <Box sx={{ color: "var(--second)" }}>The threads it may be appear here, likeliest first.</Box>
        )
      }
    >
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, mb: 1 }}>
        <Segments
          label="It is"
          value={order.gender}
          options={[
            { value: "male", text: "male" },
            { value: "female", text: "female" },
          ]}
          onChange={(gender) => set({ gender })}
        />
        <Segments
          label="Bare figures in"
          value={order.unit}
          options={[
            { value: "in", text: "inch" },
            { value: "mm", text: "mm" },
          ]}
          onChange={(unit) => set({ unit })}
        />
      </Box>
      <Field
        label={order.gender === "male" ? "Over crests" : "Bore"}
        text={order.diameter}
        placeholder="9.9 mm or 0.37 in"
        takes="length"
        onText={(diameter) => set({ diameter: diameter.slice(0, 40) })}
      />
      <Field
        label="… may be off by"
        text={order.diameter_error}
        onText={(text) => set({ diameter_error: text.slice(0, 40) })}
      />
      <Field
        label="Pitch"
        text={order.pitch}
        placeholder="24 per inch or 1 mm"
        onText={(pitch) => set({ pitch: pitch.slice(0, 40) })}
      />
      <Box sx={{ mt: 1 }}>
        <Segments
          label="Taper"
          value={order.taper}
          options={[
            { value: "not sure", text: "not sure" },
            { value: "parallel", text: "parallel" },
            { value: "tapered", text: "tapered" },
          ]}
          onChange={(taper) => set({ taper })}
        />
      </Box>
    </Ask>
  );
}

function Found({ answer, gender }: { answer: ThreadFound; gender: "male" | "female" }) {
  const [first] = answer.found;
  return (
    <>
      {first && !first.candidate.within && (
        <Box sx={{ color: "var(--caution)", mb: 1 }}>
          Nothing in the catalogue agrees with both figures within their errors; these come nearest. Measure again, at
          another place.
        </Box>
      )}
      {answer.found.map(({ candidate, pitch, used_for, source, alike }, k) => (
        <Box
          key={candidate.designation}
          data-candidate={candidate.designation}
          sx={{ py: 1, borderTop: k === 0 ? "2px solid var(--ink)" : "1px solid var(--rule)" }}
        >
          <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 2, alignItems: "baseline" }}>
            <Box sx={{ font: `600 ${k === 0 ? 26 : 20}px ${condensed}` }}>{candidate.designation}</Box>
            <Box sx={{ color: "var(--second)" }}>
              {pitch}; {gender === "male" ? "crests" : "bore"} {candidate.diameter_mm.toFixed(2)} mm
            </Box>
            <Box sx={{ ml: "auto", font: `600 18px ${condensed}` }}>
              {candidate.share > 0.995
                ? "over 99 %"
                : `${(candidate.share * 100).toFixed(candidate.share < 0.1 ? 1 : 0)} %`}
            </Box>
          </Box>
          <Box>{used_for}</Box>
          <SourceLine source={source} />
          {k === 0 && alike.length > 0 && (
            <Box sx={{ mt: 1 }}>
              <Box sx={{ font: `600 17px ${condensed}` }}>Taken for</Box>
              {alike.map((like) => (
                <Box
                  key={like.designation}
                  data-alike={like.designation}
                  sx={{ py: 0.5, borderTop: "1px solid var(--rule)", "& a": { color: "var(--ink)", fontWeight: 600 } }}
                >
                  <Link
                    to={`/lookups/pair?male=${encodeURIComponent(candidate.designation)}&female=${encodeURIComponent(like.designation)}`}
                  >
                    {like.designation}
                  </Link>
                  : {like.why}.<Box sx={{ color: "var(--second)" }}>{like.test}</Box>
                </Box>
              ))}
            </Box>
          )}
        </Box>
      ))}
    </>
  );
}
