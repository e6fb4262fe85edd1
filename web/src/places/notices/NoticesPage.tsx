import Box from "@mui/material/Box";
import { useQuery } from "@tanstack/react-query";
import licence from "../../../../LICENSE?raw";
import notices from "../../../../NOTICES.md?raw";
import { Bar } from "../../ui/Bar";
import { condensed } from "../../theme/theme";
import { partsOf } from "./parts";

interface Built {
  name: string;
  text: string;
}

async function builtIn(): Promise<Built[]> {
  const answer = await fetch("/notices.json");
  return answer.ok ? ((await answer.json()) as Built[]) : [];
}

/** The terms that Bendrel is under, and what others made that it stands on, each with its own. */
export default function NoticesPage() {
  const built = useQuery({ queryKey: ["notices"], queryFn: builtIn, staleTime: Infinity });
  const texts = new Map(built.data?.map((row) => [row.name, row.text]));
  return (
    <>
      <Bar trail={[{ text: "Bench", to: "/" }]} title="Licence and notices" />
      <Box component="main" sx={{ p: 2, maxWidth: 1000, mx: "auto", "& h2": { font: `600 22px ${condensed}` } }}>
        {licence.split(/\n\n+/).map((paragraph) => (
          <p key={paragraph}>{paragraph}</p>
        ))}
        {partsOf(notices).map((part) => (
          <section key={part.title} aria-label={part.title}>
            <h2>{part.title}</h2>
            {part.rows.map(([name = "", version, terms]) => (
              <Box key={name} sx={{ py: 0.5, borderBottom: "1px solid var(--rule)", overflowWrap: "anywhere" }}>
                <strong>{name}</strong> {version} · {terms}
                {texts.get(name) && (
                  <details>
                    <summary>Its terms</summary>
                    <Box component="pre" sx={{ whiteSpace: "pre-wrap", fontSize: 13 }}>
                      {texts.get(name)}
                    </Box>
                  </details>
                )}
              </Box>
            ))}
          </section>
        ))}
      </Box>
    </>
  );
}
