import Typography from '@mui/material/Typography';
import { albedoBand, CHART, type LuminanceBins, lineOf, srgbCode } from '@zesty-tile/core';
import { useEffect, useMemo, useState } from 'react';
import { Area, AreaChart, ReferenceArea, ReferenceLine, ResponsiveContainer, XAxis } from 'recharts';
import { useBench } from '../../bench/state.ts';
import { reflectanceWords } from '../../settings/reflectance.ts';
import { type Language, useSettings } from '../../settings/settings.ts';
import { GREY, ZEST } from '../../theme.ts';

const TICKS = [0.02, 0.05, 0.1, 0.2, 0.4, 0.9];

const { dielectricFloor, dielectricCeiling, metalF0LuminanceFloor } = CHART.limits;

/** What no dielectric passes, and below which no bare metal lies: told apart by their dashes and words. */
const LIMITS = [
  { at: dielectricFloor, words: 'any dielectric', dashes: '2 3', place: 'insideTopLeft' },
  { at: dielectricCeiling, words: '', dashes: '2 3', place: 'insideTopRight' },
  { at: metalF0LuminanceFloor, words: 'any metal', dashes: '7 3', place: 'insideTopLeft' },
] as const;

/** Drawing the graph takes longer than a frame: it follows when the dial rests this long. */
const REST_MS = 160;

/** A value once it has stood still for a while; the first is given at once. */
function useRested<T>(value: T): T {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    if (rested === null) {
      setRested(value);
      return;
    }
    const timer = setTimeout(() => setRested(value), REST_MS);
    return () => clearTimeout(timer);
  }, [value, rested]);
  return rested;
}

/** A tick of the axis in the chosen language, as short as can be. */
function tickWords(y: number, language: Language): string {
  switch (language) {
    case 'y':
      return String(Number(y.toFixed(2)));
    case 'srgb':
      return String(srgbCode(y));
    case 'percent':
      return `${Math.round(100 * y)} %`;
  }
}

/** Where the luminance of the current tile stands, against the band of the chosen line. */
export function LuminanceGraph() {
  const bins = useRested(useBench((s) => s.bins));
  const line = useBench((s) => lineOf(s.recipe.stations.gauge));
  return bins && <LuminanceFigure bins={bins} band={line ? albedoBand(line) : null} />;
}

/** A histogram of luminance, with a band and the limits of real surfaces. */
export function LuminanceFigure({ bins, band }: { bins: LuminanceBins; band: [number, number] | null }) {
  const language = useSettings((s) => s.language);
  const data = useMemo(() => {
    const step = Math.log(bins.high / bins.low) / bins.shares.length;
    return bins.shares.map((share, k) => ({ at: Math.log(bins.low) + (k + 0.5) * step, share }));
  }, [bins]);
  const words = band
    ? `The band runs from ${reflectanceWords(band[0], language)} to ${reflectanceWords(band[1], language)}.`
    : 'No line is chosen.';
  return (
    <figure style={{ margin: 0 }} aria-label={`Histogram of luminance Y. ${words}`}>
      <Typography variant="h2" component="figcaption">
        Luminance against the band
      </Typography>
      <div style={{ height: 132 }}>
        <ResponsiveContainer>
          <AreaChart
            data={data}
            margin={{ top: 12, right: 4, bottom: 0, left: 4 }}
            accessibilityLayer={false}
          >
            <XAxis
              dataKey="at"
              type="number"
              domain={[Math.log(bins.low), Math.log(bins.high)]}
              ticks={TICKS.map(Math.log)}
              tickFormatter={(value: number) => tickWords(Math.exp(value), language)}
              tick={{ fontSize: 11, fill: GREY.soft }}
              stroke={GREY.soft}
            />
            {band && (
              <ReferenceArea
                x1={Math.log(Math.max(bins.low, band[0]))}
                x2={Math.log(Math.min(bins.high, band[1]))}
                fill={ZEST}
                fillOpacity={0.55}
                ifOverflow="visible"
              />
            )}
            {LIMITS.map(({ at, words, dashes, place }) => (
              <ReferenceLine
                key={words}
                x={Math.log(at)}
                stroke={GREY.soft}
                strokeDasharray={dashes}
                label={{ value: words, position: place, fontSize: 10, fill: GREY.soft }}
              />
            ))}
            <Area
              dataKey="share"
              type="step"
              fill={GREY.ink}
              fillOpacity={1}
              stroke="none"
              isAnimationActive={false}
            />
          </AreaChart>
        </ResponsiveContainer>
      </div>
    </figure>
  );
}
