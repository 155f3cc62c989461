import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import { mergeGeometries } from 'three/examples/jsm/utils/BufferGeometryUtils.js';
import { litMaterial } from './light/lit-by.ts';

/** Of a grown person, in metres; and of the cube. */
const TALL = 1.7;
const CUBE = 0.1;

/** A plain person of 1.7 m, standing on the origin, up along y. */
function person(): THREE.BufferGeometry {
  const ball = (radius: number, at: [number, number, number], squash: [number, number, number] = [1, 1, 1]) =>
    new THREE.SphereGeometry(radius, 20, 14).scale(...squash).translate(...at);
  const limb = (radius: number, length: number, at: [number, number, number], lean = 0) =>
    new THREE.CapsuleGeometry(radius, length, 6, 14).rotateZ(lean).translate(...at);
  const pieces = [
    ball(0.105, [0, TALL - 0.125, 0], [0.85, 1.19, 0.95]),
    limb(0.05, 0.06, [0, 1.42, 0]),
    ball(0.2, [0, 1.2, 0], [0.95, 1.05, 0.6]),
    ball(0.17, [0, 0.95, 0], [0.95, 0.95, 0.65]),
    limb(0.045, 0.52, [-0.23, 1.07, 0], -0.12),
    limb(0.045, 0.52, [0.23, 1.07, 0], 0.12),
    limb(0.07, 0.72, [-0.095, 0.45, 0]),
    limb(0.07, 0.72, [0.095, 0.45, 0]),
  ];
  const whole = mergeGeometries(pieces);
  for (const piece of pieces) piece.dispose();
  return whole;
}

/** A figure of 1.7 m and a cube of 10 cm in one draw, so that the eye has a measure. */
export function ScaleFigures({
  at,
  perMetre,
}: {
  at: [number, number, number];
  /** Units of the view for each metre. */
  perMetre: number;
}) {
  const geometry = useMemo(() => {
    const cube = new THREE.BoxGeometry(CUBE, CUBE, CUBE).translate(-0.3, CUBE / 2, 0.38);
    const someone = person();
    const both = mergeGeometries([someone, cube]);
    someone.dispose();
    cube.dispose();
    return both;
  }, []);
  const material = useMemo(() => litMaterial({ color: '#b9b4aa', roughness: 0.85 }), []);
  useEffect(
    () => () => {
      geometry.dispose();
      material.dispose();
    },
    [geometry, material],
  );
  return (
    <mesh
      geometry={geometry}
      material={material}
      position={at}
      scale={perMetre}
      name="figure"
      castShadow
      receiveShadow
    />
  );
}
