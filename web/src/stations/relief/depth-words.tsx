import Box from '@mui/material/Box';
import { useBench } from '../../bench/state.ts';
import { useReliefDepth } from '../../bench/use-depth.ts';
import { FIGURES } from '../../theme.ts';

/** The depth as a renderer wants it typed in: as a share of the tile's edge. */
export function DepthWords() {
  const depthMm = useReliefDepth();
  const edgeMetres = useBench((s) => s.recipe.stations.square.edgeMetres);
  const share = depthMm / 1000 / edgeMetres;
  return (
    <Box data-testid="depth-share">
      {Number(depthMm.toFixed(2))} mm over {edgeMetres} m: height scale{' '}
      <Box component="strong" sx={{ fontFamily: FIGURES, fontSize: 12.5, userSelect: 'all' }}>
        {share.toFixed(5)}
      </Box>{' '}
      of the edge.
    </Box>
  );
}
