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

type Drag = (
  gesture: string,
  change: (x: number, y: number) => CropDials,
) => Record<'onPointerDown' | 'onPointerMove' | 'onPointerUp', (event: PointerEvent<SVGElement>) => void>;
type Keys = (
  gesture: string,
  change: (dx: number, dy: number) => CropDials,
) => { tabIndex: number; onKeyDown(event: KeyboardEvent): void };

/** How the crop is changed by dragging and by keys; `start` is the crop, and the place in the photo, where a drag began. */
function useCropChange(look: Look, tile: Size, crop: CropDials) {
  const setDials = useBench((s) => s.setDials);
  const start = useRef<{ crop: CropDials; x: number; y: number } | null>(null);
  const scale = look.edge / tile.width;
  const take = ({ centreX, centreY, share, turnDegrees }: CropDials, gesture: string) =>
    setDials('square', { centreX, centreY, share, turnDegrees }, `crop ${gesture}`);
  const photoPoint = (event: PointerEvent): [number, number] => {
    const box = (event.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect();
    return [(event.clientX - box.left - look.x) / scale, (event.clientY - box.top - look.y) / scale];
  };
  const drag: Drag = (gesture, change) => ({
    onPointerDown: (event) => {
      event.stopPropagation();
      endGesture();
      event.currentTarget.setPointerCapture(event.pointerId);
      const [x, y] = photoPoint(event);
      start.current = { crop, x, y };
    },
    onPointerMove: (event) => {
      if (start.current) take(change(...photoPoint(event)), gesture);
    },
    onPointerUp: () => {
      start.current = null;
    },
  });
  const keys: Keys = (gesture, change) => ({
    tabIndex: 0,
    onKeyDown: (event) => {
      const arrow = ARROWS[event.key];
      if (!arrow) return;
      event.preventDefault();
      event.stopPropagation();
      const by = event.shiftKey ? 10 : 1;
      take(change(arrow[0] * by, arrow[1] * by), gesture);
    },
  });
  return { start, drag, keys };
}

interface HandlesProps {
  tile: Size;
  crop: CropDials;
  change: ReturnType<typeof useCropChange>;
  mapper: ReturnType<typeof cropMapper>;
  place(u: number, v: number): [number, number];
}

/** The handle that turns the crop, above the middle of its upper edge. */
function TurnHandle({ tile, crop, change: { start, drag, keys }, place }: HandlesProps) {
  const [topX, topY] = place(0.5, 0);
  const turn = (crop.turnDegrees * Math.PI) / 180;
  const [knobX, knobY] = [topX + Math.sin(turn) * STALK, topY - Math.cos(turn) * STALK];
  return (
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
        aria-label="Rotation of the crop"
        aria-valuemin={-45}
        aria-valuemax={45}
        aria-valuenow={crop.turnDegrees}
        {...drag('turn', (x, y) => turnedTo(tile, start.current!.crop, x, y))}
        {...keys('turn', (dx, dy) =>
          moved(tile, { ...crop, turnDegrees: crop.turnDegrees + (dx || -dy) * TURN_STEP }, 0, 0),
        )}
      />
    </>
  );
}

/** A handle at each corner, which changes the crop's size. */
const CornerDots = ({ tile, crop, change: { start, drag, keys }, mapper, place }: HandlesProps) =>
  CORNERS.map(({ u, v, name }) => {
    const [x, y] = place(u, v);
    const step = MOVE_STEP * tile.width;
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
        {...drag(name, (px, py) => pulled(tile, start.current!.crop, u, v, px, py))}
        {...keys(name, (dx, dy) => {
          const [px, py] = mapper.at(u, v);
          return pulled(tile, crop, u, v, px + dx * step, py + dy * step);
        })}
      />
    );
  });

/** Where the crop lies on the photo; at Square it is moved, pulled at its corners, and turned. */
export function CropHandles({ look, tile, live }: CropHandlesProps) {
  const crop = useBench((s) => s.recipe.stations.square);
  const change = useCropChange(look, tile, crop);
  const scale = look.edge / tile.width;
  const mapper = cropMapper(tile.width, tile.height, crop);
  const place = (u: number, v: number): [number, number] => {
    const [x, y] = mapper.at(u, v);
    return [look.x + x * scale, look.y + y * scale];
  };
  const points = CORNERS.map(({ u, v }) => place(u, v).join(',')).join(' ');
  const stepX = MOVE_STEP * tile.width;
  const { start, drag, keys } = change;
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
                moved(tile, start.current!.crop, x - start.current!.x, y - start.current!.y),
              ),
              ...keys('move', (dx, dy) => moved(tile, crop, dx * stepX, dy * stepX)),
            }
          : {})}
      />
      {live && <TurnHandle {...{ tile, crop, change, mapper, place }} />}
      {live && <CornerDots {...{ tile, crop, change, mapper, place }} />}
    </svg>
  );
}
