import type { ThreeEvent } from "@react-three/fiber";
import { useEffect, useMemo } from "react";
import { CatmullRomCurve3, LineCurve3, TubeGeometry, Vector3 } from "three";
import type { Part } from "../../api/types";
import { useSelection } from "../../doc/select";
import type { Tokens } from "../../theme/tokens";

interface Props {
  part: Part;
  tokens: Tokens;
  least: number;
  /** It is not known yet how far it goes: end B has no end. */
  open: boolean;
}

interface Run {
  bend: number | null;
  from: number;
  to: number;
}

/** Straights and bends as tubes over their shadow, nuts as collars; a finding lights its place. */
export function Tube({ part, tokens, least, open }: Props) {
  const { bend: chosen, choose, lit } = useSelection();
  const radius = Math.max(part.od_mm / 2, least);
  const runs = useMemo(() => runsOf(part), [part]);
  const floor = Math.min(...part.path.map(([, point]) => point[2])) - Math.max(30, radius * 8);
  const whole = useMemo(() => pointsOf(part, 0, part.developed_mm), [part]);
  return (
    <group>
      <group position={[0, 0, floor]} scale={[1, 1, 0.001]}>
        <Piece points={whole} radius={radius} colour={tokens.shadow} lit={false} />
      </group>
      {runs.map((run) => (
        <Piece
          key={`${run.from} ${run.to} ${run.bend}`}
          points={pointsOf(part, run.from, run.to)}
          radius={radius}
          colour={run.bend === null ? tokens.tube : run.bend === chosen ? tokens.ink : tokens.bend}
          onClick={run.bend === null ? undefined : () => choose(run.bend)}
        />
      ))}
      {lit && (
        <Piece
          points={pointsOf(part, lit.from, lit.to)}
          radius={radius * 1.7}
          colour={tokens[lit.severity]}
          opacity={0.55}
        />
      )}
      {[part.end_a, ...(open ? [] : [part.end_b])].map((end) => {
        const tip = new Vector3(...end.point);
        const inward = new Vector3(...end.outward).multiplyScalar(-Math.max(end.nut_length_mm, radius * 3));
        return (
          <Piece
            key={end.end}
            points={[tip, tip.clone().add(inward)]}
            radius={radius * 1.75}
            colour={end.nut ? tokens.second : tokens.light}
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

function runsOf(part: Part): Run[] {
  const runs: Run[] = [];
  let at = 0;
  for (const bend of part.bends) {
    if (Math.abs(bend.start_mm - at) > 1e-6) runs.push({ bend: null, from: at, to: bend.start_mm });
    runs.push({ bend: bend.number, from: bend.start_mm, to: bend.end_mm });
    at = bend.end_mm;
  }
  if (Math.abs(part.developed_mm - at) > 1e-6) runs.push({ bend: null, from: at, to: part.developed_mm });
  return runs;
}

/** Points of the centreline between two developed positions, both included. */
function pointsOf(part: Part, from: number, to: number): Vector3[] {
  const low = Math.min(from, to);
  const high = Math.max(from, to);
  const found = part.path
    .filter(([at]) => at >= low - 1e-6 && at <= high + 1e-6)
    .map(([, point]) => new Vector3(...point));
  return found.filter((point, k) => k === 0 || point.distanceToSquared(found[k - 1] ?? point) > 1e-9);
}
