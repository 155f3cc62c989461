import { OrbitControls } from '@react-three/drei';
import { useThree } from '@react-three/fiber';
import { useEffect } from 'react';
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
interface Controls {
  target: THREE.Vector3;
  update(): void;
}

const useAspect = (): number => {
  const size = useThree((state) => state.size);
  const isHalved = useSill((s) => s.beside !== null && s.split === 'halves');
  return size.width / (isHalved ? 2 : 1) / Math.max(1, size.height);
};

/** Sets the camera so that the shape fills the view, whatever the view's shape; the user moves it from there. */
export function Stance({ stand }: { stand: Stand }) {
  const { camera, invalidate } = useThree();
  const controls = useThree((state) => state.controls) as unknown as Controls | null;
  const aspect = useAspect();
  useEffect(() => {
    const { eye, at } = standing(stand, aspect);
    camera.position.set(...eye);
    camera.lookAt(...at);
    controls?.target.set(...at);
    controls?.update();
    invalidate();
  }, [camera, controls, aspect, stand, invalidate]);
  return null;
}

/** Puts the viewer where a place is looked at from. `unit` is the length of a metre, `floor` where the floor is. */
function Outlook({ lookout: { eye, at }, unit, floor }: { lookout: Lookout; unit: number; floor: number }) {
  const { camera, invalidate } = useThree();
  const controls = useThree((state) => state.controls) as unknown as Controls | null;
  const aspect = useAspect();
  useEffect(() => {
    const back = Math.max(1, WIDE_ENOUGH / aspect);
    const place = (k: number) => unit * (at[k] + (eye[k] - at[k]) * back + (k === 1 ? floor : 0));
    camera.position.set(place(0), place(1), place(2));
    const target = at.map((value, k) => unit * (value + (k === 1 ? floor : 0))) as [number, number, number];
    camera.lookAt(...target);
    controls?.target.set(...target);
    controls?.update();
    invalidate();
  }, [camera, controls, aspect, eye, at, unit, floor, invalidate]);
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
      : { minPolarAngle: 0.05, maxPolarAngle: 1.72 };
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
