/** Which way and how far the tube is turned, seen from the held end. */
export function TurnArrow({ degrees, size = 26 }: { degrees: number; size?: number }) {
  const turn = Math.abs(degrees) < 0.05 ? 0 : degrees;
  const tip = at(turn, 9);
  const head = at(turn + (turn > 0 ? -26 : 26), 9);
  return (
    <svg width={size} height={size} viewBox="-13 -13 26 26" aria-hidden style={{ flex: "none" }}>
      <circle r="12" fill="none" stroke="var(--second)" strokeWidth="1" />
      <line x1="0" y1="-12" x2="0" y2="-6" stroke="var(--second)" strokeWidth="1.5" />
      {turn !== 0 && (
        <>
          <path
            d={`M0 -9 A9 9 0 ${Math.abs(turn) > 180 ? 1 : 0} ${turn > 0 ? 1 : 0} ${tip.x} ${tip.y}`}
            fill="none"
            stroke="var(--action)"
            strokeWidth="3"
          />
          <circle cx={tip.x} cy={tip.y} r="3.4" fill="var(--action)" />
          <line x1={head.x} y1={head.y} x2={tip.x} y2={tip.y} stroke="var(--action)" strokeWidth="3" />
        </>
      )}
    </svg>
  );
}

function at(degrees: number, r: number): { x: number; y: number } {
  const a = (degrees * Math.PI) / 180;
  return { x: Math.sin(a) * r, y: -Math.cos(a) * r };
}
