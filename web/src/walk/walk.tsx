import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { GREY, ZEST } from '../theme.ts';
import { WALK } from './steps.ts';
import { endWalk, useWalk } from './use-walk.ts';

const RING = 4;

/** Where what is meant lies in the window, followed while it moves. */
function usePlaceOf(target: string): DOMRect | null {
  const [place, setPlace] = useState<DOMRect | null>(null);
  useEffect(() => {
    let frame = 0;
    let last = '';
    const follow = () => {
      const next = document.querySelector(target)?.getBoundingClientRect() ?? null;
      const told = JSON.stringify(next);
      if (told !== last) setPlace(next);
      last = told;
      frame = requestAnimationFrame(follow);
    };
    follow();
    return () => cancelAnimationFrame(frame);
  }, [target]);
  return place;
}

/** A ring around what is meant; it lets every press through. */
function Ring({ target }: { target: string }) {
  const place = usePlaceOf(target);
  if (!place) return null;
  // Within the window, so that all of the ring is seen.
  const [left, top] = [Math.max(RING, place.left), Math.max(RING, place.top)];
  return (
    <Box
      aria-hidden
      sx={{
        position: 'fixed',
        zIndex: 1200,
        pointerEvents: 'none',
        left,
        top,
        width: Math.min(innerWidth - RING, place.right) - left,
        height: Math.min(innerHeight - RING, place.bottom) - top,
        outline: `${RING}px solid ${ZEST}`,
        borderRadius: 1,
      }}
    />
  );
}

/** Five looks at a tile, one part of the Bench after the other; everything can be used meanwhile. */
export function Walk({ tileId, onCrate }: { tileId: string; onCrate(): void }) {
  const at = useWalk((s) => s.at);
  const navigate = useNavigate();
  const step = at?.tileId === tileId ? WALK[at.step] : null;
  const station = step?.station;
  // biome-ignore lint/correctness/useExhaustiveDependencies: each step opens its station once
  useEffect(() => {
    if (station) navigate(`/tiles/${tileId}/${station}`);
  }, [station]);
  if (!at || !step) return null;
  const isLast = at.step === WALK.length - 1;
  const go = (by: number) => useWalk.setState({ at: { tileId, step: at.step + by } });
  return (
    <>
      <Ring target={step.target} />
      <Box
        role="dialog"
        aria-label={`Walk, step ${at.step + 1} of ${WALK.length}`}
        sx={{
          position: 'fixed',
          zIndex: 1201,
          left: 24,
          bottom: 152,
          width: 340,
          p: 2,
          display: 'grid',
          gap: 1,
          bgcolor: GREY.card,
          color: GREY.ink,
          border: `1px solid ${GREY.line}`,
          borderLeft: `4px solid ${ZEST}`,
          borderRadius: 1,
          boxShadow: '0 6px 24px rgb(0 0 0 / 0.3)',
        }}
      >
        <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1 }}>
          <Typography variant="h2">{step.title}</Typography>
          <span style={{ color: GREY.soft }}>
            {at.step + 1} of {WALK.length}
          </span>
        </Box>
        <span>{step.words}</span>
        <Box sx={{ display: 'flex', gap: 1 }}>
          <Button variant="text" onClick={endWalk} sx={{ mr: 'auto' }}>
            Skip
          </Button>
          {at.step > 0 && <Button onClick={() => go(-1)}>Back</Button>}
          {isLast ? (
            <Button
              variant="contained"
              onClick={() => {
                endWalk();
                onCrate();
              }}
            >
              Crate it
            </Button>
          ) : (
            <Button variant="contained" onClick={() => go(1)}>
              Next
            </Button>
          )}
        </Box>
      </Box>
    </>
  );
}
