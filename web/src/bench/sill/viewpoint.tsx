import { OrbitControls } from '@react-three/drei';
import { useThree } from '@react-three/fiber';
import { useEffect, useRef } from 'react';
import * as THREE from 'three';
import { DISTANCES, LOOKOUTS, type Lookout } from './lookouts.ts';
import { FLOOR_AT, PER_METRE } from './scene/parts.ts';
import { STANCES, type Stand, standing } from './stances.ts';
import { useSill } from './state.ts';

/** The right button turns the shape too: while the brush is selected the left one paints on it. */
const TURNING_BUTTONS = { LEFT: THREE.MOUSE.ROTATE, MIDDLE: THREE.MOUSE.DOLLY, RIGHT: THREE.MOUSE.ROTATE };
/** A place is looked at through a view at least this wide beside its height; in a narrower one the viewer steps back. */
const WIDE_ENOUGH = 1.15;

/** What turns the camera by hand. */
export interface Controls {
  target: THREE.Vector3;
  update(): void;
}

const useAspect = (): number => {
  const size = useThree((state) => state.size);
  const isHalved = useSill((s) => s.beside !== null && s.split === 'halves');
  return size.width / (isHalved ? 2 : 1) / Math.max(1, size.height);
};

type Point = [number, number, number];

/** Where the viewer was put last: looking at what, from how far away, and where that has led. */
interface Placed {
  of: Stand | Lookout;
  controls: Controls | null;
  returns: number;
  away: number;
  eye: THREE.Vector3;
  /** Whether it was moved by hand since. */
  isMoved: boolean;
}
/** A share of the distance within which nobody has moved the viewer. */
const UNMOVED = 1e-3;

/**
 * Puts the viewer where something is looked at from. When only the view's width changes, what was turned by hand stays, nearer
 * or farther away in the same ratio.
 */
function usePlaced(of: Stand | Lookout, eye: Point, at: Point): void {
  const { camera, invalidate } = useThree();
  const controls = useThree((state) => state.controls) as unknown as Controls | null;
  const returns = useSill((s) => s.returns);
  const placed = useRef<Placed>(null);
  const [eyeX, eyeY, eyeZ] = eye;
  const [atX, atY, atZ] = at;
  useEffect(() => {
    const [from, to] = [new THREE.Vector3(eyeX, eyeY, eyeZ), new THREE.Vector3(atX, atY, atZ)];
    const away = from.distanceTo(to);
    const last = placed.current;
    const isSame = last?.of === of && last.controls === controls && last.returns === returns;
    // Limits of the controls may have brought the viewer nearer than was asked for: that is no move by hand.
    const isMoved = isSame && (last.isMoved || camera.position.distanceTo(last.eye) > UNMOVED * away);
    if (isMoved && controls) {
      camera.position
        .sub(controls.target)
        .multiplyScalar(away / last.away)
        .add(controls.target);
    } else {
      camera.position.copy(from);
      camera.lookAt(to);
      controls?.target.copy(to);
    }
    controls?.update();
    placed.current = { of, controls, returns, away, isMoved, eye: camera.position.clone() };
    invalidate();
  }, [camera, controls, returns, of, eyeX, eyeY, eyeZ, atX, atY, atZ, invalidate]);
}

/** Sets the camera so that the shape fills the view, whatever the view's width; the user moves it from there. */
export function Stance({ stand }: { stand: Stand }) {
  const { eye, at } = standing(stand, useAspect());
  usePlaced(stand, eye, at);
  return null;
}

/** Puts the viewer where a place is looked at from. `unit` is the length of a metre, `floor` where the floor is. */
function Outlook({ lookout, unit, floor }: { lookout: Lookout; unit: number; floor: number }) {
  const { eye, at } = lookout;
  const back = Math.max(1, WIDE_ENOUGH / useAspect());
  const inUnits = (of: (k: number) => number) =>
    [0, 1, 2].map((k) => unit * (of(k) + (k === 1 ? floor : 0))) as Point;
  usePlaced(
    lookout,
    inUnits((k) => at[k] + (eye[k] - at[k]) * back),
    inUnits((k) => at[k]),
  );
  return null;
}

/** Where the chosen shape or place is looked at from. */
export function Viewpoint() {
  const { shape, lookout, distance } = useSill();
  if (shape === 'scene') return <Outlook lookout={LOOKOUTS[lookout]} unit={PER_METRE} floor={FLOOR_AT} />;
  if (shape === 'field') return <Outlook lookout={DISTANCES[distance]} unit={1} floor={0} />;
  return <Stance stand={STANCES[shape]} />;
}

/** How far the camera is turned by hand: never under the ground, and in the scene never behind its walls. */
export function Orbit() {
  const { shape } = useSill();
  const isScene = shape === 'scene';
  const limits =
    isScene || shape === 'field'
      ? { minPolarAngle: 0.7, maxPolarAngle: isScene ? 1.6 : 1.52 }
      : { minPolarAngle: 0.05, maxPolarAngle: 1.6 };
  return (
    <OrbitControls
      makeDefault
      enablePan={false}
      minDistance={isScene ? 1 : 0.4}
      maxDistance={isScene ? 5.6 : shape === 'field' ? 160 : 14}
      minAzimuthAngle={isScene ? -0.7 : Number.NEGATIVE_INFINITY}
      maxAzimuthAngle={isScene ? 0.7 : Number.POSITIVE_INFINITY}
      mouseButtons={TURNING_BUTTONS}
      {...limits}
    />
  );
}
