import Button from '@mui/material/Button';
import { number } from '@zesty-tile/core';
import { ColourField } from '../../../palettes/colour-field.tsx';
import { usePalettes } from '../../../palettes/use-palettes.ts';
import { NumberDial } from '../../dials/number-dial.tsx';
import { pressable } from '../../pressed.ts';
import { useBench } from '../../state.ts';
import { useSill } from '../state.ts';
import { type Lamp, MOST_LAMPS, newLamp } from './rig.ts';

const STRENGTH = number({
  label: 'Strength',
  help: 'How strong this light is.',
  default: 1.5,
  min: 0,
  max: 10,
  step: 0.1,
  unit: '×',
});

/** The lights beside the sun: each with its colour and strength; the disc moves the chosen one. */
export function LampRows() {
  const { lamps, chosenLight } = useSill();
  const { data: palettes } = usePalettes(useBench((s) => s.projectId));
  const put = (at: number, values: Partial<Lamp>) =>
    useSill.setState({ lamps: lamps.map((lamp, k) => (k === at ? { ...lamp, ...values } : lamp)) });
  return (
    <>
      {lamps.map((lamp, k) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: lamps have no name but their place
        <div key={k}>
          <div style={{ display: 'flex', alignItems: 'center', gap: 8, minHeight: 34 }}>
            <ColourField
              label={`Colour of light ${k + 1}`}
              hex={lamp.colour}
              offered={(palettes ?? []).flatMap((one) => one.colours)}
              onHex={(colour) => put(k, { colour })}
            />
            <span style={{ flex: 1 }}>Light {k + 1}</span>
            <Button
              aria-pressed={chosenLight === k}
              sx={pressable(chosenLight === k)}
              onClick={() => useSill.setState({ chosenLight: chosenLight === k ? 'sun' : k })}
            >
              Edit on disc
            </Button>
            <Button
              sx={pressable(false)}
              aria-label={`Remove light ${k + 1}`}
              onClick={() =>
                useSill.setState({ lamps: lamps.filter((_, other) => other !== k), chosenLight: 'sun' })
              }
            >
              Remove
            </Button>
          </div>
          <NumberDial
            setting={STRENGTH}
            value={lamp.strength}
            onChange={(strength) => put(k, { strength })}
          />
        </div>
      ))}
      {lamps.length < MOST_LAMPS && (
        <Button
          sx={pressable(false)}
          onClick={() =>
            useSill.setState({ lamps: [...lamps, newLamp(lamps.length)], chosenLight: lamps.length })
          }
        >
          Add a light
        </Button>
      )}
    </>
  );
}
