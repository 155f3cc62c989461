import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { setSettings, useSettings } from '../settings/settings.ts';
import { GREY, ZEST } from '../theme.ts';

/** Three sentences at the first visit, and never again. */
export function FirstNote() {
  const seen = useSettings((s) => s.firstNoteSeen);
  if (seen) return null;
  return (
    <Box
      role="note"
      aria-label="Getting started"
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 2,
        bgcolor: GREY.card,
        border: `1px solid ${GREY.line}`,
        borderLeft: `4px solid ${ZEST}`,
        borderRadius: 1,
        px: 2,
        py: 1,
        mb: 2,
      }}
    >
      <span>
        Every surface here is a tile: drop a photo to make one, or open one of those below. On its Bench the
        strip at the bottom is the way from photo to finished maps, station by station, and each says what it
        found. Everything is saved as you go and can be undone; press ? for the keys.
      </span>
      <Button variant="contained" sx={{ ml: 'auto' }} onClick={() => setSettings({ firstNoteSeen: true })}>
        Got it
      </Button>
    </Box>
  );
}
