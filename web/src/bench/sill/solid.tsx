import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import type { ShownMaps } from '../../engine/protocol.ts';
import { useBench } from '../state.ts';
import { Ground } from './ground.tsx';
import { isLit } from './material/look.ts';
import { ScaleFigures } from './scale-figures.tsx';
import { GROUNDS, IS_WHOLE, repeatsOf, shapeOf, TILE_EDGE, TURNED } from './shapes.ts';
import { isSoftware } from './software.ts';
import { type SillMap, useSill } from './state.ts';
import { Surface } from './surface.tsx';

/** The chosen shape, made here or one's own, on a piece of ground under a tile's maps. */
export function Solid({ maps, without }: { maps: ShownMaps; without: readonly SillMap[] }) {
  const gl = useThree((state) => state.gl);
  const density = useMemo(() => (isSoftware(gl.getContext()) ? 0.35 : 1), [gl]);
  const { own, times, scale, show } = useSill();
  const chosen = useSill((s) => s.shape);
  const shape = chosen === 'scene' || chosen === 'field' || (chosen === 'own' && !own) ? 'ball' : chosen;
  const edgeMetres = useBench((s) => s.recipe.stations.square.edgeMetres);
  const geometry = useMemo(
    () => (shape === 'own' ? own!.geometry.clone() : shapeOf(shape, density)),
    [shape, own, density],
  );
  useEffect(() => () => geometry.dispose(), [geometry]);
  const edge = (shape === 'own' ? own!.edge : TILE_EDGE[shape]) / times;
  const { y, figure } = GROUNDS[shape];
  return (
    <>
      {isLit(show) && show !== 'sheen' && <Ground y={y} />}
      <group rotation-y={TURNED[shape]}>
        <Surface
          maps={maps}
          geometry={geometry}
          repeat={repeatsOf(shape, times)}
          edge={edge}
          isWhole={IS_WHOLE[shape]}
          without={without}
        />
      </group>
      {scale && <ScaleFigures at={[figure[0], y, figure[1]]} perMetre={edge / edgeMetres} />}
    </>
  );
}
