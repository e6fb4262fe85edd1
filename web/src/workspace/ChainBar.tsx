import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { useState } from "react";
import { useSearchParams } from "react-router";
import type { ChainEdit, Copied, Length, RigidSpan, Span } from "../api/types";
import { restructure } from "../doc/chain";
import { copiedPieces, copyPieces, saidOf } from "../doc/copied";
import { editBends, typed } from "../doc/rows";
import { useSelection } from "../doc/select";
import type { LineEditor } from "../doc/useLine";
import { COMPONENTS } from "../format/words";
import { condensed } from "../theme/theme";
import { useNotice } from "../ui/notice";
import { LetIn } from "./LetIn";
import { HEIGHT } from "./strip/along";
import { Input } from "../ui/Input";

interface Props {
  editor: LineEditor;
}

/** What can be done with the piece that is chosen on the strip. */
export function ChainBar({ editor }: Props) {
  const { document: line } = editor;
  const { place, choosePlace } = useSelection();
  const notice = useNotice();
  const [at, setAt] = useState("");
  const [asked] = useSearchParams();
  const [letting, setLetting] = useState(asked.get("let-in") ?? "");
  if (place?.kind !== "span") return null;
  const k = line.spans.findIndex((one) => one.id === place.id);
  const span = line.spans[k];
  if (!span) return null;
  const next = line.spans[k + 1];
  const ask = (kind: ChainEdit["kind"], more: Partial<ChainEdit> = {}) =>
    void restructure(editor, { kind, span: span.id, ...more }).then((done) => {
      if (done.span === null) notice({ text: done.problem });
      else choosePlace({ kind: "span", id: done.span });
    });
  const copy = (to: number) => {
    copyPieces(line, k, to);
    notice({ small: true, text: "Copied: put it in before or behind any piece, here or in another line." });
  };
  return (
    <Box
      role="toolbar"
      aria-label="The chosen piece"
      sx={{
        display: "flex",
        flexWrap: "wrap",
        alignItems: "center",
        columnGap: 1,
        px: 2,
        borderTop: "1px solid var(--rule)",
        background: "var(--paper)",
        // on an upright tablet the strip stays at the bottom of the window, and this on top of it
        "@media (max-width: 900px)": { position: "sticky", bottom: HEIGHT, zIndex: 3 },
        "& button": { minHeight: 36, "@media (pointer: coarse)": { minHeight: 44 } },
      }}
    >
      <Box sx={{ font: `600 17px ${condensed}`, mr: 1 }}>{nameOf(span)}</Box>
      <Inserting
        text="Put in before"
        onPick={(put) => ask("insert", { side: "A", put })}
        onCopy={(copied) => ask("copy", { side: "A", copied })}
      />
      <Inserting
        text="Put in behind"
        onPick={(put) => ask("insert", { side: "B", put })}
        onCopy={(copied) => ask("copy", { side: "B", copied })}
      />
      <Inserting text="Swap for" onPick={(put) => ask("swap", { put })} />
      <Button size="small" variant="text" disabled={k === 0} onClick={() => ask("move", { side: "A" })}>
        Move to A
      </Button>
      <Button
        size="small"
        variant="text"
        disabled={k === line.spans.length - 1}
        onClick={() => ask("move", { side: "B" })}
      >
        Move to B
      </Button>
      <Button size="small" variant="text" onClick={() => ask("turn")}>
        Turn round
      </Button>
      {span.kind === "rigid" && (
        <>
          {line.spans.length > 1 && straight(span) && (
            <Box component="label" sx={{ display: "flex", alignItems: "center", gap: 0.5, fontSize: 14 }}>
              Straight for
              <Input
                size="row"
                width={84}
                text={straight(span)?.text ?? ""}
                placeholder="length"
                takes="length"
                onText={(text) =>
                  editor.edit((was) =>
                    editBends(was, (read) => ({ ...read, last: typed(text.slice(0, 80), was.unit) }), span.id),
                  )
                }
              />
            </Box>
          )}
          <Button size="small" variant="text" onClick={() => ask("split", { at })}>
            Split at
          </Button>
          <Input
            aria-label="Split at, from its end A"
            size="row"
            width={84}
            text={at}
            placeholder="middle"
            onText={(text) => setAt(text.slice(0, 40))}
          />
          <Button
            size="small"
            variant="text"
            aria-expanded={letting === span.id}
            onClick={() => setLetting(letting === span.id ? "" : span.id)}
          >
            Let in a cooler, filter…
          </Button>
          {next?.kind === "rigid" && (
            <Button size="small" variant="text" onClick={() => ask("join")}>
              Join with the next
            </Button>
          )}
        </>
      )}
      <Button size="small" variant="text" onClick={() => copy(k + 1)}>
        Copy
      </Button>
      {next && (
        <Button size="small" variant="text" onClick={() => copy(line.spans.length)}>
          Copy with all behind
        </Button>
      )}
      <Button size="small" variant="text" disabled={line.spans.length === 1} onClick={() => ask("remove")}>
        Take out
      </Button>
      {letting === span.id && <LetIn span={span.id} editor={editor} onDone={() => setLetting("")} />}
    </Box>
  );
}

/** How long a tube is that has no bends; null of any other. */
const straight = ({ readings }: RigidSpan): Length | null =>
  readings.kind === "bends" && readings.rows.length === 0 ? readings.last : null;

const nameOf = (span: Span): string =>
  span.kind === "component"
    ? capital(span.age === "old" ? `old ${span.what}` : span.what)
    : capital(`${span.state === "stays" ? "old " : ""}${span.kind === "hose" ? "hose" : "tube"}`);

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

function Inserting({
  text,
  onPick,
  onCopy,
}: {
  text: string;
  onPick: (what: string) => void;
  onCopy?: (copied: Copied) => void;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const copied = anchor && onCopy ? copiedPieces() : null;
  const put = (what: string) => {
    setAnchor(null);
    onPick(what);
  };
  return (
    <>
      <Button
        size="small"
        variant="text"
        aria-haspopup="menu"
        aria-expanded={anchor !== null}
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        {text}
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {copied && (
          <MenuItem
            onClick={() => {
              setAnchor(null);
              onCopy?.(copied);
            }}
          >
            as copied: {saidOf(copied)}
          </MenuItem>
        )}
        {["tube", "hose", ...COMPONENTS].map((what) => (
          <MenuItem key={what} onClick={() => put(what)}>
            {what}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
