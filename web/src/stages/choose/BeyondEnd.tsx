import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { Between, Catalogue, Span } from "../../api/types";
import { restructure, setPiece } from "../../doc/chain";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { condensed } from "../../theme/theme";
import { useNotice } from "../../ui/notice";
import { ComponentFields, HoseFields } from "./PieceFields";

interface Props {
  end: "A" | "B";
  editor: LineEditor;
  view: PlanView;
  catalogue: Catalogue;
}

const isBetween = (span: Span): span is Between => span.kind !== "rigid";

/** What lies between one end of the tube and the next tube or the port, from the tube outwards. */
export function BeyondEnd({ end, editor, view, catalogue }: Props) {
  const { document: line, edit } = editor;
  const notice = useNotice();
  const at = line.spans.findIndex((span) => span.id === editor.tube);
  const outwards = end === "A" ? line.spans.slice(0, Math.max(0, at)).reverse() : line.spans.slice(at + 1);
  const next = outwards.findIndex((span) => !isBetween(span));
  const pieces = (next < 0 ? outwards : outwards.slice(0, next)).filter(isBetween);
  const change = (id: string, part: Partial<Between>) => edit((was) => setPiece(was, id, part));
  const ask = (order: Parameters<typeof restructure>[1]) =>
    void restructure(editor, order).then(({ problem }) => problem && notice({ text: problem }));
  const add = (put: string) => ask({ kind: "insert", span: pieces.at(-1)?.id ?? editor.tube, side: end, put });
  return (
    <Box aria-label={`Beyond end ${end}`} component="section">
      {pieces.map((piece, k) => (
        <Box key={piece.id} data-piece={`${end}${k + 1}`} sx={{ borderLeft: "3px solid var(--rule)", pl: 1.25, my: 1 }}>
          <Box sx={{ display: "flex", justifyContent: "space-between", alignItems: "center" }}>
            <Box sx={{ font: `600 17px ${condensed}` }}>
              {piece.kind === "hose" ? "Hose" : piece.what} {pieces.length > 1 && `(${k + 1} from the tube)`}
            </Box>
            <Button
              size="small"
              variant="text"
              aria-label={`Take out piece ${k + 1} beyond ${end}`}
              onClick={() => ask({ kind: "remove", span: piece.id })}
              sx={{ minWidth: 36 }}
            >
              ✕
            </Button>
          </Box>
          {piece.kind === "hose" ? (
            <HoseFields
              piece={piece}
              unit={line.unit}
              view={view}
              catalogue={catalogue}
              onChange={(part) => change(piece.id, part)}
            />
          ) : (
            <ComponentFields
              piece={piece}
              unit={line.unit}
              view={view}
              catalogue={catalogue}
              onChange={(part) => change(piece.id, part)}
            />
          )}
        </Box>
      ))}
      {pieces.length < 6 && (
        <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 2 }}>
          <Button variant="text" size="small" onClick={() => add("hose")}>
            + hose beyond {end}
          </Button>
          <Button variant="text" size="small" onClick={() => add("filter")}>
            + part beyond {end}
          </Button>
        </Box>
      )}
    </Box>
  );
}
