import { useFrame, useThree } from '@react-three/fiber';
import { useEffect } from 'react';
import { useSill } from '../state.ts';
import { placeOf } from './rig.ts';
import { sunOf } from './surroundings.ts';

const AWAY = 6;
/** Light from the side, for bumps. */
const SIDE_RISE = 9;
/** Degrees a second. */
const TURN_SPEED = 24;

/** Lets the sun go round while it is asked to. */
function useTurningSun(): void {
  const turning = useSill((s) => s.turning);
  const invalidate = useThree((state) => state.invalidate);
  useFrame((_state, seconds) => {
    if (!turning) return;
    const { sun } = useSill.getState();
    useSill.setState({ sun: { ...sun, turn: (sun.turn + TURN_SPEED * Math.min(0.1, seconds)) % 360 } });
  });
  useEffect(() => {
    if (turning) invalidate();
  }, [turning, invalidate]);
}

/** The sun and the lamps. */
export function Lights() {
  useTurningSun();
  const { sun, sunStrength, lamps, around, show } = useSill();
  const { colour, strength } = sunOf(around.name);
  return (
    <>
      <directionalLight
        position={placeOf(show === 'side' ? { ...sun, rise: SIDE_RISE } : sun, AWAY)}
        intensity={strength * sunStrength}
        color={colour}
      />
      {lamps.map((lamp, k) => (
        <directionalLight
          // biome-ignore lint/suspicious/noArrayIndexKey: lamps have no name but their place
          key={k}
          position={placeOf(lamp, AWAY)}
          intensity={lamp.strength}
          color={lamp.colour}
        />
      ))}
    </>
  );
}
