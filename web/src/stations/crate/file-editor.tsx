import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { FORMAT_BITS, FORMATS, holdsWhole, type ProfileFile } from '@zesty-tile/core';
import type { ReactNode } from 'react';
import { Laid } from '../../bench/laid.tsx';
import type { LookedFile } from '../../engine/protocol.ts';
import { GREY } from '../../theme.ts';
import { ChannelEditor } from './channel-editor.tsx';

const SIZES = [0, 8192, 4096, 2048, 1024, 512, 256, 128, 64] as const;
const COUNTS = [1, 3, 4] as const;
const COUNT_WORDS = { 1: 'One, grey', 3: 'Three', 4: 'Four, with alpha' } as const;
const PLAIN = { map: 'occlusion', plane: 0, turned: false } as const;

interface ChooseProps<T extends string | number> {
  label: string;
  value: T;
  options: readonly T[];
  words(option: T): string;
  onChoose(option: T): void;
}

function Choose<T extends string | number>({ label, value, options, words, onChoose }: ChooseProps<T>) {
  return (
    <TextField
      select
      label={label}
      value={value}
      onChange={(event) => onChoose(options.find((one) => String(one) === String(event.target.value))!)}
    >
      {options.map((option) => (
        <MenuItem key={option} value={option}>
          {words(option)}
        </MenuItem>
      ))}
    </TextField>
  );
}

interface FileEditorProps {
  file: ProfileFile;
  looked: LookedFile | undefined;
  /** It is still being looked at. */
  isBusy: boolean;
  onChange(file: ProfileFile): void;
  children?: ReactNode;
}

/** How a file looks, tiled. */
function Look({ looked, isBusy }: { looked: LookedFile | undefined; isBusy: boolean }) {
  return (
    <Box sx={{ display: 'grid', gap: 0.75, alignContent: 'start', pt: 1 }}>
      <Box sx={{ width: 300, minHeight: 150, bgcolor: GREY.walls }}>
        {looked && <Laid picture={looked.picture} />}
      </Box>
      <span style={{ color: GREY.soft, overflowWrap: 'anywhere' }}>
        {looked
          ? `${looked.name}, ${looked.width} × ${looked.height} px, tiled 2 × 2`
          : isBusy
            ? 'Computing …'
            : 'This tile has no such map, so the file is left out.'}
      </span>
    </Box>
  );
}

/** One file of a profile: what it is, what is in its channels, and how it looks. */
export function FileEditor({ file, looked, isBusy, onChange, children }: FileEditorProps) {
  const set = (values: Partial<ProfileFile>) => onChange({ ...file, ...values });
  const { channels, format } = file;
  const count = channels.length as 1 | 3 | 4;
  const isNormal = holdsWhole(file, 'normal');
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) 300px', gap: 3 }}>
      <Box sx={{ display: 'grid', gap: 2, alignContent: 'start' }}>
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(4, minmax(0, 1fr))', gap: 1.5, pt: 1 }}>
          <TextField
            label="Suffix"
            value={file.ending}
            onChange={(event) => set({ ending: event.target.value })}
          />
          <Choose
            label="Format"
            value={format}
            options={FORMATS}
            words={(one) => one.toUpperCase()}
            onChoose={(next) => {
              const bits: readonly number[] = FORMAT_BITS[next];
              set({
                format: next,
                bits: (bits.includes(file.bits) ? file.bits : bits[0]) as ProfileFile['bits'],
              });
            }}
          />
          <Choose
            label="Bits per channel"
            value={file.bits}
            options={FORMAT_BITS[format] as readonly ProfileFile['bits'][]}
            words={(one) => (format === 'exr' ? (one === 16 ? '16, halves' : '32, floats') : String(one))}
            onChoose={(bits) => set({ bits })}
          />
          <Choose
            label="Holds"
            value={file.kind}
            options={['colour', 'data'] as const}
            words={(one) => (one === 'colour' ? 'Colour, sRGB' : 'Data, linear')}
            onChoose={(kind) => set({ kind })}
          />
          <Choose
            label="Longest edge"
            value={file.size}
            options={SIZES}
            words={(one) => (one === 0 ? 'As the tile' : `${one} px`)}
            onChoose={(size) => set({ size })}
          />
          <TextField
            label="Softness, mm"
            type="number"
            value={file.softMm}
            onChange={(event) => set({ softMm: Math.min(100, Math.max(0, Number(event.target.value))) })}
            slotProps={{ htmlInput: { min: 0, max: 100, step: 0.5 } }}
          />
          {isNormal ? (
            <Choose
              label="Green points"
              value={file.green}
              options={['recipe', 'up', 'down'] as const}
              words={(one) => ({ recipe: 'As the recipe', up: 'Up, +Y', down: 'Down, −Y' })[one]}
              onChoose={(green) => set({ green })}
            />
          ) : (
            <TextField
              label="Occlusion in colour"
              type="number"
              value={file.occlusion}
              onChange={(event) => set({ occlusion: Math.min(1, Math.max(0, Number(event.target.value))) })}
              slotProps={{ htmlInput: { min: 0, max: 1, step: 0.05 } }}
            />
          )}
          <Choose
            label="Channels"
            value={count}
            options={COUNTS}
            words={(one) => COUNT_WORDS[one]}
            onChoose={(next) =>
              set({ channels: Array.from({ length: next }, (_, k) => channels[k] ?? PLAIN) })
            }
          />
        </Box>
        {channels.map((channel, k) => (
          <ChannelEditor
            // biome-ignore lint/suspicious/noArrayIndexKey: a channel is known by its place
            key={k}
            index={k}
            isGrey={count === 1}
            channel={channel}
            picture={looked?.channels[k]}
            onChange={(next) => set({ channels: channels.map((one, at) => (at === k ? next : one)) })}
          />
        ))}
        {children}
      </Box>
      <Look looked={looked} isBusy={isBusy} />
    </Box>
  );
}
