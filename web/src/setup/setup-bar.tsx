import Close from '@mui/icons-material/Close';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import LinearProgress from '@mui/material/LinearProgress';
import Popover from '@mui/material/Popover';
import { isApplied, type SetupProposal } from '@zesty-tile/core';
import { useState } from 'react';
import { useBench } from '../bench/state.ts';
import { STATION_WORDS } from '../bench/words.ts';
import { GREY } from '../theme.ts';
import { ProposalCard } from './proposal-card.tsx';
import { keepProposals, useSetup } from './use-setup.ts';

/** What a proposal comes to by the recipe as it is, and whether it still holds. */
function useNow({ id, title, settings, alternatives }: SetupProposal) {
  const recipe = useBench((s) => s.recipe);
  if (id === 'edge') return { title: `Edge ${recipe.stations.square.edgeMetres} m`, applied: true };
  const answer = alternatives?.find((one) => isApplied(recipe, one.settings));
  return {
    title: answer?.title ?? title,
    swatch: answer?.swatch,
    applied: Boolean(answer) || isApplied(recipe, settings),
  };
}

/** One proposal: its station and what it did; pressed, it tells why and takes it back. */
function ProposalButton({ proposal, onOpen }: { proposal: SetupProposal; onOpen(at: HTMLElement): void }) {
  const { title, swatch, applied } = useNow(proposal);
  return (
    <Button
      size="small"
      aria-haspopup="dialog"
      data-proposal={proposal.id}
      onClick={(event) => onOpen(event.currentTarget)}
      sx={{
        flex: 'none',
        gap: 0.75,
        fontWeight: 400,
        bgcolor: GREY.card,
        border: `1px ${proposal.isGuess ? 'dashed' : 'solid'} ${GREY.line}`,
        ...(applied ? {} : { textDecoration: 'line-through', color: GREY.soft }),
      }}
    >
      <strong>{STATION_WORDS[proposal.station]}</strong>
      {swatch && (
        <span style={{ width: 14, height: 14, background: swatch, border: `1px solid ${GREY.line}` }} />
      )}
      {title}
      {proposal.isGuess && ' ?'}
    </Button>
  );
}

/** Above the Course, until it is closed: what the setup of the photo did, each to be seen, changed and undone. */
export function SetupBar() {
  const { proposals, done } = useSetup();
  const [open, setOpen] = useState<{ id: string; at: HTMLElement } | null>(null);
  if (done !== null) {
    return (
      <Box sx={{ px: 1.5, py: 0.75, bgcolor: GREY.sheet, borderTop: `1px solid ${GREY.line}`, flex: 'none' }}>
        Setting up from the photo …
        <LinearProgress variant="determinate" value={100 * done} aria-label="Setting up from the photo" />
      </Box>
    );
  }
  if (!proposals) return null;
  const shown = proposals.find(({ id }) => id === open?.id);
  return (
    <Box
      component="section"
      aria-label="Setup"
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 1,
        px: 1.5,
        py: 0.5,
        flex: 'none',
        bgcolor: GREY.sheet,
        borderTop: `1px solid ${GREY.line}`,
      }}
    >
      <span style={{ color: GREY.soft, whiteSpace: 'nowrap' }}>
        {proposals.length > 0 ? 'Set up from the photo:' : 'Set up from the photo: the defaults suit it.'}
      </span>
      <Box sx={{ display: 'flex', gap: 0.75, overflowX: 'auto', flex: 1, minWidth: 0, py: 0.25 }}>
        {proposals.map((proposal) => (
          <ProposalButton
            key={proposal.id}
            proposal={proposal}
            onOpen={(at) => setOpen({ id: proposal.id, at })}
          />
        ))}
      </Box>
      <IconButton size="small" aria-label="Close the setup" onClick={() => void keepProposals(null)}>
        <Close fontSize="small" />
      </IconButton>
      <Popover
        open={shown !== undefined}
        anchorEl={open?.at}
        onClose={() => setOpen(null)}
        anchorOrigin={{ vertical: 'top', horizontal: 'left' }}
        transformOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{ paper: { role: 'dialog', 'aria-label': shown?.title } as object }}
      >
        {shown && <ProposalCard proposal={shown} onClose={() => setOpen(null)} />}
      </Popover>
    </Box>
  );
}
