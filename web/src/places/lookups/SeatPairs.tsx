import Box from "@mui/material/Box";
import type { Catalogue } from "../../api/types";
import { SourceLine } from "../../ui/Working";
import { condensed } from "../../theme/theme";

/** Every seat with the ends that seal in it, and those that only look right. */
export function SeatPairs({ catalogue }: { catalogue: Catalogue }) {
  const name = (id: string) => catalogue.fittings.find((row) => row.id === id)?.name ?? id;
  return (
    <Box
      sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fill, minmax(340px, 1fr))", columnGap: 4, rowGap: 2 }}
    >
      {catalogue.seats.map((seat) => (
        <Box
          key={seat.id}
          component="section"
          aria-label={seat.name}
          sx={{ borderTop: "2px solid var(--ink)", pt: 0.5 }}
        >
          <Box component="h2" sx={{ m: 0, font: `600 20px ${condensed}` }}>
            {seat.name}
          </Box>
          <Box>Seals with: {seat.takes.map(name).join(", ")}.</Box>
          {seat.wrong.map((pair) => (
            <Box key={pair.id} sx={{ mt: 0.5 }}>
              <Box component="span" sx={{ color: "var(--stop)", fontWeight: 600 }}>
                Not {name(pair.id)}.
              </Box>{" "}
              {pair.reason}
            </Box>
          ))}
          <SourceLine source={seat.source} />
        </Box>
      ))}
    </Box>
  );
}
