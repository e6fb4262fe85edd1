import Box from "@mui/material/Box";

interface Props {
  list: readonly { id: string; text: string }[];
  done: ReadonlySet<string>;
  columns?: boolean;
  onTick: (id: string, on: boolean) => void;
}

/** Things to tick off, each a target for a thumb. */
export function Ticks({ list, done, columns = false, onTick }: Props) {
  return (
    <Box sx={columns ? { display: "grid", gridTemplateColumns: "1fr 1fr", columnGap: 2 } : {}}>
      {list.map((item) => (
        <Box
          component="label"
          key={item.id}
          sx={{
            display: "flex",
            alignItems: "center",
            gap: 1,
            minHeight: 34,
            borderBottom: columns ? 0 : "1px solid var(--rule)",
            py: columns ? 0 : 0.5,
            cursor: "pointer",
            "@media (pointer: coarse)": { minHeight: 44 },
          }}
        >
          <input
            type="checkbox"
            checked={done.has(item.id)}
            onChange={(event) => onTick(item.id, event.target.checked)}
            style={{ width: 20, height: 20, flex: "none", accentColor: "var(--ink)" }}
          />
          <Box component="span" sx={{ color: done.has(item.id) && !columns ? "var(--second)" : "var(--ink)" }}>
            {item.text}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
