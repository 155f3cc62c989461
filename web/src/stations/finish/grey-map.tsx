import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { type SettingValue, STATIONS } from '@zesty-tile/core';
import { PickPicture } from '../../api/pick-picture.tsx';
import { ChoiceDial } from '../../bench/dials/choice-dial.tsx';
import { NumberDial } from '../../bench/dials/number-dial.tsx';
import { Section } from '../../bench/dials/section.tsx';
import { useDials } from '../../bench/dials/use-dials.ts';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { GREY } from '../../theme.ts';

const { grey, greyCount, greyQuarters } = STATIONS.finish.settings;

/** A grey picture that tiles, laid into the roughness. */
export function GreyMap() {
  const finish = useDials('finish', 'greyMap', 'grey', 'greyCount', 'greyQuarters');
  const { greyMap } = finish;
  const put = (values: Record<string, SettingValue>, gesture = '') =>
    useBench.getState().setDials('finish', values, gesture);
  return (
    <Section station="finish" id="grey-map" title="Grey map" open={greyMap !== null}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <span style={{ color: GREY.soft, flex: 1, overflow: 'hidden', textOverflow: 'ellipsis' }}>
          {greyMap ? (greyMap.name ?? 'Given') : 'Smears, scratches: a grey picture that tiles.'}
        </span>
        <PickPicture
          words={greyMap ? 'Another' : 'Give one'}
          label="Grey map file"
          onPicture={({ sha256, width, height, name }) => put({ greyMap: { sha256, width, height, name } })}
        />
        {greyMap && (
          <Button sx={pressable(false)} onClick={() => put({ greyMap: null })}>
            Remove
          </Button>
        )}
      </Box>
      {greyMap && (
        <>
          <NumberDial setting={grey} value={finish.grey} onChange={(value) => put({ grey: value }, 'grey')} />
          <NumberDial
            setting={greyCount}
            value={finish.greyCount}
            onChange={(value) => put({ greyCount: value }, 'grey count')}
          />
          <ChoiceDial
            setting={greyQuarters}
            value={finish.greyQuarters}
            onChange={(value) => put({ greyQuarters: value })}
          />
        </>
      )}
    </Section>
  );
}
