import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { STATION_NAMES } from '@zesty-tile/core';
import { Link } from 'react-router';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { STATION_WORDS } from '../../bench/words.ts';
import { FIGURES, GREY } from '../../theme.ts';
import { SIGN, STATE_COLOUR, VerdictWords } from '../../verdict.tsx';
import { useProjects } from '../../yard/queries.ts';
import { toneDown, useProof } from './use-proof.ts';

const percent = (share: number) => `${Math.round(100 * share)}%`;

/** Spots that will be seen repeating, each to be toned down or repaired. */
function Spots() {
  const repeats = useBench((s) => s.repeats);
  const most = useBench((s) => s.recipe.stations.proof.most);
  const tileId = useBench((s) => s.tileId);
  const calmed = useBench((s) => s.recipe.stations.join.repairs.filter(({ kind }) => kind === 'calm').length);
  const shown = repeats.slice(0, most);
  return (
    <Box component="section" aria-label="What will be seen repeating" sx={{ display: 'grid', gap: 0.5 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          Seen repeating
        </Typography>
        {shown.length > 1 && (
          <Button sx={pressable(false)} onClick={() => toneDown(shown)}>
            Tone all down
          </Button>
        )}
      </Box>
      {shown.length === 0 && <span style={{ color: GREY.soft }}>Nothing stands out.</span>}
      <Box component="ol" aria-label="Spots" sx={{ m: 0, p: 0, listStyle: 'none' }}>
        {shown.map((spot, k) => (
          <Box
            component="li"
            key={`${spot.x} ${spot.y} ${spot.sigma}`}
            onPointerEnter={() => useProof.setState({ marked: k })}
            onPointerLeave={() => useProof.setState({ marked: null })}
            sx={{
              display: 'flex',
              alignItems: 'center',
              gap: 0.75,
              py: 0.25,
              borderBottom: `1px solid ${GREY.line}`,
            }}
          >
            <strong style={{ width: 18 }}>{k + 1}</strong>
            <span style={{ font: `11.5px ${FIGURES}`, flex: 1, whiteSpace: 'nowrap' }}>
              {spot.strength.toFixed(1)}× at {percent(spot.x)} {percent(spot.y)}
            </span>
            <Button
              sx={pressable(false)}
              aria-label={`Tone spot ${k + 1} down`}
              onClick={() => toneDown([spot])}
            >
              Tone down
            </Button>
            <Button
              sx={pressable(false)}
              component={Link}
              to={`/tiles/${tileId}/join`}
              aria-label={`Repair spot ${k + 1} at Join`}
            >
              Repair
            </Button>
          </Box>
        ))}
      </Box>
      {calmed > 0 && (
        <span style={{ color: GREY.soft }}>
          {calmed === 1 ? '1 spot is' : `${calmed} spots are`} toned down; they stand among the repairs of
          Join.
        </span>
      )}
    </Box>
  );
}

/** Every station's verdict, with the way to the station that mends it. */
function AllVerdicts() {
  const found = useBench((s) => s.found);
  const tileId = useBench((s) => s.tileId);
  return (
    <Box component="section" aria-label="All verdicts" sx={{ display: 'grid', gap: 0.25 }}>
      <Box sx={{ display: 'flex', alignItems: 'center' }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          All verdicts
        </Typography>
        <Button sx={pressable(false)} component={Link} to={`/tiles/${tileId}/sheet`}>
          Proof sheet
        </Button>
      </Box>
      {STATION_NAMES.map((name) => {
        const verdict = found[name]?.verdict;
        return (
          <Box
            key={name}
            sx={{
              display: 'grid',
              gridTemplateColumns: '70px 1fr',
              gap: 1,
              py: 0.5,
              borderBottom: `1px solid ${GREY.line}`,
            }}
          >
            <Link to={`/tiles/${tileId}/${name}`} style={{ color: 'inherit' }}>
              {STATION_WORDS[name]}
            </Link>
            {verdict ? (
              <span style={{ lineHeight: 1.35 }}>
                <span style={{ color: STATE_COLOUR[verdict.state], fontWeight: 700 }}>
                  {SIGN[verdict.state]}{' '}
                </span>
                {verdict.sentence} {verdict.advice && <strong>{verdict.advice}</strong>}
              </span>
            ) : (
              <span style={{ color: GREY.soft }}>Measuring …</span>
            )}
          </Box>
        );
      })}
    </Box>
  );
}

/** A density that is off by more than this factor is worth a look. */
const SLACK = 1.5;

/** The tile's pixels for each metre against what the project wants. */
function Density() {
  const { size, edgeMetres } = useBench((s) => s.recipe.stations.square);
  const projectId = useBench((s) => s.projectId);
  const { data } = useProjects();
  const wanted = data?.projects.find(({ id }) => id === projectId)?.density ?? null;
  if (wanted === null) return null;
  const has = size / edgeMetres;
  const isOff = has > wanted * SLACK || has < wanted / SLACK;
  return (
    <Box data-testid="density">
      <VerdictWords
        state={isOff ? 'look' : 'fine'}
        words={`${Math.round(has)} px per metre; the project wants ${wanted}.`}
      />
      {isOff && ' Choose another size or edge in Square.'}
    </Box>
  );
}

/** What Proof offers beside its dials. */
export function ProofTools() {
  return (
    <>
      <Density />
      <Spots />
      <AllVerdicts />
    </>
  );
}
