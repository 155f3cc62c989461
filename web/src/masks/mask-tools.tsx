import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { MASK_PARTS, MASK_SETTINGS, MASKS, type Mask, type MaskPartKind } from '@zesty-tile/core';
import { useEffect, useState } from 'react';
import { NumberDial } from '../bench/dials/number-dial.tsx';
import { Section } from '../bench/dials/section.tsx';
import { pressable } from '../bench/pressed.ts';
import { useBench } from '../bench/state.ts';
import { CARD, FIGURES, GREY } from '../theme.ts';
import { useCovers } from './mask-layer.tsx';
import { FinishValues, ReliefValues, ToneValues } from './mask-values.tsx';
import { PartDials } from './part-dials.tsx';
import { addMask, changeMask, newPart, removeMask, useMasks } from './use-masks.ts';

/** What each station sets for a zone. */
const VALUES = { gauge: ToneValues, relief: ReliefValues, finish: FinishValues };
type ZoneStation = keyof typeof VALUES;

const KINDS = Object.entries(MASK_PARTS.variants!.of).map(
  ([by, { title }]) => [by as MaskPartKind, title] as const,
);

function ZoneName({ zone }: { zone: Mask }) {
  const [name, setName] = useState(zone.name);
  useEffect(() => setName(zone.name), [zone.name]);
  return (
    <TextField
      value={name}
      onChange={(event) => setName(event.target.value)}
      onBlur={() => {
        const next = name.trim().slice(0, 60);
        if (next && next !== zone.name) changeMask(zone.id, (now) => ({ ...now, name: next }));
        else setName(zone.name);
      }}
      onKeyDown={(event) => event.key === 'Enter' && (event.target as HTMLElement).blur()}
      slotProps={{ htmlInput: { 'aria-label': 'Name of the zone' } }}
      sx={{ flex: 1, minWidth: 0, '& input': { py: 0.5 } }}
    />
  );
}

/** The open zone: how it is picked, and what is set for it here. */
function OpenZone({ zone, station }: { zone: Mask; station: ZoneStation }) {
  const Values = VALUES[station];
  const shown = useMasks((s) => s.shown);
  const take = (k: number) => {
    useMasks.setState({ brush: null });
    changeMask(zone.id, (now) => ({ ...now, parts: now.parts.filter((_part, at) => at !== k) }));
  };
  return (
    <Box sx={{ ...CARD, gap: 0.75 }}>
      <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'center' }}>
        <ZoneName zone={zone} />
        <Button
          aria-pressed={shown}
          sx={pressable(shown)}
          onClick={() => useMasks.setState({ shown: !shown })}
        >
          Shown
        </Button>
        <Button color="error" sx={{ minWidth: 0 }} onClick={() => removeMask(zone.id)}>
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
      {zone.parts.length < MASK_PARTS.most && (
        <Box sx={{ display: 'flex', gap: 0.5, alignItems: 'center' }}>
          <span style={{ color: GREY.soft }}>Also</span>
          {KINDS.map(([by, words]) => (
            <Button
              key={by}
              sx={pressable(false)}
              onClick={() =>
                changeMask(zone.id, (now) => ({
                  ...now,
                  parts: [...now.parts, newPart(by, false)],
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
        <Values zone={zone.id} />
        {station !== 'relief' && (
          <NumberDial
            setting={MASK_SETTINGS.wetness}
            value={zone.wetness}
            onChange={(wetness) => changeMask(zone.id, (now) => ({ ...now, wetness }), 'wetness')}
          />
        )}
      </Box>
    </Box>
  );
}

const percent = (share: number) => `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`;

/** How much of the tile a zone covers; drawn again by itself, without the dials. */
function Share({ zone }: { zone: string }) {
  const share = useMasks((s) => s.shares[zone]);
  return <span style={{ font: `12px ${FIGURES}` }}>{share === undefined ? '…' : percent(share)}</span>;
}

/** The zones of the tile, and the open one's dials. */
export function ZoneTools({ station }: { station: ZoneStation }) {
  const zones = useBench((s) => s.recipe.masks);
  const open = useMasks((s) => s.open);
  useCovers();
  const choose = (id: string) =>
    useMasks.setState({ open: open === id ? null : id, brush: null, shown: true });
  return (
    <Section station="both" id="zones" title="Zones" open={zones.length > 0}>
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
        {zones.length < MASKS.most && (
          <Box sx={{ display: 'flex', gap: 0.5, alignItems: 'center' }}>
            <span style={{ color: GREY.soft }}>New zone</span>
            {KINDS.map(([by, words]) => (
              <Button key={by} sx={pressable(false)} onClick={() => addMask(by)}>
                {words}
              </Button>
            ))}
          </Box>
        )}
      </Box>
    </Section>
  );
}
