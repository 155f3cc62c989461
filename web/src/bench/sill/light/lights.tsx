import { useFrame, useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import { isSoftware } from '../software.ts';
import { useSill } from '../state.ts';
import { placeOf } from './rig.ts';
import { SHADOW_REACH } from './shadow-reach.ts';
import { sunOf } from './surroundings.ts';

const AWAY = 6;
/** Edge of the picture in which the sun sees what it lights, in pixels; smaller where the processor draws. */
const SHADOW_EDGE = 2048;
const SHADOW_EDGE_BY_PROCESSOR = 1024;
/** How soft the edge of a shadow is, in pixels of that picture, and how far it keeps from the surface that casts it, in units of the view. */
const SOFT = 2.5;
const OFF_SURFACE = 0.012;
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

/** Where the sun sees what it lights, and what it sees behind that lies in shadow. */
function SunShadow({ reach }: { reach: number }) {
  const args = useMemo(
    (): [number, number, number, number, number, number] => [
      -reach,
      reach,
      reach,
      -reach,
      AWAY - reach,
      AWAY + reach,
    ],
    [reach],
  );
  return <orthographicCamera attach="shadow-camera" args={args} />;
}

/** The sun and the lamps. */
export function Lights() {
  useTurningSun();
  const { sun, sunStrength, lamps, around, show, shape } = useSill();
  const gl = useThree((state) => state.gl);
  const software = useMemo(() => isSoftware(gl.getContext()), [gl]);
  const edge = software ? SHADOW_EDGE_BY_PROCESSOR : SHADOW_EDGE;
  const reach = SHADOW_REACH[shape];
  const { colour, strength } = sunOf(around.name);
  return (
    <>
      <directionalLight
        // A light that casts shadows is another one for the programs of the graphics card.
        key={reach ?? 'alone'}
        castShadow={reach !== null}
        shadow-mapSize={[edge, edge]}
        shadow-radius={SOFT}
        shadow-normalBias={OFF_SURFACE}
        position={placeOf(show === 'side' ? { ...sun, rise: SIDE_RISE } : sun, AWAY)}
        intensity={strength * sunStrength}
        color={colour}
      >
        {reach !== null && <SunShadow reach={reach} />}
      </directionalLight>
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
