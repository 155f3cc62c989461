import { useEffect, useMemo } from 'react';
import * as THREE from 'three';

/** Luminance Y of the steps, from the left: one stop apart, with the grey card in the middle. */
export const GREY_STEPS = [0.045, 0.09, 0.18, 0.36, 0.72] as const;

const WIDE = 2 / GREY_STEPS.length;
const HIGH = 0.3;
const GAP = 0.04;

/** Flat steps of known grey above the slab, under the same white light. */
export function GreySteps() {
  const geometry = useMemo(() => new THREE.PlaneGeometry(WIDE, HIGH), []);
  const materials = useMemo(
    () =>
      GREY_STEPS.map((y) => {
        const material = new THREE.MeshLambertMaterial({ toneMapped: false });
        material.color.setRGB(y, y, y);
        return material;
      }),
    [],
  );
  useEffect(
    () => () => {
      geometry.dispose();
      for (const material of materials) material.dispose();
    },
    [geometry, materials],
  );
  return (
    <>
      {materials.map((material, k) => (
        <mesh
          key={material.uuid}
          geometry={geometry}
          material={material}
          position={[-1 + (k + 0.5) * WIDE, 1 + GAP + HIGH / 2, 0]}
        />
      ))}
    </>
  );
}

/** How much of the light comes from all sides; the rest comes from the sun, so that relief is still seen. */
const ROUND = 0.4;

/** White light under which a level surface looks as bright as its reflectance. */
export function WhiteLight({ turn, rise }: { turn: number; rise: number }) {
  const [a, b] = [(turn * Math.PI) / 180, (rise * Math.PI) / 180];
  const flat = Math.cos(b);
  return (
    <>
      <ambientLight intensity={Math.PI * ROUND} color="#ffffff" />
      <directionalLight
        position={[6 * Math.sin(a) * flat, 6 * Math.cos(a) * flat, 6 * Math.sin(b)]}
        intensity={(Math.PI * (1 - ROUND)) / Math.max(0.2, Math.sin(b))}
        color="#ffffff"
      />
    </>
  );
}
