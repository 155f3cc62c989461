import Autocomplete, { createFilterOptions } from '@mui/material/Autocomplete';
import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import { CHART, type ChartLine, type LineChoice, lineSwatch, NO_LINE, OWN_LINE } from '@zesty-tile/core';
import { useMemo } from 'react';
import { FIGURES, GREY } from '../theme.ts';
import { lineFigures } from './line-words.ts';
import { useCharts } from './use-charts.ts';

interface Option extends LineChoice {
  /** Null: no line. */
  shown: ChartLine | null;
  group: string;
  words: string;
}

const USED = 'Used in this project';

const optionOf = (shown: ChartLine, isOwn: boolean, group: string): Option => ({
  line: isOwn ? OWN_LINE : shown.id,
  ownLine: isOwn ? shown : null,
  shown,
  group,
  words: shown.name,
});

interface LineFieldProps {
  label: string;
  value: LineChoice;
  /** What it is called when none is chosen. */
  none: string;
  projectId: string;
  onChange(value: LineChoice): void;
}

export const Swatch = ({ line }: { line: ChartLine }) => (
  <Box
    component="span"
    aria-hidden="true"
    sx={{ width: 18, height: 18, flex: 'none', borderRadius: 0.5, border: `1px solid ${GREY.soft}` }}
    style={{ background: lineSwatch(line) }}
  />
);

/** Chooses a line of any chart by its name; those the project has used come first. Each is listed once. */
export function LineField({ label, value, none, projectId, onChange }: LineFieldProps) {
  const { data } = useCharts(projectId);
  const options = useMemo(() => {
    const all = [
      ...(data?.charts ?? []).flatMap((chart) => chart.lines.map((line) => optionOf(line, true, chart.name))),
      ...CHART.lines.map((line) => optionOf(line, false, `Built in: ${line.group}`)),
    ];
    const used = (data?.used ?? []).flatMap((id) => all.find(({ shown }) => shown?.id === id) ?? []);
    const rest = all.filter((option) => !used.includes(option));
    return [
      { line: NO_LINE, ownLine: null, shown: null, group: '', words: none } satisfies Option,
      ...used.map((option) => ({ ...option, group: USED })),
      ...rest,
    ];
  }, [data, none]);
  const isChosen = (option: Option) =>
    option.line === value.line && (value.line !== OWN_LINE || option.shown?.id === value.ownLine?.id);
  const kept: Option = options.find(isChosen) ?? {
    ...value,
    shown: value.ownLine,
    group: 'Kept with this tile',
    words: value.ownLine?.name ?? none,
  };
  return (
    <Autocomplete<Option, false, true>
      size="small"
      disableClearable
      options={options.some(isChosen) ? options : [kept, ...options]}
      value={kept}
      groupBy={(option) => option.group}
      getOptionLabel={(option) => option.words}
      getOptionKey={(option) => `${option.group} ${option.line} ${option.shown?.id}`}
      isOptionEqualToValue={(option, chosen) =>
        option.line === chosen.line && option.shown?.id === chosen.shown?.id && option.group === chosen.group
      }
      filterOptions={createFilterOptions({
        stringify: ({ words, group, shown }) => `${words} ${group} ${shown?.synonyms ?? ''}`,
      })}
      noOptionsText="No line of that name"
      onChange={(_event, { line, ownLine }) => onChange({ line, ownLine })}
      renderOption={({ key, ...props }, option) => (
        <Box component="li" key={key} {...props} sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
          {option.shown && <Swatch line={option.shown} />}
          <Box sx={{ minWidth: 0 }}>
            <div>{option.words}</div>
            {option.shown && (
              <div style={{ font: `11px ${FIGURES}`, color: GREY.soft }}>{lineFigures(option.shown)}</div>
            )}
          </Box>
        </Box>
      )}
      renderInput={(params) => (
        <TextField
          {...params}
          aria-label={label}
          slotProps={{
            ...params.slotProps,
            htmlInput: { ...params.slotProps?.htmlInput, 'aria-label': label },
            input: {
              ...params.slotProps?.input,
              startAdornment: kept.shown ? <Swatch line={kept.shown} /> : undefined,
            },
          }}
        />
      )}
      slotProps={{ popper: { style: { minWidth: 320 }, placement: 'bottom-end' } }}
      sx={{ '& .MuiInputBase-root': { bgcolor: GREY.card, fontSize: 13, py: '2px !important', gap: 0.5 } }}
    />
  );
}
