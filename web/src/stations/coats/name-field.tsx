import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';

const LONGEST = 60;

/** The name of a coat, a group or a saved stack, taken when it is left or Enter is pressed. */
export function NameField({
  label,
  name,
  onName,
}: {
  label: string;
  name: string;
  onName(name: string): void;
}) {
  const [draft, setDraft] = useState(name);
  useEffect(() => setDraft(name), [name]);
  return (
    <TextField
      value={draft}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={() => {
        const next = draft.trim().slice(0, LONGEST);
        if (next && next !== name) onName(next);
        else setDraft(name);
      }}
      onKeyDown={(event) => event.key === 'Enter' && (event.target as HTMLElement).blur()}
      slotProps={{ htmlInput: { 'aria-label': label } }}
      sx={{ flex: 1, minWidth: 0, '& input': { py: 0.5 } }}
    />
  );
}
