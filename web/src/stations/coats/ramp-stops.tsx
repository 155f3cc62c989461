import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { hexOfLinear, number, type RampStop, rampColours } from '@zesty-tile/core';
import { type KeyboardEvent, type PointerEvent, useEffect, useMemo, useRef, useState } from 'react';
import { NumberDial } from '../../bench/dials/number-dial.tsx';
import { endPick, startPick } from '../../bench/floor/use-pick.ts';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { endGesture } from '../../bench/steps.ts';
import { ColourField } from '../../palettes/colour-field.tsx';
import { usePalettes } from '../../palettes/use-palettes.ts';
import { GREY } from '../../theme.ts';
import { useCoats } from './use-coats.ts';

const share = (label: string, help: string, value: number) =>
  number({ label, help, default: value, min: 0, max: 1, step: 0.01, unit: '' });
const AT = share('At', 'Where on the ramp the stop is.', 0.5);
const VALUE = share('Value', 'Of the stop.', 0.5);
const MOST = 32;
const WIDE = 256;
const ARROW_STEP = 0.01;

interface RampStopsProps {
  label: string;
  stops: readonly RampStop[];
  kind: 'linear' | 'smooth' | 'stepped';
  isColour: boolean;
  onChange(stops: RampStop[], gesture: string): void;
}

/** The ramp as it is computed, on a canvas. */
function Band({ stops, kind, isColour }: Pick<RampStopsProps, 'stops' | 'kind' | 'isColour'>) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const rgba = rampColours(stops, kind, isColour, WIDE);
    context.putImageData(new ImageData(rgba, WIDE, 1), 0, 0);
  }, [stops, kind, isColour]);
  return (
    <canvas ref={canvas} width={WIDE} height={1} style={{ width: '100%', height: 30, display: 'block' }} />
  );
}

const rounded = (value: number) => Math.round(1000 * Math.min(1, Math.max(0, value))) / 1000;

/** Where on the band the pointer is. */
const shareOf = (event: PointerEvent, band: HTMLElement): number => {
  const box = band.getBoundingClientRect();
  return rounded((event.clientX - box.left) / box.width);
};

/** The chosen stop: its colour or value, its place, and the way out. */
function ChosenStop({
  stop,
  name,
  isColour,
  onPut,
  onRemove,
}: {
  stop: RampStop;
  name: string;
  isColour: boolean;
  onPut(change: Partial<RampStop>, gesture: string): void;
  onRemove: (() => void) | null;
}) {
  const { data: palettes } = usePalettes(useBench((s) => s.projectId));
  return (
    <Box role="group" aria-label={name} sx={{ display: 'grid', gap: 0.25 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.75 }}>
        <span style={{ color: GREY.soft }}>{name}</span>
        {isColour && (
          <>
            <ColourField
              label={`Colour of ${name.toLowerCase()}`}
              hex={stop.colour}
              offered={(palettes ?? []).flatMap((one) => one.colours)}
              onHex={(colour) => onPut({ colour }, '')}
            />
            <Button
              sx={pressable(false)}
              aria-label={`Pick ${name.toLowerCase()} from the tile`}
              onClick={() =>
                startPick({
                  words: `Press on the colour for ${name.toLowerCase()}`,
                  view: 'albedo',
                  take: ({ values }) => {
                    endPick();
                    onPut({ colour: hexOfLinear(values) }, '');
                  },
                })
              }
            >
              Pick
            </Button>
          </>
        )}
        {onRemove && (
          <Button
            sx={{ ...pressable(false), ml: 'auto', minWidth: 0 }}
            aria-label={`Remove ${name.toLowerCase()}`}
            onClick={onRemove}
          >
            Remove
          </Button>
        )}
      </Box>
      <NumberDial setting={AT} value={stop.at} onChange={(at) => onPut({ at }, 'at')} />
      {!isColour && (
        <NumberDial setting={VALUE} value={stop.value} onChange={(value) => onPut({ value }, 'value')} />
      )}
    </Box>
  );
}

/** One more stop, and a ramp taken from one coat to another. */
function RampActions({
  stops,
  onAdd,
  onChange,
}: Pick<RampStopsProps, 'stops' | 'onChange'> & { onAdd(at: number): void }) {
  const copied = useCoats((s) => s.ramp);
  return (
    <Box sx={{ display: 'flex', gap: 0.5 }}>
      <Button sx={pressable(false)} onClick={() => onAdd(widestGap(stops))}>
        Add a stop
      </Button>
      <Button sx={pressable(false)} onClick={() => useCoats.setState({ ramp: [...stops] })}>
        Copy ramp
      </Button>
      {copied && (
        <Button sx={pressable(false)} onClick={() => onChange([...copied], '')}>
          Put in copied
        </Button>
      )}
    </Box>
  );
}

/** A ramp: a band on which stops stand, to be dragged along it; a press between them adds one. */
export function RampStops({ label, stops, kind, isColour, onChange }: RampStopsProps) {
  const band = useRef<HTMLDivElement>(null);
  const [chosen, setChosen] = useState(0);
  const shown = Math.min(chosen, stops.length - 1);
  const put = (k: number, change: Partial<RampStop>, gesture: string) =>
    onChange(
      stops.map((stop, at) => (at === k ? { ...stop, ...change } : stop)),
      gesture && `stop ${k} ${gesture}`,
    );
  const remove = (k: number) => {
    onChange(
      stops.filter((_one, at) => at !== k),
      '',
    );
    setChosen(Math.max(0, k - 1));
  };
  const colours = useMemo(() => rampColours(stops, kind, isColour, WIDE), [stops, kind, isColour]);
  const add = (at: number) => {
    if (stops.length >= MOST) return;
    const k = 4 * Math.min(WIDE - 1, Math.floor(at * WIDE));
    const codes = [...colours.slice(k, k + 3)];
    const colour = `#${codes.map((code) => code.toString(16).padStart(2, '0')).join('')}`;
    onChange(
      [...stops, { at, colour: isColour ? colour : stops[shown].colour, value: rounded(codes[0] / 255) }],
      '',
    );
    setChosen(stops.length);
  };
  const onKey = (k: number) => (event: KeyboardEvent) => {
    const by = { ArrowLeft: -ARROW_STEP, ArrowRight: ARROW_STEP }[event.key];
    if (by !== undefined) put(k, { at: rounded(stops[k].at + by) }, 'at');
    else if ((event.key === 'Delete' || event.key === 'Backspace') && stops.length > 1) remove(k);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <Box role="group" aria-label={label} sx={{ display: 'grid', gap: 0.5, px: 0.75 }}>
      <Box
        ref={band}
        sx={{ position: 'relative', border: `1px solid ${GREY.line}`, cursor: 'copy' }}
        onPointerDown={(event: PointerEvent) => {
          if (event.target === event.currentTarget.querySelector('canvas'))
            add(shareOf(event, band.current!));
        }}
      >
        <Band stops={stops} kind={kind} isColour={isColour} />
        {stops.map((stop, k) => (
          <Box
            // biome-ignore lint/suspicious/noArrayIndexKey: stops have no identity but their place
            key={k}
            role="slider"
            tabIndex={0}
            aria-label={`Stop ${k + 1}`}
            aria-valuemin={0}
            aria-valuemax={1}
            aria-valuenow={stop.at}
            onFocus={() => setChosen(k)}
            onKeyDown={onKey(k)}
            onPointerDown={(event: PointerEvent<HTMLElement>) => {
              event.stopPropagation();
              endGesture();
              event.currentTarget.setPointerCapture(event.pointerId);
              setChosen(k);
            }}
            onPointerMove={(event: PointerEvent<HTMLElement>) => {
              if (event.currentTarget.hasPointerCapture(event.pointerId))
                put(k, { at: shareOf(event, band.current!) }, 'at');
            }}
            sx={{
              position: 'absolute',
              top: -3,
              bottom: -3,
              width: 9,
              ml: '-4.5px',
              left: `${100 * stop.at}%`,
              cursor: 'ew-resize',
              touchAction: 'none',
              border: '2px solid #fff',
              outline: `${k === shown ? 2 : 1}px solid ${GREY.ink}`,
              borderRadius: '5px',
            }}
          />
        ))}
      </Box>
      <ChosenStop
        stop={stops[shown]}
        name={`Stop ${shown + 1}`}
        isColour={isColour}
        onPut={(change, gesture) => put(shown, change, gesture)}
        onRemove={stops.length > 1 ? () => remove(shown) : null}
      />
      <RampActions stops={stops} onAdd={add} onChange={onChange} />
    </Box>
  );
}

/** The middle of the widest gap between stops, and of the ends. */
function widestGap(stops: readonly RampStop[]): number {
  const places = [0, ...stops.map(({ at }) => at).sort((a, b) => a - b), 1];
  let [best, width] = [0.5, -1];
  for (let k = 1; k < places.length; k++) {
    const gap = places[k] - places[k - 1];
    if (gap > width) [best, width] = [(places[k] + places[k - 1]) / 2, gap];
  }
  return rounded(best);
}
