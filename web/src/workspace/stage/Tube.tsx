import type { ThreeEvent } from "@react-three/fiber";
import { useEffect, useMemo } from "react";
import { CatmullRomCurve3, LineCurve3, TubeGeometry, Vector3 } from "three";
import type { Figure, OtherFigure, TubeFigure } from "./figure";
import { alongOf, pointsOf, runsOf } from "./figure";
import { useSelection } from "../../doc/select";
import type { Tokens } from "../../theme/tokens";

interface Props {
  figure: Figure;
  tokens: Tokens;
  least: number;
}

/** The whole line over its shadow: tubes, hoses and components; a finding lights its place. */
export function Chain({ figure, tokens, least }: Props) {
  const { lit, place, choosePlace } = useSelection();
  const { main, tubes, others } = figure;
  const several = tubes.length + others.length > 1;
  const thick = Math.max(...tubes.map((tube) => tube.part.od_mm / 2), least);
  const floor = useMemo(() => Math.min(...pointsOf(figure).map((point) => point.z)), [figure]);
  const lines = useMemo(() => [...tubes, ...others].map((one) => one.points), [tubes, others]);
  const choose = (span: string) => choosePlace(place?.id === span ? null : { kind: "span", id: span });
  const lighted = lit && others.find((other) => other.span === lit.span);
  return (
    <group>
      <group position={[0, 0, floor - Math.max(30, thick * 8)]} scale={[1, 1, 0.001]}>
        {lines.map((points, k) => (
          <Piece key={k} points={points} radius={thick} colour={tokens.shadow} lit={false} />
        ))}
      </group>
      {tubes.map((tube) => (
        <Tube
          key={tube.part.span}
          tube={tube}
          tokens={tokens}
          least={least}
          main={tube === main}
          onChoose={tubes.length > 1 && tube !== main ? () => choose(tube.part.span) : undefined}
        />
      ))}
      {others.map((other) => (
        <Other
          key={other.span}
          other={other}
          radius={thick}
          tokens={tokens}
          chosen={several && place?.kind === "span" && place.id === other.span}
          onChoose={() => choose(other.span)}
        />
      ))}
      {figure.clips.map((clip) => (
        <Piece key={clip.id} points={clip.points} radius={thick * 1.6} colour={tokens.ink} />
      ))}
      {lighted && <Piece points={lighted.points} radius={thick * 2.4} colour={tokens[lit.severity]} opacity={0.45} />}
    </group>
  );
}

/** A hose with a collar at each end, or the middle part of a component's way; its sign lies over it. */
function Other({
  other,
  radius,
  tokens,
  chosen,
  onChoose,
}: {
  other: OtherFigure;
  radius: number;
  tokens: Tokens;
  chosen: boolean;
  onChoose: () => void;
}) {
  const hose = other.what === "hose";
  const collars = useMemo(() => (hose ? collarsOf(other.points, radius * 2) : []), [hose, other.points, radius]);
  const colour = chosen ? tokens.action : hose ? tokens.hose : tokens.nut;
  return (
    <>
      <Piece
        points={other.points}
        radius={hose ? radius * 1.3 : radius * 0.6}
        colour={colour}
        opacity={hose && other.guessed ? 0.7 : 1}
        onClick={onChoose}
      />
      {collars.map((points, k) => (
        <Piece key={k} points={points} radius={radius * 1.8} colour={tokens.weave} onClick={onChoose} />
      ))}
    </>
  );
}

/** Short pieces of a way, a little in from both of its ends. */
function collarsOf(points: Vector3[], wide: number): Vector3[][] {
  return [points, [...points].reverse()].flatMap(([tip, next]) => {
    if (!tip || !next) return [];
    const way = next.clone().sub(tip).normalize();
    return [[tip.clone().addScaledVector(way, wide * 0.6), tip.clone().addScaledVector(way, wide * 1.2)]];
  });
}

/** One tube in its place: straights and bends, nuts as collars; old tube that stays is grey. */
function Tube({
  tube,
  tokens,
  least,
  main,
  onChoose,
}: {
  tube: TubeFigure;
  tokens: Tokens;
  least: number;
  main: boolean;
  onChoose: (() => void) | undefined;
}) {
  const { bend: chosen, choose, lit } = useSelection();
  const { part, stays } = tube;
  const radius = Math.max(part.od_mm / 2, least);
  const runs = useMemo(() => runsOf(part), [part]);
  const [straight, bent] = stays ? [tokens.old, tokens.oldBend] : [tokens.tube, tokens.bend];
  const here = lit && (lit.span === part.span || (lit.span === "" && main));
  return (
    <group matrix={tube.into} matrixAutoUpdate={false}>
      {runs.map((run) => (
        <Piece
          key={`${run.from} ${run.to} ${run.bend}`}
          points={alongOf(tube, run.from, run.to)}
          radius={radius}
          colour={run.bend === null ? straight : main && run.bend === chosen ? tokens.ink : bent}
          onClick={onChoose ?? (run.bend === null ? undefined : () => choose(run.bend))}
        />
      ))}
      {here && (
        <Piece
          points={alongOf(tube, lit.from, lit.to)}
          radius={radius * 1.7}
          colour={tokens[lit.severity]}
          opacity={0.55}
        />
      )}
      {[part.end_a, part.end_b].map((end) => {
        const tip = new Vector3(...end.point);
        const inward = new Vector3(...end.outward).multiplyScalar(-Math.max(end.nut_length_mm, radius * 3));
        if (tube.open && end.end === "B") return null;
        return (
          <Piece
            key={end.end}
            points={[tip, tip.clone().add(inward)]}
            radius={radius * 1.75}
            colour={end.nut ? tokens.second : stays ? tokens.oldBend : tokens.light}
          />
        );
      })}
    </group>
  );
}

interface PieceProps {
  points: Vector3[];
  radius: number;
  colour: string;
  opacity?: number;
  lit?: boolean;
  onClick?: (() => void) | undefined;
}

function Piece({ points, radius, colour, opacity = 1, lit = true, onClick }: PieceProps) {
  const geometry = useMemo(() => {
    const [a, b] = points;
    if (!a || !b) return null;
    const straight = points.length === 2;
    const curve = straight ? new LineCurve3(a, b) : new CatmullRomCurve3(points, false, "centripetal");
    return new TubeGeometry(curve, straight ? 1 : points.length * 2, radius, 14, false);
  }, [points, radius]);
  useEffect(() => () => geometry?.dispose(), [geometry]);
  if (!geometry) return null;
  const press = onClick
    ? (event: ThreeEvent<MouseEvent>) => {
        event.stopPropagation();
        onClick();
      }
    : undefined;
  return (
    <mesh geometry={geometry} {...(press ? { onClick: press } : {})}>
      {lit ? (
        <meshLambertMaterial color={colour} transparent={opacity < 1} opacity={opacity} />
      ) : (
        <meshBasicMaterial color={colour} />
      )}
    </mesh>
  );
}
