import Box from "@mui/material/Box";
import { useEffect, useRef, useState } from "react";
import { api, take } from "../../api/client";
import { useAsked } from "../../doc/useAsked";
import type { Line, ViewName } from "../../api/types";
import { useSelection } from "../../doc/select";

/** The core's line drawing, where there is no WebGL; its bends and spans can be chosen like the stage's. */
export function Drawing({
  document: line,
  tube,
  old,
  looking,
}: {
  document: Line;
  tube: string;
  old: boolean;
  looking: ViewName;
}) {
  const { bend, choose, place, choosePlace } = useSelection();
  const box = useRef<HTMLDivElement>(null);

  const [good, setGood] = useState(line);
  if (!old && good !== line) setGood(line);
  // the last drawing stays; what is wrong is said beside the readings
  const { answer: svg = "" } = useAsked(
    ["drawing", good, looking, tube],
    (signal) =>
      take(api.POST("/api/drawing", { body: { document: good, span: tube, view: looking }, parseAs: "text", signal })),
    { stays: true },
  );

  // read as a picture, never as a page: what stands in it cannot become a part of ours
  useEffect(() => {
    const drawn = new DOMParser().parseFromString(svg, "image/svg+xml").documentElement;
    if (drawn instanceof SVGSVGElement) box.current?.replaceChildren(document.importNode(drawn, true));
  }, [svg]);

  useEffect(() => {
    box.current?.querySelectorAll("[data-bend]").forEach((stroke) => {
      stroke.setAttribute("opacity", bend === null || stroke.getAttribute("data-bend") === String(bend) ? "1" : "0.45");
    });
    box.current?.querySelectorAll("[data-span]").forEach((stroke) => {
      const other = place?.kind === "span" && stroke.getAttribute("data-span") !== place.id;
      stroke.setAttribute("opacity", other ? "0.45" : "1");
    });
  }, [bend, place, svg]);

  return (
    <Box
      ref={box}
      sx={{
        height: "100%",
        "& svg": { width: "100%", height: "100%", display: "block" },
        "& [data-bend], & [data-span]": { cursor: "pointer" },
      }}
      onClick={(event) => {
        const hit = (event.target as Element).closest("[data-bend]")?.getAttribute("data-bend");
        if (hit) choose(Number(hit));
        const span = (event.target as Element).closest("[data-span]")?.getAttribute("data-span");
        if (span) choosePlace({ kind: "span", id: span });
      }}
    />
  );
}
