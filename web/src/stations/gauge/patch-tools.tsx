import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { type GaugeDecision, number, type Patch } from '@zesty-tile/core';
import { NumberDial } from '../../bench/dials/number-dial.tsx';
import { Section } from '../../bench/dials/section.tsx';
import { useDials } from '../../bench/dials/use-dials.ts';
import { endPick, startPick } from '../../bench/floor/use-pick.ts';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { CARD, FIGURES, GREY } from '../../theme.ts';
import { setPatches } from './use-gauge.ts';

const MOST = 24;
const CARD_GREY = 0.18;
const RADIUS = 0.02;

const REFLECTANCE = number({
  label: 'Reflectance',
  help: 'Luminance Y of the real patch: a grey card has 0.18.',
  default: CARD_GREY,
  min: 0.01,
  max: 1,
  step: 0.005,
  unit: 'Y',
});
const SIZE = number({
  label: 'Radius',
  help: 'Radius of the patch, as a share of the photo’s shorter side.',
  default: RADIUS,
  min: 0.002,
  max: 0.25,
  step: 0.002,
  unit: '',
});

const signed = (share: number) => `${share < 0 ? '−' : '+'}${Math.abs(100 * share).toFixed(1)} %`;

/** Patches of known reflectance in the photo, which set exposure and white. */
export function PatchTools() {
  const { patches, fitBy } = useDials('gauge', 'patches', 'fitBy');
  const decided = useBench((s) => s.recipe.decisions.gauge?.data as GaugeDecision | undefined);
  const isOn = fitBy === 'patches';
  const fit = isOn ? decided?.patches : null;
  const put = (k: number, next: Partial<Patch>, gesture: string) =>
    setPatches(
      patches.map((one, at) => (at === k ? { ...one, ...next } : one)),
      `patch ${k} ${gesture}`,
    );
  const pick = () =>
    startPick({
      words: 'Press on the grey card, or on a patch whose value is known',
      view: 'photo',
      take: ({ at: [x, y] }) => {
        endPick(true);
        const last = patches.at(-1);
        const patch = { x, y, radius: last?.radius ?? RADIUS, reflectance: last?.reflectance ?? CARD_GREY };
        useBench.getState().setDials('gauge', { patches: [...patches, patch], fitBy: 'patches' }, '');
      },
    });
  return (
    <Section station="gauge" id="known-patches" title="Known patches" open={patches.length > 0}>
      <Box sx={{ display: 'grid', gap: 0.75 }}>
        {patches.length === 0 && (
          <Typography color="text.secondary">
            A grey card in the photo sets exposure and white balance exactly.
          </Typography>
        )}
        {patches.map((patch, k) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: patches have no identity but their place
          <Box key={k} sx={{ ...CARD, gap: 0.25 }} role="group" aria-label={`Patch ${k + 1} in the photo`}>
            <Box sx={{ display: 'flex', alignItems: 'center' }}>
              <strong>Patch {k + 1}</strong>
              <span style={{ font: `12px ${FIGURES}`, color: GREY.soft, marginLeft: 10 }}>
                {fit?.errors[k] !== undefined && patches.length > 1 ? `${signed(fit.errors[k])} off` : ''}
              </span>
              <Button
                variant="text"
                sx={{ ml: 'auto', minWidth: 0 }}
                aria-label={`Remove patch ${k + 1}`}
                onClick={() => setPatches(patches.filter((_one, at) => at !== k))}
              >
                Remove
              </Button>
            </Box>
            <NumberDial
              setting={REFLECTANCE}
              value={patch.reflectance}
              onChange={(reflectance) => put(k, { reflectance }, 'reflectance')}
            />
            <NumberDial
              setting={SIZE}
              value={patch.radius}
              onChange={(radius) => put(k, { radius }, 'radius')}
            />
          </Box>
        ))}
        <Button
          sx={{ ...pressable(false), justifySelf: 'start' }}
          disabled={patches.length >= MOST}
          onClick={pick}
        >
          Pick one in the photo
        </Button>
        {patches.length > 0 && !isOn && (
          <Button
            sx={{ ...pressable(false), justifySelf: 'start' }}
            onClick={() => useBench.getState().setDial('gauge', 'fitBy', 'patches')}
          >
            Fit by these patches
          </Button>
        )}
      </Box>
    </Section>
  );
}
