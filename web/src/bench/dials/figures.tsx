import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { type Figure, STATIONS, type StationName } from '@zesty-tile/core';
import { reflectanceWords } from '../../settings/reflectance.ts';
import { type Language, useSettings } from '../../settings/settings.ts';
import { FIGURES, GREY } from '../../theme.ts';
import { useBench } from '../state.ts';

const words = ({ value, unit, digits: own }: Figure, language: Language) => {
  if (unit === 'Y') return reflectanceWords(value, language);
  const digits =
    own ?? (Number.isInteger(value) ? 0 : Math.abs(value) >= 100 ? 0 : Math.abs(value) >= 10 ? 1 : 2);
  return `${value.toFixed(digits).replace('-', '−')}${unit ? ` ${unit}` : ''}`;
};

/** The figures behind a verdict, as measured. */
export function Figures({ station }: { station: StationName }) {
  const found = useBench((s) => s.found[station]);
  const language = useSettings((s) => s.language);
  if (!found || found.verdict.figures.length === 0) return null;
  const { size, verdict } = found;
  return (
    <div>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        Measured{STATIONS[station].loading ? '' : ` at ${size} px`}
      </Typography>
      <Box component="dl" sx={{ m: 0 }}>
        {verdict.figures.map((figure) => (
          <Box
            key={figure.id}
            sx={{
              display: 'flex',
              justifyContent: 'space-between',
              gap: 1,
              py: 0.4,
              borderBottom: `1px solid ${GREY.line}`,
            }}
          >
            <dt>{figure.label}</dt>
            <dd style={{ margin: 0, font: `12px ${FIGURES}`, whiteSpace: 'nowrap' }}>
              {words(figure, language)}
            </dd>
          </Box>
        ))}
      </Box>
    </div>
  );
}
