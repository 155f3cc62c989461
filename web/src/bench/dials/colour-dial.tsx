import Button from '@mui/material/Button';
import { type DataSetting, hexOfLinear } from '@zesty-tile/core';
import { ColourField } from '../../palettes/colour-field.tsx';
import { usePalettes } from '../../palettes/use-palettes.ts';
import { FIGURES, GREY } from '../../theme.ts';
import { endPick, startPick } from '../floor/use-pick.ts';
import { pressable } from '../pressed.ts';
import { useBench } from '../state.ts';
import { DialRow } from './dial-row.tsx';

interface ColourDialProps {
  setting: DataSetting;
  value: string;
  onChange(value: string): void;
}

/** One row for a colour: chosen freely, or from the project's palettes. */
export function ColourDial({ setting, value, onChange }: ColourDialProps) {
  const { data: palettes } = usePalettes(useBench((s) => s.projectId));
  return (
    <DialRow
      setting={setting}
      changed={value !== setting.default}
      onReset={() => onChange(setting.default)}
      columns="auto 1fr auto"
    >
      <ColourField
        label={setting.label}
        hex={value}
        offered={(palettes ?? []).flatMap((one) => one.colours)}
        onHex={onChange}
      />
      <span style={{ font: `12px ${FIGURES}`, color: GREY.soft }}>{value}</span>
      <Button
        sx={pressable(false)}
        aria-label={`Pick ${setting.label} from the tile`}
        onClick={() =>
          startPick({
            words: `Press on the colour for “${setting.label}”`,
            view: 'joined',
            take: ({ values }) => {
              endPick();
              onChange(hexOfLinear(values));
            },
          })
        }
      >
        Pick
      </Button>
    </DialRow>
  );
}
