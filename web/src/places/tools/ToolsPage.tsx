import Box from "@mui/material/Box";
import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { api, sentence, take } from "../../api/client";
import type { Catalogue } from "../../api/types";
import { Bar } from "../../ui/Bar";
import { OwnEntries } from "../../ui/OwnEntries";
import { Pick } from "../../ui/Field";
import { SourceLine } from "../../ui/Working";
import { useCatalogueOr } from "../../doc/useCatalogue";
import { condensed } from "../../theme/theme";
import { sayLength } from "../../format/units";
import { ToolCardView } from "./ToolCardView";

/** The shop's benders and what their test pieces tell of them. */
export default function ToolsPage() {
  const { catalogue, problem } = useCatalogueOr();
  return (
    <>
      <Bar trail={[{ text: "Bench", to: "/" }]} title="Tools" />
      <Box component="main" sx={{ p: 2, maxWidth: 1280, mx: "auto" }}>
        {problem && <Box role="alert">{problem}</Box>}
        {catalogue && <Tools catalogue={catalogue} />}
        {catalogue && <OwnTools catalogue={catalogue} />}
      </Box>
    </>
  );
}

/** What room the tool takes up, and the bench it stands on: the order of bends is tried against these. */
function ToolBody({ catalogue, bender }: { catalogue: Catalogue; bender: string }) {
  const row = catalogue.benders.find((item) => item.id === bender);
  const kind = catalogue.tool_kinds.find((item) => item.id === row?.kind);
  if (!row || !kind || row.radius_mm == null) return null;
  const size = (own: number | null | undefined, times: number) => sayLength(own ?? times * (row.radius_mm ?? 0), "mm");
  const parts = [
    kind.behind > 0 &&
      `body ${size(row.behind_mm, kind.behind)} behind the zero, ${size(row.beside_mm, kind.wide)} wide`,
    kind.lever > 0 && `lever ${size(row.lever_mm, kind.lever)}`,
    kind.mount !== "in the hands" &&
      `tube ${size(row.above_bench_mm, kind.above_bench_mm / row.radius_mm)} above the bench`,
  ].filter(Boolean);
  return (
    <Box component="section" aria-label="Body and bench" sx={{ mb: 3 }}>
      <Box>
        {kind.name}, used {kind.mount}
        {parts.length > 0 && `: ${parts.join(", ")}`}. Grips {sayLength(row.least_before_first_mm, "mm")} before a bend,{" "}
        {sayLength(row.least_between_mm, "mm")} between bends; up to {row.greatest_angle_deg}°.
      </Box>
      <SourceLine source={kind.source} />
    </Box>
  );
}

/** The flaring tools, and the shop's own tools and bench. */
function OwnTools({ catalogue }: { catalogue: Catalogue }) {
  const { bench } = catalogue;
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fit, minmax(300px, 1fr))", columnGap: 5, mt: 4 }}>
      <Box component="section" aria-label="Flaring tools">
        <Box component="h2" sx={{ m: 0, font: `600 20px ${condensed}`, borderBottom: "2px solid var(--ink)", mb: 1 }}>
          Flaring tools
        </Box>
        {catalogue.flarers.map((tool) => (
          <Box key={tool.id} sx={{ py: 0.5, borderBottom: "1px solid var(--rule)" }}>
            {tool.name}, {tool.use === "bench" ? "at the bench" : tool.use}: {tool.forms.join(", ")}; holds{" "}
            {sayLength(tool.grip_mm, "mm")} behind the flare
            <SourceLine source={tool.source} />
          </Box>
        ))}
        <OwnEntries shelf="flarers" catalogue={catalogue} />
      </Box>
      <Box component="section" aria-label="Bench">
        <Box component="h2" sx={{ m: 0, font: `600 20px ${condensed}`, borderBottom: "2px solid var(--ink)", mb: 1 }}>
          Bench
        </Box>
        <Box>
          {bench.name}: top {sayLength(bench.ahead_mm, "mm")} ahead of the zero, {sayLength(bench.behind_mm, "mm")}{" "}
          behind, {sayLength(bench.far_mm, "mm")} away from you, {sayLength(bench.near_mm, "mm")} towards you;{" "}
          {sayLength(bench.floor_mm, "mm")} high, a vise of {sayLength(bench.vise_long_mm, "mm")} by{" "}
          {sayLength(bench.vise_wide_mm, "mm")} standing {sayLength(bench.vise_tall_mm, "mm")} above it
          {bench.wall_mm != null && `, a wall ${sayLength(bench.wall_mm, "mm")} from the zero`}
        </Box>
        <SourceLine source={bench.source} />
        <Box sx={{ color: "var(--second)", mt: 0.5 }}>
          Orders of bends are tried on it; the newest of your own is used.
        </Box>
        <OwnEntries shelf="benches" catalogue={catalogue} />
      </Box>
      <Box component="section" aria-label="Benders of our own">
        <Box component="h2" sx={{ m: 0, font: `600 20px ${condensed}`, borderBottom: "2px solid var(--ink)", mb: 1 }}>
          Benders of our own
        </Box>
        <OwnEntries shelf="benders" catalogue={catalogue} />
      </Box>
    </Box>
  );
}

function Tools({ catalogue }: { catalogue: Catalogue }) {
  const [params, setParams] = useSearchParams();
  const metal = catalogue.benders.filter((row) => row.radius_mm != null && !row.plastic);
  const bender = params.get("bender") ?? metal.find((row) => row.id === "lever_3-16in")?.id ?? metal[0]?.id ?? "";
  const material = params.get("material") ?? "copper-nickel";
  const set = (part: { bender?: string; material?: string }) =>
    setParams({ bender, material, ...part }, { replace: true });
  const tried = useQuery({ queryKey: ["tools"], queryFn: () => take(api.GET("/api/tools")) });
  const pieces = (id: string) => {
    const count = tried.data?.filter((row) => row.bender === id).reduce((sum, row) => sum + row.pieces, 0) ?? 0;
    return count > 0 ? `, ${count} ${count === 1 ? "piece" : "pieces"}` : "";
  };
  const card = useQuery({
    queryKey: ["tool", bender, material],
    queryFn: () => take(api.GET("/api/tools/{bender}/{material}", { params: { path: { bender, material } } })),
    retry: false,
  });
  return (
    <>
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: "repeat(auto-fit, minmax(320px, 1fr))",
          columnGap: 4,
          mb: 2,
          maxWidth: 900,
        }}
      >
        <Pick
          label="Bender"
          value={bender}
          options={metal.map((row) => ({ id: row.id, name: `${row.name}, ${row.size}${pieces(row.id)}` }))}
          onChange={(id) => set({ bender: id })}
        />
        <Pick
          label="In"
          value={material}
          options={catalogue.materials.filter((row) => row.family !== "plastic").map(({ id, name }) => ({ id, name }))}
          onChange={(id) => set({ material: id })}
        />
      </Box>
      {card.isError && (
        <Box role="alert" sx={{ color: "var(--stop)" }}>
          {sentence(card.error)}
        </Box>
      )}
      <ToolBody catalogue={catalogue} bender={bender} />
      {card.data && <ToolCardView key={`${bender} ${material}`} card={card.data} />}
    </>
  );
}
