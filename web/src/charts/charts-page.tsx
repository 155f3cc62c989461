import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { CHART } from '@zesty-tile/core';
import { useSnackbar } from 'notistack';
import { useEffect, useState } from 'react';
import { ImportJson } from '../api/import-json.tsx';
import { wordsOf } from '../api/words-of.ts';
import { Sheet } from '../head.tsx';
import { CARD, FIGURES, GREY } from '../theme.ts';
import { ChartCard } from './chart-card.tsx';
import { readChart } from './chart-file.ts';
import { Swatch } from './line-field.tsx';
import { isSearched, lineFigures } from './line-words.ts';
import { useCharts, useChartWork } from './use-charts.ts';

/** Charts of reference values: the built-in one to look at and copy, one's own to make and change. */
export function ChartsPage() {
  const { data, error } = useCharts();
  const work = useChartWork();
  const [search, setSearch] = useState('');
  const { enqueueSnackbar } = useSnackbar();
  useEffect(() => {
    document.title = 'Charts, Zesty Tile';
  }, []);
  if (error) throw error;
  const tried = (doing: Promise<unknown>) =>
    doing.catch((problem) => enqueueSnackbar(wordsOf(problem), { variant: 'error' }));
  const bringIn = async (given: File) => {
    const { name, lines } = readChart(await given.text());
    await work.make(name, lines);
  };
  const found = CHART.lines.filter((line) => isSearched(line, search));
  return (
    <Sheet title="Charts">
      <Typography color="text.secondary">
        Reference values that Gauge and Finish compare a surface with: diffuse reflectance, specular
        reflectance and roughness. Add lines you measured beside a grey card.
      </Typography>
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button
          variant="contained"
          onClick={() => tried(work.make(`Chart ${(data?.charts.length ?? 0) + 1}`))}
        >
          New chart
        </Button>
        <ImportJson label="Chart file" onFile={(given) => void tried(bringIn(given))} />
        <TextField
          placeholder="Find a line"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
          slotProps={{ htmlInput: { 'aria-label': 'Find a line', type: 'search' } }}
          sx={{ ml: 'auto', width: 220, '& input': { py: 0.75 } }}
        />
      </Box>
      {data?.charts.map((chart) => (
        <ChartCard
          key={chart.id}
          chart={chart}
          search={search}
          onChange={(next) => tried(work.change(next))}
        />
      ))}
      <Box component="section" aria-label="Built-in chart" sx={{ ...CARD, gap: 1 }}>
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
          <Typography variant="h2" sx={{ flex: 1 }}>
            Built-in chart
          </Typography>
          <Button onClick={() => tried(work.make('Copy of the built-in chart', CHART.lines))}>Copy it</Button>
        </Box>
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 3, rowGap: 0.5 }}>
          {found.map((line) => (
            <Box key={line.id} sx={{ display: 'flex', gap: 1, alignItems: 'center', minWidth: 0 }}>
              <Swatch line={line} />
              <Box sx={{ minWidth: 0, overflow: 'hidden' }}>
                <div>{line.name}</div>
                <div style={{ font: `11px ${FIGURES}`, color: GREY.soft }}>{lineFigures(line)}</div>
              </Box>
            </Box>
          ))}
        </Box>
        {found.length === 0 && <span style={{ color: GREY.soft }}>No line of that name here.</span>}
      </Box>
    </Sheet>
  );
}
