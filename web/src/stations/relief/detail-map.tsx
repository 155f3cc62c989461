import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { SettingValue } from '@zesty-tile/core';
import { PickPicture } from '../../api/pick-picture.tsx';
import { useDials } from '../../bench/dials/use-dials.ts';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { GREY } from '../../theme.ts';
import { GreenQuestion } from '../source/green-question.tsx';

/** The given detail normal: which file, and where its green points. */
export function DetailMap() {
  const { detailFrom, detailMap, detailGreen } = useDials('relief', 'detailFrom', 'detailMap', 'detailGreen');
  if (detailFrom !== 'given') return null;
  const put = (values: Record<string, SettingValue>) => useBench.getState().setDials('relief', values, '');
  return (
    <Box component="section" aria-label="Detail normal map" sx={{ display: 'grid', gap: 0.75 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <span style={{ color: GREY.soft, flex: 1, overflow: 'hidden', textOverflow: 'ellipsis' }}>
          {detailMap ? (detailMap.name ?? 'Given') : 'No detail map yet.'}
        </span>
        <PickPicture
          words={detailMap ? 'Another' : 'Give a normal map that tiles'}
          label="Detail normal map file"
          onPicture={({ sha256, width, height, name }) => put({ detailMap: { sha256, width, height, name } })}
        />
        {detailMap && (
          <Button sx={pressable(false)} onClick={() => put({ detailMap: null })}>
            Remove
          </Button>
        )}
      </Box>
      {detailMap && (
        <GreenQuestion
          sha256={detailMap.sha256}
          value={detailGreen}
          onChange={(way) => put({ detailGreen: way })}
        />
      )}
    </Box>
  );
}
