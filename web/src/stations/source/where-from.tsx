import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import { create } from 'zustand';

/** What is said of pictures that are taken in next; it goes into the manifests of their tiles. */
export interface WhereFrom {
  origin: string;
  licence: string;
}

export const useWhereFrom = create<WhereFrom>(() => ({ origin: '', licence: '' }));

interface WhereFromFieldsProps extends WhereFrom {
  onChange(next: Partial<WhereFrom>): void;
}

const LONGEST = 500;

/** Origin and licence of a picture, in the user's own words. */
export function WhereFromFields({ origin, licence, onChange }: WhereFromFieldsProps) {
  return (
    <Box sx={{ display: 'grid', gap: 1, width: '100%' }}>
      <TextField
        label="Origin"
        placeholder="own photo, a name, an address"
        value={origin}
        onChange={(event) => onChange({ origin: event.target.value })}
        slotProps={{ htmlInput: { maxLength: LONGEST }, inputLabel: { shrink: true } }}
      />
      <TextField
        label="Licence"
        placeholder="own, CC0-1.0, bought for this game"
        value={licence}
        onChange={(event) => onChange({ licence: event.target.value })}
        slotProps={{ htmlInput: { maxLength: LONGEST }, inputLabel: { shrink: true } }}
      />
    </Box>
  );
}
