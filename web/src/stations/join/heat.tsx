import type { Spot } from '@zesty-tile/core';
import { useEffect, useState } from 'react';
import type { Look, Size } from '../../bench/floor/geometry.ts';
import { useBench } from '../../bench/state.ts';
import { engineNow } from '../../bench/use-engine.ts';

/** From here on a place is looked at twice, and from here on it plainly shows. */
const WARM = 1.3;
const HOT = 2.2;
const RADIUS = 0.018;

const colourOf = (unlike: number) => {
  const t = Math.min(1, Math.max(0, (unlike - WARM) / (HOT - WARM)));
  return `hsl(${Math.round(52 - 52 * t)} 100% ${Math.round(58 - 8 * t)}%)`;
};

interface HeatProps {
  look: Look;
  tile: Size;
  stage: Size;
  lay: number;
  halfShift: boolean;
}

/** Where patches over the seam are unlike anything in the photo; the worst is ringed. */
export function SeamHeat({ look, tile, stage, lay, halfShift }: HeatProps) {
  const measured = useBench((s) => s.found.join?.verdict);
  const maps = useBench((s) => s.maps);
  const [spots, setSpots] = useState<Spot[]>([]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked again when something was measured again
  useEffect(() => {
    let wanted = true;
    void engineNow()
      ?.seamHeat()
      .then((found) => wanted && setSpots(found ?? []));
    return () => {
      wanted = false;
    };
  }, [measured, maps]);
  const warm = spots.filter(({ unlike }) => unlike > WARM);
  const worst = spots.reduce<Spot | null>(
    (most, spot) => (!most || spot.unlike > most.unlike ? spot : most),
    null,
  );
  const shift = halfShift ? 0.5 : 0;
  const edgeY = (look.edge * tile.height) / tile.width;
  const places = Array.from({ length: (lay + 1) ** 2 }, (_, k) => [
    (k % (lay + 1)) - shift,
    Math.floor(k / (lay + 1)) - shift,
  ]);
  const inside = (x: number, y: number) => x >= 0 && y >= 0 && x <= lay && y <= lay;
  return (
    <svg
      width={stage.width}
      height={stage.height}
      style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}
      role="img"
      aria-label={
        worst
          ? `${warm.length} of ${spots.length} seam spots are visible; worst ${worst.unlike.toFixed(1)} × typical`
          : 'The seam is not measured yet'
      }
      data-heat={warm.length}
    >
      {places.flatMap(([i, j]) =>
        warm
          .filter(({ x, y }) => inside(i + x, j + y))
          .map(({ x, y, unlike }) => (
            <circle
              key={`${i} ${j} ${x} ${y}`}
              cx={look.x + (i + x) * look.edge}
              cy={look.y + (j + y) * edgeY}
              r={RADIUS * look.edge}
              fill={colourOf(unlike)}
              fillOpacity=".55"
            />
          )),
      )}
      {worst && (
        <circle
          cx={look.x + (Math.floor(lay / 2) - shift + worst.x) * look.edge}
          cy={look.y + (Math.floor(lay / 2) - shift + worst.y) * edgeY}
          r={2 * RADIUS * look.edge}
          fill="none"
          stroke="#fff"
          strokeWidth="2"
        />
      )}
    </svg>
  );
}
