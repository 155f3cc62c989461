import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { useRef, useState } from 'react';
import { saveFile } from '../../../api/save-file.ts';
import { GREY } from '../../../theme.ts';
import { pressable } from '../../pressed.ts';
import { useBench } from '../../state.ts';
import { takeStill } from '../frame/painter.tsx';
import { STILL_GLYPH } from '../glyphs.tsx';
import { SillChoice, SillPopover, SillRow, StateChoice } from '../sill-popover.tsx';
import { useSill } from '../state.ts';
import { notTraced } from '../traced/behind.ts';
import { STILL_FRAMES, STILL_PATHS, STILL_SIZES, TURN_SIZES } from './choices.ts';
import { stillFacts, withFacts } from './still-facts.ts';
import { PICTURES, type Turning, takeTurntable } from './turntable.ts';

const frameWords = (count: number): string => (count === 1 ? 'As it moves' : `${count}`);

const MEANING = {
  moving: 'One frame, as while something moves; corners are not darkened.',
  frames: 'The mean of many frames: soft shadows, the sky hidden where it is, smooth edges.',
  paths:
    'Light is followed from surface to surface. Without a graphics card the first picture comes after a minute or more, and the page waits meanwhile.',
};

const FILES = [
  ['png', 'PNG'],
  ['exr', 'OpenEXR'],
] as const;

/** What is known of a picture that is being taken. */
interface Taking {
  onShare(share: number): void;
  signal: AbortSignal;
}

/** One piece of work at a time, with how far it is, Stop, and what is said at its end. */
function useTaking() {
  const [share, setShare] = useState<number | null>(null);
  const [words, setWords] = useState('');
  const stopping = useRef<AbortController | null>(null);
  const run = async (name: string, work: (taking: Taking) => Promise<Blob | null>) => {
    const stop = new AbortController();
    stopping.current = stop;
    setShare(0);
    setWords('');
    try {
      const blob = await work({ onShare: setShare, signal: stop.signal });
      if (blob) saveFile(blob, name);
      else
        setWords(
          stop.signal.aborted ? 'Stopped. No file was saved.' : 'There is no lit view to take a picture of.',
        );
    } catch (error) {
      setWords(
        error instanceof Error && error.message.endsWith('.')
          ? error.message
          : 'The picture could not be drawn: the graphics memory may be full. Choose a smaller size.',
      );
    } finally {
      setShare(null);
    }
  };
  return { share, words, run, stop: () => stopping.current?.abort() };
}

type Run = ReturnType<typeof useTaking>['run'];

/** Begins of the names of files. */
const useFileName = (): string => {
  const shape = useSill((s) => s.shape);
  const tileId = useBench((s) => s.tileId);
  return `${shape}-${tileId.slice(0, 8)}`;
};

/** How one still is lit, what is behind, its file, and its sizes to take. */
function StillRows({ run, isBarred }: { run: Run; isBarred: boolean }) {
  const { shape, around, stillSky, stillFormat, stillLight } = useSill();
  const { isTraced, samples } = stillLight;
  const name = useFileName();
  const isPlace = shape === 'scene' || shape === 'field';
  // A place always shows its sky; behind a shape it is seen in the Sill too.
  const hasSky = isPlace ? stillSky : around.background;
  const setBehind = (isSeen: boolean) =>
    useSill.setState(isPlace ? { stillSky: isSeen } : { around: { ...around, background: isSeen } });
  return (
    <>
      <SillChoice<number>
        words="Frames"
        label="Frames of a still"
        value={isTraced ? 0 : samples}
        options={STILL_FRAMES.map((value) => [value, frameWords(value)] as const)}
        onChange={(value) => useSill.setState({ stillLight: { isTraced: false, samples: value } })}
      />
      <SillChoice<number>
        words="Traced"
        label="Paths of light from each pixel"
        value={isTraced ? samples : 0}
        options={STILL_PATHS.map((value) => [value, `${value} paths`] as const)}
        onChange={(value) => useSill.setState({ stillLight: { isTraced: true, samples: value } })}
      />
      <StateChoice of="stillFormat" words="File" label="File of a still" options={FILES} />
      <SillChoice<'sky' | 'nothing'>
        words="Behind"
        label="Behind what stands"
        value={hasSky ? 'sky' : 'nothing'}
        options={[
          ['sky', 'Surroundings'],
          ['nothing', 'Nothing'],
        ]}
        onChange={(value) => setBehind(value === 'sky')}
      />
      <SillRow words="Take, px">
        {STILL_SIZES.map((edge) => (
          <Button
            key={edge}
            sx={pressable(false)}
            disabled={isBarred}
            aria-label={`Still of ${edge} px`}
            onClick={() =>
              void run(`${name}-${edge}.${stillFormat}`, async (taking) => {
                const still = await takeStill({
                  edge,
                  ...stillLight,
                  format: stillFormat,
                  turned: 0,
                  ...taking,
                });
                return still && withFacts(still, stillFormat, stillFacts(edge, stillLight));
              })
            }
          >
            {edge}
          </Button>
        ))}
      </SillRow>
    </>
  );
}

const LIGHT_TURNS = ['light', 'Light'] as const;

/** What turns, into which file, and the sizes to take. */
function TurnRows({ run, isBarred }: { run: Run; isBarred: boolean }) {
  const { shape, stillLight } = useSill();
  const name = useFileName();
  const [turning, setTurning] = useState<Turning>('light');
  const [film, setFilm] = useState<'webm' | 'zip'>('webm');
  const isPlace = shape === 'scene' || shape === 'field';
  const turns: Turning = isPlace ? 'light' : turning;
  return (
    <>
      <Typography variant="h2" sx={{ mt: 1 }}>
        One turn, {PICTURES} pictures
      </Typography>
      <SillChoice<Turning>
        words="Turns"
        label="What turns"
        value={turns}
        options={isPlace ? [LIGHT_TURNS] : [LIGHT_TURNS, ['shape', 'Shape']]}
        onChange={setTurning}
      />
      <SillChoice<'webm' | 'zip'>
        words="File"
        label="File of a turn"
        value={film}
        options={[
          ['webm', 'WebM'],
          ['zip', 'PNG zip'],
        ]}
        onChange={setFilm}
      />
      <SillRow words="Take, px">
        {TURN_SIZES.map((edge) => (
          <Button
            key={edge}
            sx={pressable(false)}
            disabled={isBarred}
            aria-label={`Turn of ${edge} px`}
            onClick={() =>
              void run(`${name}-turn-${edge}.${film}`, (taking) =>
                takeTurntable({ turning: turns, file: film, edge, light: stillLight, ...taking }),
              )
            }
          >
            {edge}
          </Button>
        ))}
      </SillRow>
    </>
  );
}

/** Takes pictures of what the Sill shows, as large as one likes, and films of one turn. */
export function StillPanel() {
  const { isTraced, samples } = useSill((s) => s.stillLight);
  const { share, words, run, stop } = useTaking();
  const problem = useSill(notTraced);
  const isBarred = share !== null || (isTraced && problem !== '');
  const meaning = isTraced ? MEANING.paths : samples > 1 ? MEANING.frames : MEANING.moving;
  return (
    <SillPopover words="Still" icon={STILL_GLYPH} label="Still of the Sill" isOn={share !== null}>
      <StillRows run={run} isBarred={isBarred} />
      <TurnRows run={run} isBarred={isBarred} />
      {share !== null && (
        <div style={{ display: 'flex', alignItems: 'center', gap: 8 }}>
          <LinearProgress variant="determinate" value={100 * share} sx={{ flex: 1 }} aria-label="Still" />
          <Button sx={pressable(false)} onClick={stop}>
            Stop
          </Button>
        </div>
      )}
      <div role="status" style={{ color: GREY.soft, fontSize: 12, minHeight: 18 }}>
        {words || (isTraced && problem) || meaning}
      </div>
    </SillPopover>
  );
}
