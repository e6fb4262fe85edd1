import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Move, Unit } from "../../api/types";
import { useSelection } from "../../doc/select";
import type { LineEditor } from "../../doc/useLine";
import type { PlanView } from "../../doc/usePlan";
import { CutSum } from "../../workspace/CutSum";
import { isCopied, spanOf, withSpan } from "../../doc/rows";
import { tableSx } from "../../ui/tableSx";
import { condensed } from "../../theme/theme";
import { Segments } from "../../ui/Segments";
import { sayAngle, sayClock, sayFigure } from "../../format/units";
import { Clock } from "../../ui/Clock";
import { AtTool } from "./AtTool";
import { EndsAndStock } from "./EndsAndStock";
import { GettingIn } from "./GettingIn";
import { HowExact } from "./HowExact";
import { TurnArrow } from "../../ui/TurnArrow";

interface Props {
  editor: LineEditor;
  view: PlanView;
}

/** Marks, turns and dials in the order they are made, from the end that is held. */
export default function PlanPanel({ editor, view }: Props) {
  const { document: line, edit } = editor;
  const span = spanOf(line, editor.tube);
  const { bend: chosen, choose, showWorking } = useSelection();
  const { part, old } = view;
  const changes = part?.moves.some((move) => move.held !== part.moves[0]?.held) ?? false;
  const ready = part !== null && !old && editor.save === "saved";
  const first = part?.moves[0];
  const rim = first && part[first.held === "A" ? "end_a" : "end_b"].flared ? "flared rim" : "finished end";
  const origin = first?.measured_from === "flared_rim" ? rim : "cut end";
  const figure = {
    all: "unset",
    cursor: "pointer",
    font: `600 18px ${condensed}`,
    borderBottom: "1px dotted var(--second)",
    whiteSpace: "nowrap",
    "&:focus-visible": { outline: "3px solid var(--ink)" },
  } as const;

  return (
    <Box sx={{ p: 2, opacity: old ? 0.5 : 1 }}>
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: "84px 1fr",
          rowGap: 1,
          alignItems: "center",
          justifyItems: "start",
          mb: 1.5,
          color: "var(--second)",
        }}
      >
        <span>End held</span>
        <Segments
          label="End held"
          value={span.held}
          options={[
            { value: "A", text: "A" },
            { value: "B", text: "B" },
          ]}
          onChange={(held) => edit((was) => withSpan(was, { held, order: [] }, editor.tube))}
        />
        <span>Mark the</span>
        <Segments
          label="Mark style"
          value={span.marks}
          options={[
            { value: "start", text: "start" },
            { value: "middle", text: "middle" },
            { value: "corner", text: "corner less take-up" },
          ]}
          onChange={(marks) => edit((was) => withSpan(was, { marks }, editor.tube))}
        />
      </Box>
      {!part && <Box>The plan follows as soon as every reading can be read.</Box>}
      {part && (
        <>
          {part.moves.length > 0 && (
            <Box sx={{ color: "var(--second)", mb: 0.5 }}>
              {STYLE_WORDS[span.marks]} Measured from the {origin} at end {part.moves[0]?.held ?? part.held_end}
              {changes ? ", and from the other end where the tube is changed over" : ""}; turns as you see them with{" "}
              {changes ? "the held end" : `end ${part.moves[0]?.held ?? part.held_end}`} towards you.
            </Box>
          )}
          {ready && (
            <Box
              component="a"
              href={`/api/lines/${editor.opened.id}/tape.pdf?span=${editor.tube}`}
              target="_blank"
              rel="noopener"
              sx={{ color: "var(--ink)", alignSelf: "start" }}
            >
              Paper tape at full size
            </Box>
          )}
          {part.moves.length > 0 && (
            <>
              <Box component="table" sx={tableSx} aria-label="Bends in the order they are made">
                <Box component="colgroup">
                  <col style={{ width: 34 }} />
                  <col style={{ width: 66 }} />
                  <col />
                  <col style={{ width: 76 }} />
                  <col style={{ width: 46 }} />
                </Box>
                <thead>
                  <tr>
                    {["bend", "mark", "turn the tube", "lies at", "dial"].map((name) => (
                      <th scope="col" key={name}>
                        {name}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {part.moves.map((move) => (
                    <tr key={move.bend} className={chosen === move.bend ? "hand" : ""} data-move={move.bend}>
                      <th scope="row">
                        <Box
                          component="button"
                          sx={{ ...figure, borderBottom: 0, px: 0.5 }}
                          aria-pressed={chosen === move.bend}
                          onClick={() => choose(move.bend)}
                        >
                          {move.bend}
                        </Box>
                      </th>
                      <Box component="td" sx={{ "&&": { py: 0.75 } }}>
                        <Box
                          component="button"
                          sx={figure}
                          title="Show the working"
                          onClick={() => showWorking(`mark-${move.bend}`)}
                        >
                          {move.mark_mm == null ? "none" : sayFigure(move.mark_mm, line.unit)}
                        </Box>
                      </Box>
                      <Box component="td" sx={{ "&&": { py: 0.5 } }}>
                        <Turn move={move} unit={line.unit} />
                      </Box>
                      <Box
                        component="td"
                        sx={{ "&&": { py: 0.75 }, fontFamily: condensed, fontSize: 16, whiteSpace: "nowrap" }}
                      >
                        <svg
                          width="22"
                          height="22"
                          viewBox="-11 -11 22 22"
                          aria-hidden
                          style={{ verticalAlign: "-6px" }}
                        >
                          <Clock x={0} y={0} r={9.5} degrees={move.clock_deg} />
                        </svg>{" "}
                        {sayClock(move.clock_deg)}
                      </Box>
                      <Box component="td" sx={{ "&&": { py: 0.75 } }}>
                        <Box
                          component="button"
                          sx={figure}
                          title="Show the working"
                          onClick={() => showWorking(`dial-${move.bend}`)}
                        >
                          {sayAngle(move.dial_deg)}
                        </Box>
                        {move.finish_deg != null && (
                          <Box sx={{ fontSize: 13, color: "var(--second)" }}>then {sayAngle(move.finish_deg)}</Box>
                        )}
                      </Box>
                    </tr>
                  ))}
                </tbody>
              </Box>
              <Box sx={{ mt: 1, color: "var(--second)", fontSize: 14 }}>
                The clock shows where the bend lies, seen from end A; the arrow shows which way the tube is turned. The
                two run opposite ways. The dial includes the least spring-back to expect; a test piece of your own will
                say more.
              </Box>
            </>
          )}
          {chosen !== null && part.bends[chosen - 1] && (
            <Box sx={{ mt: 1 }}>
              <Typography component="span" sx={{ color: "var(--second)" }}>
                Tube in bend {chosen}{" "}
              </Typography>
              <Box component="button" sx={figure} onClick={() => showWorking(`arc-${chosen}`)}>
                {sayFigure(part.bends[chosen - 1]?.arc_mm ?? 0, line.unit)}
              </Box>
            </Box>
          )}
          <AtTool editor={editor} view={view} />
          <EndsAndStock editor={editor} view={view} />
          <GettingIn editor={editor} />
          <HowExact view={view} editor={editor} unit={line.unit} />
          <CutSum unit={editor.document.unit} copied={isCopied(editor.document, editor.tube)} view={view} />
        </>
      )}
    </Box>
  );
}

const STYLE_WORDS = {
  start: "The mark goes to the tool’s zero.",
  middle: "The mark lines up half-way along the degree scale.",
  corner: "Corner less take-up: the mark goes to the tool’s zero.",
} as const;

function Turn({ move, unit }: { move: Move; unit: Unit }) {
  const words = move.turn_words.split(", end")[0];
  return (
    <Box
      sx={{
        display: "flex",
        alignItems: "center",
        gap: 0.75,
        fontFamily: condensed,
        fontSize: 16,
        lineHeight: 1.1,
        pr: 0.5,
      }}
      title={move.turn_words}
    >
      <TurnArrow degrees={move.turn_deg} />
      <span>
        {words}
        {move.feed_mm != null && (
          <Box component="span" sx={{ display: "block", fontSize: 14, color: "var(--second)" }}>
            {move.feed_mm < 0 ? "back" : "on"} by {sayFigure(Math.abs(move.feed_mm), unit)}
          </Box>
        )}
      </span>
    </Box>
  );
}
