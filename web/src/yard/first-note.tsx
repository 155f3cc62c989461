import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useNavigate } from 'react-router';
import { setSettings, useSettings } from '../settings/settings.ts';
import { GREY, ZEST } from '../theme.ts';
import { WALK } from '../walk/steps.ts';
import { useWalk } from '../walk/use-walk.ts';

/** Three sentences at the first visit, and never again; with a tile there is, a walk over it is offered. */
export function FirstNote({ tileId }: { tileId: string | undefined }) {
  const seen = useSettings((s) => s.firstNoteSeen);
  const navigate = useNavigate();
  if (seen) return null;
  const close = () => setSettings({ firstNoteSeen: true });
  return (
    <Box
      role="note"
      aria-label="Getting started"
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 1,
        bgcolor: GREY.card,
        border: `1px solid ${GREY.line}`,
        borderLeft: `4px solid ${ZEST}`,
        borderRadius: 1,
        px: 2,
        py: 1,
        mb: 2,
      }}
    >
      <span style={{ flex: 1 }}>
        Every surface here is a tile: drop a photo to make one, or open one of those below. A photo sets
        itself up, and each step can be seen and taken back. Everything is saved as you go; press ? for keys
        and words.
      </span>
      {tileId && (
        <Button
          onClick={() => {
            close();
            useWalk.setState({ at: { tileId, step: 0 } });
            navigate(`/tiles/${tileId}/${WALK[0].station}`);
          }}
        >
          Walk me through
        </Button>
      )}
      <Button variant="contained" onClick={close}>
        Got it
      </Button>
    </Box>
  );
}
