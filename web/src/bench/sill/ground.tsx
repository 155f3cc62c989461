import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import { litMaterial } from './light/lit-by.ts';

/** As far as the ground is whole, and where it has faded away, in units of the view. */
const WHOLE = 1.7;
const GONE = 4.6;
/** Neutral, a little brighter than the grey card. */
const REFLECTANCE = 0.2;

/** A round piece of even ground under a shape, which takes its shadow and fades away to all sides. */
export function Ground({ y }: { y: number }) {
  const geometry = useMemo(() => {
    const made = new THREE.RingGeometry(0, GONE, 64, 28);
    const place = made.getAttribute('position');
    const colours = new Float32Array(4 * place.count);
    for (let i = 0; i < place.count; i++) {
      const t = Math.min(1, Math.max(0, (Math.hypot(place.getX(i), place.getY(i)) - WHOLE) / (GONE - WHOLE)));
      colours.set([1, 1, 1, 1 - t * t * (3 - 2 * t)], 4 * i);
    }
    made.setAttribute('color', new THREE.BufferAttribute(colours, 4));
    return made.rotateX(-Math.PI / 2);
  }, []);
  const material = useMemo(() => {
    const made = litMaterial({ roughness: 0.55, vertexColors: true, transparent: true });
    made.color.setScalar(REFLECTANCE);
    return made;
  }, []);
  useEffect(
    () => () => {
      geometry.dispose();
      material.dispose();
    },
    [geometry, material],
  );
  return <mesh name="ground" geometry={geometry} material={material} position-y={y} receiveShadow />;
}
