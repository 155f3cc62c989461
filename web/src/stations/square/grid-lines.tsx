/** Points along a line that may bend. */
const POINTS = 24;

interface GridLinesProps {
  across: number;
  down: number;
  /** Where a place of the crop lies on the stage, as `x,y`. */
  place(u: number, v: number): string;
}

/** Lines over the crop that will be straight in the tile. */
export function GridLines({ across, down, place }: GridLinesProps) {
  const along = Array.from({ length: POINTS + 1 }, (_, k) => k / POINTS);
  const lines = (n: number) => Array.from({ length: n + 1 }, (_, k) => k / n);
  return (
    <g stroke="#fff" strokeOpacity=".75" fill="none" data-grid>
      {lines(across).map((u) => (
        <polyline key={`u${u}`} points={along.map((v) => place(u, v)).join(' ')} />
      ))}
      {lines(down).map((v) => (
        <polyline key={`v${v}`} points={along.map((u) => place(u, v)).join(' ')} />
      ))}
    </g>
  );
}
