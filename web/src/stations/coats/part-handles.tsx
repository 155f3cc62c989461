import type { CoatPart } from '@zesty-tile/core';
import { useRef } from 'react';
import { Handle } from '../../bench/floor/handle.tsx';
import { type BrushPlane, stageAt } from '../../bench/floor/use-brush.ts';
import { useBench } from '../../bench/state.ts';
import { snapped } from './snap.ts';
import { changePart, type Owner, useCoats } from './use-coats.ts';

const STEP = 0.002;
type Place = [number, number];
const rounded = (value: number) => Math.round(1e4 * value) / 1e4;

interface Grip {
  name: string;
  at: Place;
  /** The part with this grip at another place. */
  put(at: Place): CoatPart;
  onDelete?(): CoatPart;
}

/** Sides of the tile in mm. */
interface Sides {
  widthMm: number;
  heightMm: number;
}

/** What of a part can be moved by hand. */
function gripsOf(part: CoatPart, { widthMm, heightMm }: Sides): Grip[] {
  if (part.by === 'gradient' && part.kind !== 'height') {
    return part.ends.map((end, k) => ({
      name: k === 0 ? 'Where it is 0' : 'Where it is 1',
      at: end,
      put: (at) => ({ ...part, ends: part.ends.map((one, n) => (n === k ? at : one)) as typeof part.ends }),
    }));
  }
  if (part.by === 'picture' && part.placing === 'once') {
    return [{ name: 'Middle', at: [part.x, part.y], put: ([x, y]) => ({ ...part, x, y }) }];
  }
  if (part.by !== 'shape') return [];
  if (part.kind === 'line' || part.kind === 'polyline' || part.kind === 'curve') {
    return part.points.map((point, k) => ({
      name: `Point ${k + 1}`,
      at: point,
      put: (at) => ({ ...part, points: part.points.map((one, n) => (n === k ? at : one)) }),
      ...(part.points.length > 1 && {
        onDelete: () => ({ ...part, points: part.points.filter((_one, n) => n !== k) }),
      }),
    }));
  }
  const angle = (part.degrees * Math.PI) / 180;
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)];
  const [halfX, halfY] = [part.widthMm / 2, part.heightMm / 2];
  return [
    { name: 'Middle', at: [part.x, part.y], put: ([x, y]) => ({ ...part, x, y }) },
    {
      name: 'Corner',
      at: [part.x + (halfX * cos - halfY * sin) / widthMm, part.y + (halfX * sin + halfY * cos) / heightMm],
      put([x, y]) {
        const [dx, dy] = [(x - part.x) * widthMm, (y - part.y) * heightMm];
        const size = (half: number) => Math.max(0.5, Math.round(20 * Math.abs(half)) / 10);
        return { ...part, widthMm: size(dx * cos + dy * sin), heightMm: size(dy * cos - dx * sin) };
      },
    },
  ];
}

/** Over the Floor: the places that the open mask's parts are set by. */
export function PartHandles({
  owner,
  parts,
  plane,
}: {
  owner: Owner;
  parts: readonly CoatPart[];
  plane: BrushPlane;
}) {
  const snaps = useCoats((s) => s.snaps);
  const edgeMetres = useBench((s) => s.recipe.stations.square.edgeMetres);
  const grip = useRef<Place>([0, 0]);
  const { look, tile } = plane;
  const edgeY = (look.edge * tile.height) / tile.width;
  const longer = Math.max(tile.width, tile.height);
  const sides = {
    widthMm: (1000 * edgeMetres * tile.width) / longer,
    heightMm: (1000 * edgeMetres * tile.height) / longer,
  };
  const all = parts.map((part) => gripsOf(part, sides));
  const marks = (own: Grip, axis: 0 | 1) =>
    all
      .flat()
      .filter((one) => one !== own)
      .map(({ at }) => at[axis]);
  const placed = (own: Grip, [x, y]: Place): Place =>
    (snaps ? [snapped(x, look.edge, marks(own, 0)), snapped(y, edgeY, marks(own, 1))] : [x, y]).map(
      rounded,
    ) as Place;
  if (all.every((grips) => grips.length === 0)) return null;
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot stand in a drawing
    <svg
      role="group"
      aria-label="Places of the mask"
      style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none' }}
    >
      {parts.map((part, k) => {
        const points = all[k].map(({ at }) =>
          stageAt(plane, ...at)
            .map((value) => value.toFixed(1))
            .join(','),
        );
        const isLine = part.by === 'gradient' || (part.by === 'shape' && part.kind !== 'curve');
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: parts have no identity but their place
          <g key={k}>
            {isLine && points.length > 1 && (
              <>
                <polyline
                  points={points.join(' ')}
                  fill="none"
                  stroke="#000"
                  strokeOpacity="0.55"
                  strokeWidth="3"
                />
                <polyline points={points.join(' ')} fill="none" stroke="#fff" strokeWidth="1.3" />
              </>
            )}
            {all[k].map((own) => {
              const [x, y] = stageAt(plane, ...own.at);
              const put = (at: Place) => changePart(owner, k, own.put(at), `handle ${own.name}`);
              return (
                <Handle
                  key={own.name}
                  x={x}
                  y={y}
                  radius={7}
                  name={`${own.name} of mask part ${k + 1}`}
                  now={Math.round(100 * own.at[0])}
                  words={`${(100 * own.at[0]).toFixed(1)} % across, ${(100 * own.at[1]).toFixed(1)} % down`}
                  onGrip={() => {
                    grip.current = [...own.at];
                  }}
                  onDrag={(dx, dy) =>
                    put(placed(own, [grip.current[0] + dx / look.edge, grip.current[1] + dy / edgeY]))
                  }
                  onStep={(dx, dy) => put([rounded(own.at[0] + dx * STEP), rounded(own.at[1] + dy * STEP)])}
                  onDelete={own.onDelete && (() => changePart(owner, k, own.onDelete!()))}
                />
              );
            })}
          </g>
        );
      })}
    </svg>
  );
}
