import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { isApplied, type SetupProposal, STATIONS } from '@zesty-tile/core';
import type { ComponentType } from 'react';
import { Link } from 'react-router';
import { NumberDial } from '../bench/dials/number-dial.tsx';
import { pressable } from '../bench/pressed.ts';
import { useBench } from '../bench/state.ts';
import { STATION_WORDS } from '../bench/words.ts';
import { StandsOut } from '../stations/relief/stands-out.tsx';
import { GREY } from '../theme.ts';
import { choose, switchProposal, useSetup } from './use-setup.ts';

function EdgeQuestion() {
  const edgeMetres = useBench((s) => s.recipe.stations.square.edgeMetres);
  return (
    <NumberDial
      setting={STATIONS.square.settings.edgeMetres}
      value={edgeMetres}
      onChange={(value) => useBench.getState().setDial('square', 'edgeMetres', value)}
    />
  );
}

/** Questions that are answered by more than the press of a button. */
const QUESTIONS: Record<string, ComponentType> = { edge: EdgeQuestion, reading: StandsOut };

/** Answers to the same question, each with its colour. */
function Alternatives({ proposal }: { proposal: SetupProposal }) {
  const recipe = useBench((s) => s.recipe);
  return (
    <Box sx={{ display: 'grid', gap: 0.5 }} role="group" aria-label="Other answers">
      {proposal.alternatives?.map(({ title, swatch, settings }) => (
        <Button
          key={title}
          aria-pressed={isApplied(recipe, settings)}
          onClick={() => void choose(proposal, title, settings)}
          sx={{ ...pressable(isApplied(recipe, settings)), justifyContent: 'flex-start', gap: 1 }}
        >
          <span style={{ width: 22, height: 22, background: swatch, border: `1px solid ${GREY.line}` }} />
          {title}
        </Button>
      ))}
    </Box>
  );
}

/** Why something was proposed, and what can be done about it. */
export function ProposalCard({ proposal, onClose }: { proposal: SetupProposal; onClose(): void }) {
  const { id, station, reason, settings, isGuess, alternatives } = proposal;
  const applied = useBench((s) => isApplied(s.recipe, settings));
  const tileId = useSetup((s) => s.tileId);
  const Question = QUESTIONS[id];
  return (
    <Box sx={{ p: 2, width: 350, display: 'grid', gap: 1.25 }}>
      <Typography variant="h2">{proposal.title}</Typography>
      <div>{reason}</div>
      {Question ? <Question /> : alternatives && <Alternatives proposal={proposal} />}
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        {isGuess && (
          <Button variant="contained" onClick={() => void choose(proposal).then(onClose)}>
            Confirm
          </Button>
        )}
        <Button component={Link} to={`/tiles/${tileId}/${station}`} onClick={onClose}>
          Show in {STATION_WORDS[station]}
        </Button>
        {settings.length > 0 && (
          <Button onClick={() => switchProposal(proposal)}>{applied ? 'Undo this' : 'Apply again'}</Button>
        )}
      </Box>
    </Box>
  );
}
