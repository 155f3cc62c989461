import Box from '@mui/material/Box';
import Slider from '@mui/material/Slider';
import type { NumberSetting } from '@zesty-tile/core';
import { type KeyboardEvent, useEffect, useState } from 'react';
import { FIGURES, GREY } from '../../theme.ts';
import { DialName } from './dial-name.tsx';
import { decimalsOf, onStep, placeOf, valueAt } from './scale.ts';
import { useSteady } from './use-steady.ts';

interface NumberDialProps {
  setting: NumberSetting;
  /** What is in the place of its name. */
  words?: string;
  value: number;
  onChange(value: number): void;
}

const shownFigure = (value: number, step: number) => value.toFixed(decimalsOf(step)).replace('-', '−');
const readFigure = (text: string) => Number(text.trim().replace('−', '-').replace(',', '.'));

const SLIDER = {
  color: GREY.ink,
  '& .MuiSlider-rail': { bgcolor: GREY.soft, opacity: 0.6 },
  '& .MuiSlider-thumb': {
    width: 12,
    height: 12,
    borderRadius: '3px',
    bgcolor: GREY.card,
    border: `2px solid ${GREY.ink}`,
  },
  '& .MuiSlider-mark': { height: 9, width: 2, bgcolor: GREY.soft, opacity: 1 },
};

const FIGURE = {
  font: `12px ${FIGURES}`,
  textAlign: 'right',
  padding: '4px 7px',
  width: '100%',
  border: `1px solid ${GREY.line}`,
  borderRadius: 5,
  background: GREY.card,
  color: GREY.ink,
} as const;

/** One row: name, slider with its default marked, figure with its unit. Double-click resets. */
export function NumberDial({ setting, words, value, onChange }: NumberDialProps) {
  const [text, setText] = useState<string | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a value set elsewhere ends the typing
  useEffect(() => setText(null), [value]);
  const reset = useSteady(() => onChange(setting.default));
  const take = () => {
    if (text === null) return;
    const read = readFigure(text);
    if (Number.isFinite(read) && text.trim() !== '') onChange(onStep(setting, read));
    setText(null);
  };
  const step = (event: KeyboardEvent) => {
    if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault();
      reset();
      return;
    }
    const way = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
    if (!way) return;
    event.preventDefault();
    event.stopPropagation();
    onChange(onStep(setting, value + way * setting.step * (event.shiftKey ? 10 : 1)));
  };
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: words ? '72px 1fr 54px 12px' : '92px 1fr 62px 34px',
        alignItems: 'center',
        gap: 1,
        minHeight: 30,
      }}
    >
      <DialName setting={setting} words={words} changed={value !== setting.default} onReset={reset} />
      <Slider
        size="small"
        min={0}
        max={1}
        step={0.001}
        value={placeOf(setting, value)}
        marks={[{ value: placeOf(setting, setting.default) }]}
        onChange={(_event, place) => onChange(valueAt(setting, place as number))}
        onDoubleClick={reset}
        onKeyDownCapture={step}
        slotProps={{
          input: {
            'aria-label': setting.label,
            'aria-valuetext': `${shownFigure(value, setting.step)} ${setting.unit}`.trim(),
          },
        }}
        sx={SLIDER}
      />
      <input
        aria-label={`${setting.label}, figure`}
        inputMode="decimal"
        data-writing={text === null ? undefined : ''}
        value={text ?? shownFigure(value, setting.step)}
        onChange={(event) => setText(event.target.value)}
        onFocus={(event) => event.target.select()}
        onBlur={take}
        onDoubleClick={reset}
        onKeyDown={(event) => {
          if (event.key === 'Enter') take();
          else if (event.key === 'Escape') setText(null);
          else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') step(event);
        }}
        style={FIGURE}
      />
      <span style={{ color: GREY.soft, fontSize: 12 }}>{setting.unit}</span>
    </Box>
  );
}
