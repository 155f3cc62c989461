import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import type { ShownMaps } from '../../engine/protocol.ts';
import { useBench } from '../state.ts';
import { ScaleFigures } from './scale-figures.tsx';
import { GROUNDS, IS_WHOLE, repeatsOf, shapeOf, TILE_EDGE, TURNED } from './shapes.ts';
import { isSoftware } from './software.ts';
import { useSill } from './state.ts';
import { Surface } from './surface.tsx';

/** The chosen shape, made here or one's own, under a tile's maps. */
export function Solid({ maps, albedoAlone = false }: { maps: ShownMaps; albedoAlone?: boolean }) {
  const gl = useThree((state) => state.gl);
  const density = useMemo(() => (isSoftware(gl.getContext()) ? 0.35 : 1), [gl]);
  const { own, times, scale } = useSill();
  const chosen = useSill((s) => s.shape);
  const shape = chosen === 'scene' || (chosen === 'own' && !own) ? 'ball' : chosen;
  const edgeMetres = useBench((s) => s.recipe.stations.square.edgeMetres);
  const geometry = useMemo(
    () => (shape === 'own' ? own!.geometry.clone() : shapeOf(shape, density)),
    [shape, own, density],
  );
  useEffect(() => () => geometry.dispose(), [geometry]);
  const edge = (shape === 'own' ? own!.edge : TILE_EDGE[shape]) / times;
  return (
    <>
      <group rotation-y={TURNED[shape]}>
        <Surface
          maps={maps}
          geometry={geometry}
          repeat={repeatsOf(shape, times)}
          edge={edge}
          isWhole={IS_WHOLE[shape]}
          albedoAlone={albedoAlone}
        />
      </group>
      {scale && <ScaleFigures {...GROUNDS[shape]} perMetre={edge / edgeMetres} />}
    </>
  );
}
