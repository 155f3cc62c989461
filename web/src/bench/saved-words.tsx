import Typography from '@mui/material/Typography';
import { momentWords } from '../moment.ts';
import { useSave } from './save.ts';

/** The state of saving, in words. */
export function SavedWords() {
  const state = useSave((s) => s.state);
  const words = {
    saved: state.kind === 'saved' && state.at ? `Saved ${momentWords(state.at)}` : 'Saved',
    changed: 'Changed',
    saving: 'Saving …',
    away: 'Offline: kept in this browser, will save when the server is back',
    refused: state.kind === 'refused' ? state.message : '',
    conflict: 'Changed in another window',
  }[state.kind];
  const bad = state.kind === 'away' || state.kind === 'refused' || state.kind === 'conflict';
  return (
    <Typography
      component="span"
      role="status"
      data-testid="saved"
      color={bad ? 'warning' : 'text.secondary'}
      sx={{ fontWeight: bad ? 600 : 400 }}
    >
      {bad ? '▲ ' : ''}
      {words}
    </Typography>
  );
}
