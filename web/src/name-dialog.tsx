import Button from '@mui/material/Button';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { type FormEvent, useState } from 'react';
import { wordsOf } from './api/words-of.ts';
import { EditDialog } from './edit-dialog.tsx';

interface NameDialogProps {
  title: string;
  label: string;
  /** What the name is now. */
  name?: string;
  action: string;
  /** @throws what the server says against the name; it is shown under the field. */
  onName(name: string): Promise<void>;
  onClose(): void;
}

/** Asks for one name. */
export function NameDialog({ title, label, name = '', action, onName, onClose }: NameDialogProps) {
  const [text, setText] = useState(name);
  const [problem, setProblem] = useState('');
  const take = async (event: FormEvent) => {
    event.preventDefault();
    try {
      await onName(text);
      onClose();
    } catch (error) {
      setProblem(wordsOf(error));
    }
  };
  return (
    <EditDialog onClose={onClose} aria-labelledby="name-title" fullWidth maxWidth="xs">
      <form onSubmit={take}>
        <DialogTitle id="name-title">{title}</DialogTitle>
        <DialogContent>
          <TextField
            label={label}
            fullWidth
            autoFocus
            value={text}
            error={problem !== ''}
            helperText={problem || ' '}
            onChange={(event) => setText(event.target.value)}
            onFocus={(event) => event.target.select()}
            sx={{ mt: 1 }}
          />
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={text.trim() === ''}>
            {action}
          </Button>
        </DialogActions>
      </form>
    </EditDialog>
  );
}
