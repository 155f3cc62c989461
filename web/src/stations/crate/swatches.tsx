import Box from '@mui/material/Box';
import { contentsOf, type ProfileFile } from '@zesty-tile/core';
import { FIGURES, GREY } from '../../theme.ts';

export const CHANNEL_COLOURS = ['#c0392b', '#2e8b57', '#2f6fd0', '#ffffff'];

/** A channel's colour. */
export function Swatch({ channel }: { channel: number }) {
  return (
    <span
      aria-hidden="true"
      style={{
        display: 'inline-block',
        width: 9,
        height: 9,
        marginRight: 4,
        background: CHANNEL_COLOURS[channel],
        border: `1px solid ${GREY.ink}`,
      }}
    />
  );
}

/** What is in red, green, blue and alpha of a file, each beside its colour. */
export function Swatches({ file }: { file: Pick<ProfileFile, 'channels'> }) {
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 1.25, color: GREY.soft }}>
      {contentsOf(file as ProfileFile).map((words, k) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a channel is known by its place
        <span key={k} style={{ font: `11px ${FIGURES}`, whiteSpace: 'nowrap' }}>
          <Swatch channel={k} />
          {words}
        </span>
      ))}
    </Box>
  );
}
