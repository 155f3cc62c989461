import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { ChartLine } from '@zesty-tile/core';
import { useSnackbar } from 'notistack';
import { useEffect, useState } from 'react';
import { api } from '../api/client.ts';
import { useRemoval } from '../api/use-undoable.tsx';
import { CARD, GREY } from '../theme.ts';
import { chartText, freshLine } from './chart-file.ts';
import { LINE_COLUMNS, LineRow } from './line-row.tsx';
import { isSearched } from './line-words.ts';
import type { OwnChart } from './use-charts.ts';

const HEADING = ['', 'Name', 'Kind', 'Y from', 'to', 'F0', 'Rough', 'to'];

interface ChartCardProps {
  chart: OwnChart;
  /** Only lines whose name holds this. */
  search: string;
  onChange(chart: OwnChart): void;
}

/** One chart of the user's own: its lines, changed in place; saved as a JSON file. */
export function ChartCard({ chart, search, onChange }: ChartCardProps) {
  const remove = useRemoval();
  const { enqueueSnackbar } = useSnackbar();
  const [name, setName] = useState(chart.name);
  useEffect(() => setName(chart.name), [chart.name]);
  const { lines } = chart;
  const put = (k: number, line: ChartLine) =>
    onChange({ ...chart, lines: lines.map((one, at) => (at === k ? line : one)) });
  const shown = lines.map((line, k) => [line, k] as const).filter(([line]) => isSearched(line, search));
  return (
    <Box component="section" aria-label={chart.name} sx={{ ...CARD, gap: 1 }}>
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
        <TextField
          value={name}
          onChange={(event) => setName(event.target.value)}
          onBlur={() => {
            if (name.trim() && name !== chart.name) onChange({ ...chart, name });
            else setName(chart.name);
          }}
          onKeyDown={(event) => event.key === 'Enter' && (event.target as HTMLElement).blur()}
          slotProps={{ htmlInput: { 'aria-label': 'Name of the chart' } }}
          sx={{ flex: 1, '& input': { py: 0.6 } }}
        />
        <Button onClick={() => onChange({ ...chart, lines: [...lines, freshLine(lines)] })}>
          Add a line
        </Button>
        <Button
          component="a"
          download={`${chart.name}.chart.json`}
          href={`data:application/json;charset=utf-8,${encodeURIComponent(chartText(chart))}`}
        >
          Export
        </Button>
        <Button color="error" onClick={() => remove(api.charts, chart.id, chart.name)}>
          Delete
        </Button>
      </Box>
      {shown.length > 0 && (
        <Box
          aria-hidden="true"
          sx={{
            display: 'grid',
            gridTemplateColumns: LINE_COLUMNS,
            gap: 0.75,
            color: GREY.soft,
            fontSize: 12,
            '& span:nth-of-type(n + 4)': { textAlign: 'right' },
          }}
        >
          {HEADING.map((words, k) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a heading never moves
            <span key={k}>{words}</span>
          ))}
        </Box>
      )}
      {shown.map(([line, k]) => (
        <LineRow
          key={line.id}
          line={line}
          onChange={(next) => put(k, next)}
          onProblem={(words) => enqueueSnackbar(words, { variant: 'error' })}
          onRemove={() => onChange({ ...chart, lines: lines.filter((_one, at) => at !== k) })}
        />
      ))}
      {lines.length === 0 && <span style={{ color: GREY.soft }}>No lines yet.</span>}
      {lines.length > 0 && shown.length === 0 && (
        <span style={{ color: GREY.soft }}>No line of that name here.</span>
      )}
    </Box>
  );
}
