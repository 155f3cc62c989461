import { useEffect, useMemo } from 'react';
import type * as THREE from 'three';
import type { ScenePart } from './parts.ts';

/** Something of a place that no tile lies on. */
export interface Piece {
  geometry: THREE.BufferGeometry;
  /** Its picture, if it has one, belongs to it. */
  material: THREE.MeshPhysicalMaterial;
  casts: boolean;
  receives: boolean;
  /** The part that a tile dropped here goes to. */
  part?: ScenePart;
}

/** Makes pieces once and frees them when they are no longer drawn; `make` stays the same. */
export function Pieces({ make }: { make(): Piece[] }) {
  const pieces = useMemo(make, [make]);
  useEffect(
    () => () => {
      for (const { geometry, material } of pieces) {
        geometry.dispose();
        material.map?.dispose();
        material.dispose();
      }
    },
    [pieces],
  );
  return (
    <>
      {pieces.map(({ geometry, material, casts, receives, part }) => (
        <mesh
          key={material.uuid}
          name={part}
          geometry={geometry}
          material={material}
          castShadow={casts}
          receiveShadow={receives}
        />
      ))}
    </>
  );
}
