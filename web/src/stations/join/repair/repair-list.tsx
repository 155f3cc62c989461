import CloseIcon from '@mui/icons-material/Close';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { type Repair, repairPlace, repairWords } from '@zesty-tile/core';
import { useBench } from '../../../bench/state.ts';
import { FIGURES, GREY } from '../../../theme.ts';
import { removeAllRepairs, removeRepair, useRepair } from './use-repair.ts';

function placeOf(repair: Repair): string {
  const [u, v] = repairPlace(repair);
  const percent = (value: number) => `${Math.round(100 * (value - Math.floor(value)))} %`;
  return `${percent(u)} across, ${percent(v)} down`;
}

/** All repairs, the last first; each can be removed by itself. */
export function RepairList() {
  const repairs = useBench((s) => s.recipe.stations.join.repairs);
  if (repairs.length === 0) return null;
  return (
    <Box>
      <Box sx={{ display: 'flex', alignItems: 'center' }}>
        <span style={{ color: GREY.soft }}>
          {repairs.length === 1 ? '1 repair' : `${repairs.length} repairs`}, the last first
        </span>
        <Button size="small" sx={{ ml: 'auto' }} onClick={removeAllRepairs}>
          Remove all
        </Button>
      </Box>
      <Box
        component="ol"
        aria-label="Repairs"
        sx={{
          m: 0,
          p: 0,
          listStyle: 'none',
          maxHeight: 176,
          overflowY: 'auto',
          bgcolor: GREY.card,
          borderRadius: 1,
        }}
      >
        {repairs
          .map((repair, k) => (
            <Box
              component="li"
              // biome-ignore lint/suspicious/noArrayIndexKey: a repair is known by its place in the order
              key={k}
              onPointerEnter={() => useRepair.setState({ marked: k })}
              onPointerLeave={() => useRepair.setState({ marked: null })}
              sx={{ display: 'flex', alignItems: 'center', pl: 1, '&:hover': { bgcolor: GREY.sheet } }}
            >
              <span>
                {k + 1} {repairWords(repair)}
              </span>
              <span style={{ marginLeft: 'auto', font: `12px ${FIGURES}`, color: GREY.soft }}>
                {placeOf(repair)}
              </span>
              <IconButton
                size="small"
                aria-label={`Remove repair ${k + 1}`}
                onClick={() => {
                  useRepair.setState({ marked: null });
                  removeRepair(k);
                }}
              >
                <CloseIcon fontSize="small" />
              </IconButton>
            </Box>
          ))
          .reverse()}
      </Box>
    </Box>
  );
}
