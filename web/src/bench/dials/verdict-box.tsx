import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { isRemedied, type Remedy, type StationName, withProposed } from '@zesty-tile/core';
import { STATION_VIEWS } from '../../stations/index.ts';
import { GREY } from '../../theme.ts';
import { SIGN, STATE_COLOUR } from '../../verdict.tsx';
import { useBench } from '../state.ts';

/** Changes all settings of a remedy as one step. */
function apply({ settings, words }: Remedy): void {
  const { recipe, replaceRecipe } = useBench.getState();
  const changes = settings.map(({ station, key, value }) => ({
    station: station as StationName,
    key,
    before: undefined,
    after: value,
  }));
  replaceRecipe(withProposed(recipe, changes), words);
}

/** What the station measured about its own result, and what to do about it. */
export function VerdictBox({ station }: { station: StationName }) {
  const verdict = useBench((s) => s.found[station]?.verdict);
  const stations = useBench((s) => s.recipe.stations);
  // As high from the beginning as what is fine takes, so that nothing under it moves once it is measured.
  const box = {
    bgcolor: GREY.card,
    border: `1px solid ${GREY.line}`,
    borderLeft: `4px solid ${verdict ? STATE_COLOUR[verdict.state] : GREY.line}`,
    borderRadius: 1,
    px: 1.5,
    py: 1,
    lineHeight: 1.45,
    flexShrink: 0,
    minHeight: 'calc(3lh + 18px)',
  };
  if (!verdict) return <Box sx={{ ...box, color: GREY.soft }}>Measuring …</Box>;
  const remedy = verdict.remedies?.find((one) => !isRemedied(one, stations as never));
  const { Remedy } = STATION_VIEWS[station];
  return (
    <Box role="status" sx={box}>
      <span style={{ color: STATE_COLOUR[verdict.state], fontWeight: 700 }}>{SIGN[verdict.state]} </span>
      {verdict.sentence}
      {(verdict.advice || remedy) && (
        <Box sx={{ mt: 0.5, fontWeight: 600 }}>
          {[verdict.advice, remedy?.advice].filter(Boolean).join(' ')}
        </Box>
      )}
      {(remedy || (Remedy && verdict.state !== 'fine')) && (
        <Box sx={{ mt: 0.75, display: 'flex', gap: 1 }}>
          {remedy && (
            <Button variant="outlined" size="small" onClick={() => apply(remedy)}>
              {remedy.words}
            </Button>
          )}
          {Remedy && verdict.state !== 'fine' && <Remedy />}
        </Box>
      )}
    </Box>
  );
}
