import Box from "@mui/material/Box";
import { useQuery } from "@tanstack/react-query";
import { Link, useSearchParams } from "react-router";
import { api, sentence, take } from "../api/client";
import type { Catalogue, ToolCard } from "../api/types";
import { Bar } from "../app/Bar";
import { Pick } from "../choose/Field";
import { useCatalogue } from "../line/useCatalogue";
import { ToolCardView } from "./ToolCardView";

/** The shop's benders and what their test pieces tell of them. */
export function ToolsPage() {
  const catalogue = useCatalogue();
  return (
    <>
      <Bar trail={[{ text: "Bench", to: "/" }]} title="Tools" />
      <Box component="main" sx={{ p: 2, maxWidth: 1280, mx: "auto" }}>
        {catalogue && <Tools catalogue={catalogue} />}
      </Box>
    </>
  );
}

function Tools({ catalogue }: { catalogue: Catalogue }) {
  const [params, setParams] = useSearchParams();
  const metal = catalogue.benders.filter((row) => row.radius_mm != null && !row.plastic);
  const bender = params.get("bender") ?? metal.find((row) => row.id === "lever_3-16in")?.id ?? metal[0]?.id ?? "";
  const material = params.get("material") ?? "copper-nickel";
  const set = (part: { bender?: string; material?: string }) => setParams({ bender, material, ...part }, { replace: true });
  const tried = useQuery({ queryKey: ["tools"], queryFn: () => take(api.GET("/api/tools")) });
  const pieces = (id: string) => {
    const count = tried.data?.filter((row) => row.bender === id).reduce((sum, row) => sum + row.pieces, 0) ?? 0;
    return count > 0 ? `, ${count} ${count === 1 ? "piece" : "pieces"}` : "";
  };
  const card = useQuery({ queryKey: ["tool", bender, material], queryFn: () => take(api.GET("/api/tools/{bender}/{material}", { params: { path: { bender, material } } })) as Promise<unknown> as Promise<ToolCard>, retry: false });
  return (
    <>
      <Box sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fit, minmax(320px, 1fr))", columnGap: 4, mb: 2, maxWidth: 900 }}>
        <Pick label="Bender" value={bender} options={metal.map((row) => ({ id: row.id, name: `${row.name}, ${row.size}${pieces(row.id)}` }))} onChange={(id) => set({ bender: id })} />
        <Pick label="In" value={material} options={catalogue.materials.filter((row) => row.family !== "plastic").map(({ id, name }) => ({ id, name }))} onChange={(id) => set({ material: id })} />
        <Box sx={{ "& a": { color: "var(--second)" } }}>
          <Link to="/catalogue/benders">Add a bender of our own</Link>
        </Box>
      </Box>
      {card.isError && (
        <Box role="alert" sx={{ color: "var(--stop)" }}>
          {sentence(card.error)}
        </Box>
      )}
      {card.data && <ToolCardView key={`${bender} ${material}`} card={card.data} />}
    </>
  );
}
