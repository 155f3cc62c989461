import Close from '@mui/icons-material/Close';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { type ChartLine, chartProblems, hexOfLinear, linearOfHex, lineSwatch } from '@zesty-tile/core';
import { useEffect, useState } from 'react';
import { ColourField } from '../palettes/colour-field.tsx';
import { FIGURES, GREY } from '../theme.ts';

const field = {
  font: `12.5px ${FIGURES}`,
  padding: '5px 6px',
  width: '100%',
  minWidth: 0,
  border: `1px solid ${GREY.line}`,
  borderRadius: 5,
  background: GREY.card,
  color: GREY.ink,
};

/** A text that is taken when one leaves it; what cannot be read goes back. */
function Field({
  label,
  value,
  onTake,
  wide = false,
}: {
  label: string;
  value: string;
  onTake(text: string): void;
  wide?: boolean;
}) {
  const [text, setText] = useState(value);
  useEffect(() => setText(value), [value]);
  return (
    <input
      aria-label={label}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => {
        if (text !== value) onTake(text);
        setText(value);
      }}
      onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
      style={wide ? { ...field, fontFamily: 'inherit' } : { ...field, textAlign: 'right' }}
    />
  );
}

const figure = (value: number) => String(Number(value.toFixed(4)));
const read = (text: string) => Number(text.trim().replace(',', '.'));

interface LineRowProps {
  line: ChartLine;
  onChange(line: ChartLine): void;
  onProblem(words: string): void;
  onRemove(): void;
}

/** Columns of the rows and their heading. */
export const LINE_COLUMNS = '44px minmax(120px, 1.6fr) 104px repeat(2, 58px) 66px repeat(2, 58px) 30px';

/** One line of a chart, to be changed in place. */
export function LineRow({ line, onChange, onProblem, onRemove }: LineRowProps) {
  const take = (next: object) => {
    const changed = { ...line, ...next } as ChartLine;
    const problems = chartProblems({ name: 'x', lines: [changed] });
    if (problems.length > 0) onProblem(problems[0]);
    else onChange(changed);
  };
  const pair = (key: 'reflectance' | 'roughness', band: [number, number], at: 0 | 1) => (text: string) => {
    const next: [number, number] = [...band];
    next[at] = read(text);
    take({ [key]: next });
  };
  const { name } = line;
  return (
    <Box
      role="group"
      aria-label={name}
      sx={{ display: 'grid', gridTemplateColumns: LINE_COLUMNS, gap: 0.75, alignItems: 'center' }}
    >
      <ColourField
        label={`Swatch of ${name}`}
        hex={lineSwatch(line)}
        offered={[]}
        onHex={(swatch) => take(line.kind === 'metal' ? { swatch, f0: linearOfHex(swatch) } : { swatch })}
      />
      <Field label={`Name of ${name}`} value={name} wide onTake={(text) => take({ name: text })} />
      <Select
        size="small"
        value={line.kind}
        inputProps={{ 'aria-label': `Kind of ${name}` }}
        onChange={(event) =>
          onChange(
            event.target.value === 'metal'
              ? {
                  id: line.id,
                  name,
                  group: line.group,
                  kind: 'metal',
                  f0: linearOfHex(lineSwatch(line)),
                  roughness: line.roughness,
                }
              : {
                  id: line.id,
                  name,
                  group: line.group,
                  kind: 'dielectric',
                  reflectance: [0.2, 0.3],
                  f0: 0.04,
                  roughness: line.roughness,
                },
          )
        }
        sx={{ bgcolor: GREY.card, fontSize: 12.5, '& .MuiSelect-select': { py: 0.5, pl: 0.75 } }}
      >
        <MenuItem value="dielectric">Dielectric</MenuItem>
        <MenuItem value="metal">Metal</MenuItem>
      </Select>
      {line.kind === 'dielectric' ? (
        <>
          {([0, 1] as const).map((at) => (
            <Field
              key={at}
              label={`${at === 0 ? 'Lowest' : 'Highest'} Y of ${name}`}
              value={figure(line.reflectance[at])}
              onTake={pair('reflectance', line.reflectance, at)}
            />
          ))}
          <Field
            label={`F0 of ${name}`}
            value={figure(line.f0)}
            onTake={(text) => take({ f0: read(text) })}
          />
        </>
      ) : (
        <span style={{ gridColumn: 'span 3', color: GREY.soft, font: `12px ${FIGURES}` }}>
          F0 {line.f0.map(figure).join(' ')} ({hexOfLinear(line.f0)})
        </span>
      )}
      {([0, 1] as const).map((at) => (
        <Field
          key={at}
          label={`${at === 0 ? 'Smoothest' : 'Roughest'} of ${name}`}
          value={figure(line.roughness[at])}
          onTake={pair('roughness', line.roughness, at)}
        />
      ))}
      <IconButton size="small" aria-label={`Remove ${name}`} onClick={onRemove}>
        <Close fontSize="small" />
      </IconButton>
    </Box>
  );
}
