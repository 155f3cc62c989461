import { useThree } from '@react-three/fiber';
import { useEffect } from 'react';
import * as THREE from 'three';
import { ARROWS } from '../floor/arrows.ts';
import type { Controls } from './viewpoint.tsx';

/** Radians, and the ratio of distances, by a press. */
const TURN = Math.PI / 36;
const FARTHER = 1.1;
const RATIOS: Record<string, number> = { '+': 1 / FARTHER, '=': 1 / FARTHER, '-': FARTHER };

/** Moves the viewer by keys as dragging and the wheel do, while the lit view has the focus. */
export function TurnByKeys() {
  const { camera, gl } = useThree();
  const controls = useThree((state) => state.controls) as unknown as Controls | null;
  useEffect(() => {
    const canvas = gl.domElement;
    canvas.tabIndex = 0;
    canvas.role = 'img';
    canvas.ariaLabel = 'Lit view: arrow keys turn it, + and − move nearer and farther';
  }, [gl]);
  useEffect(() => {
    const canvas = gl.domElement;
    const onKey = (event: KeyboardEvent) => {
      const way = ARROWS[event.key];
      const farther = RATIOS[event.key];
      if (!controls || (!way && !farther) || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      const from = new THREE.Spherical().setFromVector3(camera.position.sub(controls.target));
      from.theta -= TURN * (way?.[0] ?? 0);
      from.phi -= TURN * (way?.[1] ?? 0);
      from.radius *= farther ?? 1;
      camera.position.setFromSpherical(from.makeSafe()).add(controls.target);
      controls.update();
    };
    canvas.addEventListener('keydown', onKey);
    return () => canvas.removeEventListener('keydown', onKey);
  }, [camera, controls, gl]);
  return null;
}
