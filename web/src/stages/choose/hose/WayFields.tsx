import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { Beside, Catalogue, EndMove, HoseSpan, HoseWay, Unit } from "../../../api/types";
import { blankBeside, blankMove, blankWay, withItem } from "../../../doc/hoseWay";
import { typed } from "../../../doc/rows";
import { Field, Pick } from "../../../ui/Field";
import { Section } from "../../../ui/Section";
import { PointRow } from "./PointRow";

interface Props {
  piece: HoseSpan;
  unit: Unit;
  catalogue: Catalogue;
  problemAt: (path: string) => string | undefined;
  onChange: (part: Partial<HoseSpan>) => void;
}

const HOW = [
  { id: "hinge", name: "swings about an axis" },
  { id: "slide", name: "slides along a way" },
];
const FORMS = [
  { id: "bar", name: "a pipe, bar or shaft" },
  { id: "ball", name: "something round" },
  { id: "box", name: "a box" },
  { id: "wall", name: "a flat wall" },
];
const SWIVELS = [
  { id: "", name: "none, both ends tight" },
  { id: "A", name: "at end A" },
  { id: "B", name: "at end B" },
];
const WAY_HINT = "ahead, left, down, -z …";

/** Where the hose begins and ends, how its ends move, and what stands beside it. */
export function WayFields({ piece, unit, catalogue, problemAt, onChange }: Props) {
  const way = piece.way ?? blankWay(unit);
  const set = (change: Partial<HoseWay>) => onChange({ way: { ...way, ...change } });
  const root = `/spans/${piece.id}/way`;
  return (
    <>
      <Box sx={{ fontSize: 14, color: "var(--second)", mb: 0.5 }}>
        Measured from one point on the machine: x ahead, y to the left, z up.
      </Box>
      {(["a", "b"] as const).map((name) => {
        const label = name === "a" ? "End A" : "End B";
        const at = way[name];
        return (
          <Box key={name}>
            <PointRow
              label={`${label} is at`}
              at={at}
              unit={unit}
              problem={(axis) =>
                problemAt(`${root}/${name}/${axis}`) ?? (axis === "x" ? problemAt(`${root}/${name}`) : undefined)
              }
              onChange={(change) => set({ [name]: { ...at, ...change } })}
            />
            <Field
              label={name === "a" ? "A, it leaves" : "B, it arrives"}
              text={at.way}
              placeholder={WAY_HINT}
              problem={problemAt(`${root}/${name}/way`)}
              onText={(text) => set({ [name]: { ...at, way: text.slice(0, 60) } })}
            />
            {piece.joined !== "clamps" && (
              <Field
                label="Port looks"
                text={at.seat}
                placeholder="out of the port, for an angled end"
                problem={problemAt(`${root}/${name}/seat`)}
                onText={(text) => set({ [name]: { ...at, seat: text.slice(0, 60) } })}
              />
            )}
          </Box>
        );
      })}
      <Field
        label="Stiff behind"
        text={way.straight.text}
        placeholder="1½ times its outside, usual"
        problem={problemAt(`${root}/straight`)}
        takes="length"
        onText={(text) => set({ straight: typed(text, unit) })}
      />
      <Section
        title="An end moves"
        hint="Axle, steering or engine: from the position in which the hose is fitted. What sits nearest to the hose first."
        open={way.moves.length > 0}
      >
        {way.moves.map((move) => (
          <Moves
            key={move.id}
            move={move}
            unit={unit}
            problem={(name) => problemAt(`${root}/moves/${move.id}/${name}`)}
            onChange={(change) => set({ moves: withItem(way.moves, move.id, change) })}
            onTake={() => set({ moves: way.moves.filter((one) => one.id !== move.id) })}
          />
        ))}
        {problemAt(`${root}/moves`) && (
          <Box role="alert" sx={{ color: "var(--stop)", fontSize: 14 }}>
            {problemAt(`${root}/moves`)}
          </Box>
        )}
        {way.moves.length > 0 && (
          <Pick
            label="Swivel"
            value={way.swivel}
            options={SWIVELS}
            onChange={(swivel) => set({ swivel: swivel as HoseWay["swivel"] })}
          />
        )}
        {way.moves.length < 3 && (
          <Button size="small" onClick={() => set({ moves: [...way.moves, blankMove(unit)] })}>
            Add a move
          </Button>
        )}
      </Section>
      <Section
        title="What stands beside it"
        hint="Exhaust, shaft, edge or frame: how near the hose comes over its whole travel."
        open={way.beside.length > 0}
      >
        {way.beside.map((item) => (
          <Besides
            key={item.id}
            item={item}
            unit={unit}
            catalogue={catalogue}
            problem={(name) => problemAt(`${root}/beside/${item.id}/${name}`)}
            onChange={(change) => set({ beside: withItem(way.beside, item.id, change) })}
            onTake={() => set({ beside: way.beside.filter((one) => one.id !== item.id) })}
          />
        ))}
        {way.beside.length < 20 && (
          <Button size="small" onClick={() => set({ beside: [...way.beside, blankBeside(unit)] })}>
            Add something beside it
          </Button>
        )}
      </Section>
    </>
  );
}

const framed = { borderLeft: "3px solid var(--rule)", pl: 1, mb: 1 } as const;

interface MoveProps {
  move: EndMove;
  unit: Unit;
  problem: (name: string) => string | undefined;
  onChange: (change: Partial<EndMove>) => void;
  onTake: () => void;
}

function Moves({ move, unit, problem, onChange, onTake }: MoveProps) {
  const hinge = move.how === "hinge";
  return (
    <Box sx={framed} role="group" aria-label={move.what || "Move"}>
      <Field
        label="What moves"
        text={move.what}
        placeholder="rear axle, steering"
        onText={(what) => onChange({ what: what.slice(0, 80) })}
      />
      <Pick
        label="It takes"
        value={move.end}
        options={[
          { id: "A", name: "end A along" },
          { id: "B", name: "end B along" },
        ]}
        onChange={(end) => onChange({ end: end as EndMove["end"] })}
      />
      <Pick label="How" value={move.how} options={HOW} onChange={(how) => onChange({ how: how as EndMove["how"] })} />
      {hinge && (
        <PointRow label="Axis through" at={move} unit={unit} problem={(axis) => problem(axis)} onChange={onChange} />
      )}
      <Field
        label={hinge ? "Axis looks" : "Along"}
        text={move.axis}
        placeholder={WAY_HINT}
        problem={problem("axis")}
        onText={(axis) => onChange({ axis: axis.slice(0, 60) })}
      />
      <Field
        label="From"
        text={move.least}
        placeholder={hinge ? "-12°" : "-80 mm"}
        problem={problem("least")}
        onText={(least) => onChange({ least: least.slice(0, 80) })}
      />
      <Field
        label="To"
        text={move.most}
        placeholder={hinge ? "15°" : "70 mm"}
        problem={problem("most")}
        onText={(most) => onChange({ most: most.slice(0, 80) })}
      />
      <Button size="small" variant="text" onClick={onTake}>
        Take this move out
      </Button>
    </Box>
  );
}

interface BesideProps {
  item: Beside;
  unit: Unit;
  catalogue: Catalogue;
  problem: (name: string) => string | undefined;
  onChange: (change: Partial<Beside>) => void;
  onTake: () => void;
}

function Besides({ item, unit, catalogue, problem, onChange, onTake }: BesideProps) {
  const second = item.form === "bar" || item.form === "box";
  return (
    <Box sx={framed} role="group" aria-label={item.what || "Beside the hose"}>
      <Field
        label="What"
        text={item.what}
        placeholder="tail pipe, propeller shaft"
        onText={(what) => onChange({ what: what.slice(0, 80) })}
      />
      <Pick
        label="It is"
        value={item.kind}
        options={catalogue.clearances.map(({ id, name }) => ({ id, name }))}
        onChange={(kind) => onChange({ kind })}
      />
      <Pick
        label="Its form"
        value={item.form}
        options={FORMS}
        onChange={(form) => onChange({ form: form as Beside["form"] })}
      />
      <PointRow
        label={
          item.form === "ball"
            ? "Middle at"
            : item.form === "box"
              ? "Corner at"
              : item.form === "wall"
                ? "Goes through"
                : "From"
        }
        at={item}
        unit={unit}
        problem={(axis) => problem(axis)}
        onChange={onChange}
      />
      {second && (
        <PointRow
          label={item.form === "box" ? "Opposite" : "To"}
          at={{ x: item.to_x, y: item.to_y, z: item.to_z }}
          unit={unit}
          problem={(axis) => problem(`to_${axis}`)}
          onChange={({ x, y, z }) => onChange({ ...(x && { to_x: x }), ...(y && { to_y: y }), ...(z && { to_z: z }) })}
        />
      )}
      {(item.form === "bar" || item.form === "ball") && (
        <Field
          label="Across"
          text={item.across.text}
          placeholder="its diameter"
          problem={problem("across")}
          takes="length"
          onText={(text) => onChange({ across: typed(text, unit) })}
        />
      )}
      {item.form === "wall" && (
        <Field
          label="Looks"
          text={item.out}
          placeholder={WAY_HINT}
          problem={problem("out")}
          onText={(out) => onChange({ out: out.slice(0, 60) })}
        />
      )}
      <Button size="small" variant="text" onClick={onTake}>
        Take this out
      </Button>
    </Box>
  );
}
