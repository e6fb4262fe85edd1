import Box from "@mui/material/Box";
import { NavLink, useParams } from "react-router";
import { Bar } from "../../ui/Bar";
import { NotHere } from "../../ui/NotHere";
import { useCatalogue } from "../../doc/useCatalogue";
import { condensed } from "../../theme/theme";
import { GapLookup } from "./GapLookup";
import { MatrixView } from "./MatrixView";
import { PairLookup } from "./PairLookup";
import { SeatPairs } from "./SeatPairs";
import { StrengthLookup } from "./StrengthLookup";
import { StrippedLookup } from "./StrippedLookup";
import { ThreadLookup } from "./ThreadLookup";
import { WrenchLookup } from "./WrenchLookup";

const PLACES = [
  { id: "thread", name: "Which thread?", view: () => <ThreadLookup /> },
  { id: "pair", name: "Thread in thread", view: () => <PairLookup /> },
  { id: "uses", name: "What may be used", view: () => <MatrixView /> },
  { id: "seats", name: "Ends and seats", view: () => <WithCatalogue of={SeatPairs} /> },
  { id: "wrench", name: "Wrench on hex", view: () => <WrenchLookup /> },
  { id: "strength", name: "What a tube stands", view: () => <WithCatalogue of={StrengthLookup} /> },
  { id: "gap", name: "Mend a gap", view: () => <GapLookup /> },
  { id: "stripped", name: "Stripped port", view: () => <StrippedLookup /> },
] as const;

function WithCatalogue({ of: View }: { of: typeof SeatPairs }) {
  const catalogue = useCatalogue();
  return catalogue ? <View catalogue={catalogue} /> : null;
}

/** Questions that come up in the middle of other work, each answered on its own. */
export default function LookupsPage() {
  const { place = "thread" } = useParams();
  const here = PLACES.find((item) => item.id === place);
  if (!here) return <NotHere text={`There is no look-up “${place}”.`} />;
  return (
    <>
      <Bar trail={[{ text: "Bench", to: "/" }]} title="Look-ups" />
      <Box
        component="nav"
        aria-label="Look-ups"
        sx={{
          display: "flex",
          flexWrap: "wrap",
          borderBottom: "2px solid var(--ink)",
          "& a": {
            px: 1.5,
            minHeight: 44,
            display: "flex",
            alignItems: "center",
            font: `600 18px ${condensed}`,
            color: "var(--ink)",
            textDecoration: "none",
            borderRight: "1px solid var(--rule)",
          },
          "& a[aria-current]": { background: "var(--ink)", color: "var(--paper)" },
        }}
      >
        {PLACES.map((item) => (
          <NavLink key={item.id} to={`/lookups/${item.id}`} aria-current={item.id === place ? "page" : undefined}>
            {item.name}
          </NavLink>
        ))}
      </Box>
      <Box component="main" sx={{ p: 2, maxWidth: 1280, mx: "auto" }}>
        {here.view()}
      </Box>
    </>
  );
}
