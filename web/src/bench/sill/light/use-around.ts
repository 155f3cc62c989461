import { useEffect, useState } from 'react';
import { create } from 'zustand';
import { type Around, useSill } from '../state.ts';
import { type AroundLight, type AroundPicture, aroundWorker, type Direction } from './around.ts';
import { turned } from './exposure.ts';
import { ownSurroundings } from './own-surroundings.ts';
import { placeOf } from './rig.ts';
import { isMadeUp } from './surroundings.ts';

interface AroundNow {
  /** Null until the first is made. */
  light: AroundLight | null;
  /** Whether another is being made. */
  isBehind: boolean;
  /** What frames are lit by; null while more of it is to come. */
  drawn: AroundLight | null;
  problem: string;
}

/** The light from all sides that the Sill is drawn with. */
export const useAroundNow = create<AroundNow>(() => ({
  light: null,
  isBehind: true,
  drawn: null,
  problem: '',
}));

/** The sun's direction in the surroundings, to whole steps so that it is not followed more finely than is seen. */
function sunIn({ turn }: Around, sun: { turn: number; rise: number }): string {
  const towards = turned(placeOf(sun, 1), (turn * Math.PI) / 180);
  return towards.map((value) => value.toFixed(2)).join(' ');
}

const unitOf = (key: string): Direction => {
  const [x, y, z] = key.split(' ').map(Number);
  const length = Math.hypot(x, y, z) || 1;
  return [x / length, y / length, z / length];
};

/** So long the sun rests before the sky follows it. */
const REST_MS = 120;

/** Has the surroundings made that are chosen; those that were stay until the next are there. */
export function useMakeAround(): void {
  const around = useSill((s) => s.around);
  const sun = useSill((s) => s.sun);
  const { name } = around;
  const sunKey = isMadeUp(name) ? sunIn(around, sun) : '';
  useEffect(() => {
    let over = false;
    useAroundNow.setState({ isBehind: true });
    const make = () =>
      isMadeUp(name)
        ? aroundWorker().made(name, unitOf(sunKey))
        : ownSurroundings(name.slice('own:'.length)).then(({ format, bytes }) =>
            aroundWorker().own(format, bytes),
          );
    const start = () =>
      make().then(
        (light) => {
          if (!over) useAroundNow.setState({ light, isBehind: false, problem: '' });
        },
        (error: Error) => {
          if (!over) useAroundNow.setState({ isBehind: false, problem: error.message });
        },
      );
    const timer = setTimeout(start, useAroundNow.getState().light ? REST_MS : 0);
    return () => {
      over = true;
      clearTimeout(timer);
    };
  }, [name, sunKey]);
}

/** Width of what is seen all round where it is looked at. */
const SHARP_WIDTH = 1024;

/** What is seen of the surroundings: as sharp as it is seen behind a shape where that is wanted, and whether it is that sharp already. */
export function useSeenAround(
  light: AroundLight | null,
  isSharpWanted: boolean,
): { picture: AroundPicture | null; isComplete: boolean } {
  const [sharp, setSharp] = useState<{ of: AroundLight; picture: AroundPicture } | null>(null);
  useEffect(() => {
    const { around, sun } = useSill.getState();
    const { name } = around;
    if (!light || !isSharpWanted || !isMadeUp(name)) return;
    let over = false;
    aroundWorker()
      .sharp(name, unitOf(sunIn(around, sun)), SHARP_WIDTH)
      .then((picture) => {
        if (!over) setSharp({ of: light, picture });
      });
    return () => {
      over = true;
    };
  }, [light, isSharpWanted]);
  const name = useSill((s) => s.around.name);
  if (sharp && sharp.of === light) return { picture: sharp.picture, isComplete: true };
  // A picture of the user's is as sharp as it is.
  return { picture: light?.picture ?? null, isComplete: !isSharpWanted || !isMadeUp(name) };
}

/** Whether frames are lit by the surroundings that are chosen. */
export const isAroundDrawn = ({ light, isBehind, drawn }: AroundNow): boolean => !isBehind && drawn === light;

/** Ends when frames are lit by the surroundings that are chosen, or at once when it is stopped. */
export const aroundSettled = (signal: AbortSignal): Promise<void> =>
  new Promise((resolve) => {
    if (signal.aborted || isAroundDrawn(useAroundNow.getState())) return resolve();
    const over = () => {
      stop();
      signal.removeEventListener('abort', over);
      resolve();
    };
    const stop = useAroundNow.subscribe((now) => {
      if (isAroundDrawn(now)) over();
    });
    signal.addEventListener('abort', over);
  });
