import Box from '@mui/material/Box';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { isTileAlready, STATION_NAMES, type StationName } from '@zesty-tile/core';
import { Fragment, useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { Thumbnail } from '../../engine/protocol.ts';
import { Meaning, OwnWord } from '../../own-word.tsx';
import { GREY, ZEST } from '../../theme.ts';
import { VerdictWords } from '../../verdict.tsx';
import { useBench } from '../state.ts';
import { STATION_WORDS } from '../words.ts';

function Small({ picture }: { picture: Thumbnail | null }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (context && picture)
      context.putImageData(new ImageData(picture.rgba, picture.width, picture.height), 0, 0);
  }, [picture]);
  return (
    <Box sx={{ height: 64, display: 'grid', placeItems: 'center' }}>
      {picture ? (
        <canvas ref={canvas} width={picture.width} height={picture.height} style={{ borderRadius: 2 }} />
      ) : (
        <Box sx={{ width: 64, height: 64, bgcolor: GREY.walls, borderRadius: 0.5 }} />
      )}
    </Box>
  );
}

function Stop({ station, open }: { station: StationName; open: boolean }) {
  const found = useBench((s) => s.found[station]);
  const tileId = useBench((s) => s.tileId);
  const working = useBench((s) => s.busy?.station === station);
  const name = STATION_WORDS[station];
  return (
    <Meaning word={name} isSaid={open}>
      <Box
        component={Link}
        to={`/tiles/${tileId}/${station}`}
        aria-current={open ? 'step' : undefined}
        data-station={station}
        sx={{
          flex: 1,
          minWidth: 0,
          position: 'relative',
          display: 'flex',
          flexDirection: 'column',
          alignItems: 'center',
          gap: 0.25,
          pt: 1.25,
          pb: 0.75,
          color: GREY.ink,
          textDecoration: 'none',
          textAlign: 'center',
          borderTop: `4px solid ${open ? ZEST : 'transparent'}`,
          bgcolor: open ? GREY.card : 'transparent',
          borderInline: `1px solid ${open ? GREY.line : 'transparent'}`,
          '&:hover': { bgcolor: GREY.card },
        }}
      >
        <Small picture={found?.thumbnail ?? null} />
        <Box sx={{ height: 2, width: 64 }}>
          {working && (
            <LinearProgress color="primary" sx={{ height: 2 }} aria-label={`${name} is computing`} />
          )}
        </Box>
        <Typography component="span" sx={{ fontWeight: 600, fontSize: 13 }}>
          <OwnWord word={name} />
        </Typography>
        <Typography
          component="span"
          noWrap
          sx={{ fontSize: { xs: 10.5, lg: 12 }, maxWidth: '100%', letterSpacing: '-0.02em' }}
        >
          {found ? <VerdictWords state={found.verdict.state} words={found.verdict.brief} /> : '…'}
        </Typography>
      </Box>
    </Meaning>
  );
}

/** Stations with nothing to do for a tile that starts without a photo, or that is a tile already. */
const IDLE: readonly StationName[] = ['square', 'even', 'join'];

/** In the place of stations with nothing to do: one press shows them. */
const Collapsed = ({ onShow }: { onShow(): void }) => (
  <Box
    component="button"
    type="button"
    aria-label={`Show ${IDLE.map((name) => STATION_WORDS[name]).join(', ')}: nothing to do`}
    onClick={onShow}
    sx={{
      flex: 'none',
      width: 84,
      px: 0.5,
      font: 'inherit',
      fontSize: 12,
      lineHeight: 1.35,
      color: GREY.soft,
      bgcolor: 'transparent',
      border: 0,
      cursor: 'pointer',
      '&:hover': { bgcolor: GREY.card },
    }}
  >
    {IDLE.map((name) => (
      <div key={name}>{STATION_WORDS[name]}</div>
    ))}
    <div>nothing to do</div>
  </Box>
);

/** The strip of stations: where one moves, sees each stage alone, and reads its verdict. */
export function Course() {
  const station = useBench((s) => s.station);
  // What is to be looked at is never hidden.
  const isTile = useBench(
    ({ recipe, found }) =>
      isTileAlready(recipe) && IDLE.every((name) => (found[name]?.verdict.state ?? 'fine') === 'fine'),
  );
  const [isShown, setShown] = useState(false);
  const isCollapsed = isTile && !isShown && !IDLE.includes(station);
  const names = isCollapsed ? STATION_NAMES.filter((name) => !IDLE.includes(name)) : STATION_NAMES;
  return (
    <Box
      component="nav"
      aria-label="Course"
      sx={{
        height: 132,
        flex: 'none',
        display: 'flex',
        bgcolor: GREY.sheet,
        borderTop: `1px solid ${GREY.line}`,
        px: 1,
      }}
    >
      {names.map((name) => (
        <Fragment key={name}>
          <Stop station={name} open={name === station} />
          {isCollapsed && name === 'source' && <Collapsed onShow={() => setShown(true)} />}
        </Fragment>
      ))}
    </Box>
  );
}
