import { cropMapper } from '@zesty-tile/core';
import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import { ARROWS } from '../../bench/floor/arrows.ts';
import type { Look, Size } from '../../bench/floor/geometry.ts';
import { useBench } from '../../bench/state.ts';
import { endGesture } from '../../bench/steps.ts';
import { type CropDials, moved, pulled, turnedTo } from './crop-geometry.ts';

const CORNERS = [
  { u: 0, v: 0, name: 'upper left' },
  { u: 1, v: 0, name: 'upper right' },
  { u: 1, v: 1, name: 'lower right' },
  { u: 0, v: 1, name: 'lower left' },
] as const;

/** How far the turning handle stands off the upper edge, in CSS pixels. */
const STALK = 30;
const TURN_STEP = 0.05;
const MOVE_STEP = 0.001;

interface CropHandlesProps {
  look: Look;
  tile: Size;
  /** Whether the crop can be changed here, or is only shown. */
  live: boolean;
}

/** Where the crop lies on the photo; at Square it is moved, pulled at its corners, and turned. */
export function CropHandles({ look, tile, live }: CropHandlesProps) {
  const crop = useBench((s) => s.recipe.stations.square);
  const setDials = useBench((s) => s.setDials);
  const from = useRef<{ crop: CropDials; x: number; y: number } | null>(null);
  const scale = look.edge / tile.width;
  const mapper = cropMapper(tile.width, tile.height, crop);
  const place = (u: number, v: number): [number, number] => {
    const [x, y] = mapper.at(u, v);
    return [look.x + x * scale, look.y + y * scale];
  };
  const take = ({ centreX, centreY, share, turnDegrees }: CropDials, gesture: string) =>
    setDials('square', { centreX, centreY, share, turnDegrees }, `crop ${gesture}`);
  const photoPoint = (event: PointerEvent): [number, number] => {
    const box = (event.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect();
    return [(event.clientX - box.left - look.x) / scale, (event.clientY - box.top - look.y) / scale];
  };
  const drag = (gesture: string, change: (x: number, y: number) => CropDials) => ({
    onPointerDown: (event: PointerEvent<SVGElement>) => {
      event.stopPropagation();
      endGesture();
      event.currentTarget.setPointerCapture(event.pointerId);
      const [x, y] = photoPoint(event);
      from.current = { crop, x, y };
    },
    onPointerMove: (event: PointerEvent<SVGElement>) => {
      if (!from.current) return;
      take(change(...photoPoint(event)), gesture);
    },
    onPointerUp: () => {
      from.current = null;
    },
  });
  const keys = (gesture: string, change: (dx: number, dy: number) => CropDials) => ({
    tabIndex: 0,
    onKeyDown: (event: KeyboardEvent) => {
      const arrow = ARROWS[event.key];
      if (!arrow) return;
      event.preventDefault();
      event.stopPropagation();
      const by = event.shiftKey ? 10 : 1;
      take(change(arrow[0] * by, arrow[1] * by), gesture);
    },
  });
  const points = CORNERS.map(({ u, v }) => place(u, v).join(',')).join(' ');
  const [topX, topY] = place(0.5, 0);
  const turn = (crop.turnDegrees * Math.PI) / 180;
  const [knobX, knobY] = [topX + Math.sin(turn) * STALK, topY - Math.cos(turn) * STALK];
  const stepX = MOVE_STEP * tile.width;
  return (
    <svg
      style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none' }}
      role={live ? 'group' : undefined}
      aria-label={live ? 'Crop on the photo' : undefined}
      aria-hidden={!live}
      data-crop
    >
      <path
        d={`M${look.x} ${look.y}h${look.edge}v${tile.height * scale}h${-look.edge}Z M${points.replaceAll(' ', 'L')}Z`}
        fillRule="evenodd"
        fill="#000"
        fillOpacity={live ? 0.38 : 0}
      />
      <polygon points={points} fill="none" stroke="#000" strokeOpacity=".55" strokeWidth="3" />
      <polygon
        points={points}
        fill="transparent"
        stroke="#fff"
        strokeWidth="1.5"
        strokeDasharray={live ? undefined : '6 4'}
        {...(live
          ? {
              style: { pointerEvents: 'all', cursor: 'move' },
              role: 'slider',
              'aria-label': 'Crop: arrow keys move it',
              'aria-valuenow': Math.round(100 * crop.centreX),
              'aria-valuetext': `centre ${Math.round(100 * crop.centreX)} % across, ${Math.round(100 * crop.centreY)} % down`,
              ...drag('move', (x, y) =>
                moved(tile, from.current!.crop, x - from.current!.x, y - from.current!.y),
              ),
              ...keys('move', (dx, dy) => moved(tile, crop, dx * stepX, dy * stepX)),
            }
          : {})}
      />
      {live && (
        <>
          <line x1={topX} y1={topY} x2={knobX} y2={knobY} stroke="#fff" strokeWidth="1.5" />
          <circle
            cx={knobX}
            cy={knobY}
            r="7"
            fill="#fff"
            stroke="#1d1d1d"
            strokeWidth="2"
            style={{ pointerEvents: 'all', cursor: 'grab' }}
            role="slider"
            aria-label="Turn of the crop"
            aria-valuemin={-45}
            aria-valuemax={45}
            aria-valuenow={crop.turnDegrees}
            {...drag('turn', (x, y) => turnedTo(tile, from.current!.crop, x, y))}
            {...keys('turn', (dx, dy) =>
              moved(tile, { ...crop, turnDegrees: crop.turnDegrees + (dx || -dy) * TURN_STEP }, 0, 0),
            )}
          />
          {CORNERS.map(({ u, v, name }) => {
            const [x, y] = place(u, v);
            return (
              <rect
                key={name}
                x={x - 6}
                y={y - 6}
                width="12"
                height="12"
                fill="#fff"
                stroke="#1d1d1d"
                strokeWidth="2"
                style={{ pointerEvents: 'all', cursor: u === v ? 'nwse-resize' : 'nesw-resize' }}
                role="slider"
                aria-label={`Crop, ${name} corner`}
                aria-valuenow={Math.round(100 * crop.share)}
                aria-valuetext={`crop edge ${crop.share.toFixed(3)} of the photo’s shorter side`}
                {...drag(name, (px, py) => pulled(tile, from.current!.crop, u, v, px, py))}
                {...keys(name, (dx, dy) => {
                  const [px, py] = mapper.at(u, v);
                  return pulled(tile, crop, u, v, px + dx * stepX, py + dy * stepX);
                })}
              />
            );
          })}
        </>
      )}
    </svg>
  );
}
