import { useFrame, useThree } from '@react-three/fiber';
import { useEffect, useMemo, useRef } from 'react';
import * as THREE from 'three';
import { isSoftware } from '../software.ts';
import { useSill } from '../state.ts';
import type { Direction } from './around.ts';
import { turned } from './exposure.ts';
import { keyLight, LIGHT_AWAY } from './key-light.ts';
import { meteredNow, sunNow } from './metered.ts';
import { placeOf } from './rig.ts';
import { SHADOW_REACH } from './shadow-reach.ts';
import { useAroundNow } from './use-around.ts';

/** As far from the middle as shadows fall on the ground, behind what casts them. */
const FARTHEST = 5;
/** Edge of the picture in which the sun sees what it lights, in pixels; smaller where the processor draws. */
const SHADOW_EDGE = 2048;
const SHADOW_EDGE_BY_PROCESSOR = 640;
/** How soft the edge of a shadow is, in pixels of that picture, and how far it keeps from the surface that casts it, in units of the view. */
const SOFT = 2;
const OFF_SURFACE = 0.018;
/** Degrees a second. */
const TURN_SPEED = 24;
/** Of the sun where the surroundings hold theirs already. */
const FAINT_RADIUS = 0.02;

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
      LIGHT_AWAY - reach,
      LIGHT_AWAY + FARTHEST,
    ],
    [reach],
  );
  return <orthographicCamera attach="shadow-camera" args={args} />;
}

const scaled = (a: Direction, by: number): Direction => [a[0] * by, a[1] * by, a[2] * by];

/** The sun and the lamps. */
export function Lights() {
  useTurningSun();
  const { sun, sunStrength, lamps, around, show, shape, exposureLock } = useSill();
  const light = useAroundNow((s) => s.light);
  const gl = useThree((state) => state.gl);
  const software = useMemo(() => isSoftware(gl.getContext()), [gl]);
  const edge = software ? SHADOW_EDGE_BY_PROCESSOR : SHADOW_EDGE;
  const reach = SHADOW_REACH[shape];
  const turn = (around.turn * Math.PI) / 180;
  const { towards, sends } = useMemo(
    () => sunNow(light, { sun, sunStrength, show }),
    [light, sun, sunStrength, show],
  );
  const colour = useMemo(() => new THREE.Color(...sends), [sends]);
  const key = useRef<THREE.DirectionalLight>(null);
  const lampLights = useRef<(THREE.DirectionalLight | null)[]>([]);
  // Lamps are as strong as they are set beside the usual light, wherever they burn.
  const lampUnit = 1 / (exposureLock ?? meteredNow(light, { sun, sunStrength, show, around }).usual);
  useEffect(() => {
    if (!key.current || !light) return;
    keyLight.now = {
      light: key.current,
      lamps: lampLights.current.slice(0, lamps.length).filter((one) => one !== null),
      sun: { towards, irradiance: sends, radius: light.sun?.radius ?? FAINT_RADIUS },
      sky: light.lights.map(({ towards: from, irradiance }) => ({
        towards: turned(from, -turn),
        irradiance: scaled(irradiance, around.strength),
      })),
      harmonics: light.harmonics,
      below: light.below,
    };
    return () => {
      keyLight.now = null;
    };
  });
  return (
    <>
      <directionalLight
        ref={key}
        // A light that casts shadows is another one for the programs of the graphics card.
        key={reach ?? 'alone'}
        castShadow={reach !== null}
        shadow-mapSize={[edge, edge]}
        shadow-radius={SOFT}
        shadow-normalBias={OFF_SURFACE}
        position={scaled(towards, LIGHT_AWAY)}
        color={colour}
        intensity={1}
      >
        {reach !== null && <SunShadow reach={reach} />}
      </directionalLight>
      {lamps.map((lamp, k) => (
        <directionalLight
          // biome-ignore lint/suspicious/noArrayIndexKey: lamps have no name but their place
          key={k}
          ref={(one) => {
            lampLights.current[k] = one;
          }}
          position={placeOf(lamp, LIGHT_AWAY)}
          intensity={lamp.strength * lampUnit}
          color={lamp.colour}
        />
      ))}
    </>
  );
}
