import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { number, type Zone } from '@zesty-tile/core';
import { useEffect, useState } from 'react';
import { NumberDial } from '../bench/dials/number-dial.tsx';
import { Section } from '../bench/dials/section.tsx';
import { pressable } from '../bench/pressed.ts';
import { useBench } from '../bench/state.ts';
import { CARD, FIGURES, GREY } from '../theme.ts';
import { PartDials } from './part-dials.tsx';
import { addZone, changeZone, freshPart, removeZone, useZones } from './use-zones.ts';
import { useCovers } from './zone-layer.tsx';
import { FinishValues, ToneValues } from './zone-values.tsx';

const MOST_ZONES = 12;
const MOST_PARTS = 12;

const WETNESS = number({
  label: 'Wetness',
  help: 'How wet the zone is: water darkens a porous surface, smooths it, and mirrors by its own F0.',
  default: 0,
  min: 0,
  max: 1,
  step: 0.05,
  unit: '',
});

const KINDS = [
  ['colour', 'By colour'],
  ['range', 'By range'],
  ['brush', 'By brush'],
] as const;

function ZoneName({ zone }: { zone: Zone }) {
  const [name, setName] = useState(zone.name);
  useEffect(() => setName(zone.name), [zone.name]);
  return (
    <TextField
      value={name}
      onChange={(event) => setName(event.target.value)}
      onBlur={() => {
        const next = name.trim().slice(0, 60);
        if (next && next !== zone.name) changeZone(zone.id, (now) => ({ ...now, name: next }));
        else setName(zone.name);
      }}
      onKeyDown={(event) => event.key === 'Enter' && (event.target as HTMLElement).blur()}
      slotProps={{ htmlInput: { 'aria-label': 'Name of the zone' } }}
      sx={{ flex: 1, minWidth: 0, '& input': { py: 0.5 } }}
    />
  );
}

/** The open zone: how it is picked, and what is set for it here. */
function OpenZone({ zone, station }: { zone: Zone; station: 'gauge' | 'finish' }) {
  const shown = useZones((s) => s.shown);
  const take = (k: number) => {
    useZones.setState({ brush: null });
    changeZone(zone.id, (now) => ({ ...now, parts: now.parts.filter((_part, at) => at !== k) }));
  };
  return (
    <Box sx={{ ...CARD, gap: 0.75 }}>
      <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'center' }}>
        <ZoneName zone={zone} />
        <Button
          aria-pressed={shown}
          sx={pressable(shown)}
          onClick={() => useZones.setState({ shown: !shown })}
        >
          Shown
        </Button>
        <Button color="error" sx={{ minWidth: 0 }} onClick={() => removeZone(zone.id)}>
          Delete
        </Button>
      </Box>
      {zone.parts.map((part, k) => (
        <PartDials
          // biome-ignore lint/suspicious/noArrayIndexKey: parts have no identity but their place
          key={k}
          zone={zone.id}
          at={k}
          part={part}
          onRemove={zone.parts.length > 1 ? () => take(k) : null}
        />
      ))}
      {zone.parts.length < MOST_PARTS && (
        <Box sx={{ display: 'flex', gap: 0.5, alignItems: 'center' }}>
          <span style={{ color: GREY.soft }}>Also</span>
          {KINDS.map(([by, words]) => (
            <Button
              key={by}
              sx={pressable(false)}
              onClick={() =>
                changeZone(zone.id, (now) => ({
                  ...now,
                  parts: [...now.parts, freshPart(by, by === 'brush' ? 'or' : 'and')],
                }))
              }
            >
              {words}
            </Button>
          ))}
        </Box>
      )}
      <Box
        role="group"
        aria-label={`Values of ${zone.name}`}
        sx={{ display: 'grid', gap: 0.25, borderTop: `1px solid ${GREY.line}`, pt: 0.75 }}
      >
        {station === 'gauge' ? <ToneValues zone={zone.id} /> : <FinishValues zone={zone.id} />}
        <NumberDial
          setting={WETNESS}
          value={zone.wetness}
          onChange={(wetness) => changeZone(zone.id, (now) => ({ ...now, wetness }), 'wetness')}
        />
      </Box>
    </Box>
  );
}

const percent = (share: number) => `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`;

/** How much of the tile a zone covers; drawn anew by itself, without the dials. */
function Share({ zone }: { zone: string }) {
  const share = useZones((s) => s.shares[zone]);
  return <span style={{ font: `12px ${FIGURES}` }}>{share === undefined ? '…' : percent(share)}</span>;
}

/** The zones of the tile, and the open one's dials. */
export function ZoneTools({ station }: { station: 'gauge' | 'finish' }) {
  const zones = useBench((s) => s.recipe.stations.gauge.zones);
  const open = useZones((s) => s.open);
  useCovers();
  const choose = (id: string) =>
    useZones.setState({ open: open === id ? null : id, brush: null, shown: true });
  return (
    <Section station="both" title="Zones" open={zones.length > 0}>
      <Box sx={{ display: 'grid', gap: 0.75 }}>
        {zones.length === 0 && (
          <Typography color="text.secondary">
            A part of the tile with values of its own: moss between stones, damp joints, copper under
            verdigris.
          </Typography>
        )}
        {zones.map((zone) => (
          <Box key={zone.id} sx={{ display: 'grid', gap: 0.75 }}>
            <Button
              aria-expanded={open === zone.id}
              data-zone={zone.name}
              onClick={() => choose(zone.id)}
              sx={{ ...pressable(open === zone.id), justifyContent: 'space-between' }}
            >
              <span>{zone.name}</span>
              <Share zone={zone.id} />
            </Button>
            {open === zone.id && <OpenZone zone={zone} station={station} />}
          </Box>
        ))}
        {zones.length < MOST_ZONES && (
          <Box sx={{ display: 'flex', gap: 0.5, alignItems: 'center' }}>
            <span style={{ color: GREY.soft }}>New zone</span>
            {KINDS.map(([by, words]) => (
              <Button key={by} sx={pressable(false)} onClick={() => addZone(by)}>
                {words}
              </Button>
            ))}
          </Box>
        )}
      </Box>
    </Section>
  );
}
