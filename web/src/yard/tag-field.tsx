import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import { GREY } from '../theme.ts';

interface TagFieldProps {
  tags: string[];
  known: string[];
  onTags(tags: string[]): void;
}

/** Words to find a tile by; new ones are written, known ones picked. */
export function TagField({ tags, known, onTags }: TagFieldProps) {
  return (
    <Autocomplete
      multiple
      freeSolo
      size="small"
      options={known}
      value={tags}
      onChange={(_event, next) => onTags([...new Set(next.map((tag) => tag.trim().toLowerCase()))])}
      slotProps={{ chip: { size: 'small' } }}
      renderInput={(params) => (
        <TextField
          {...params}
          placeholder={tags.length === 0 ? 'Add a tag' : ''}
          slotProps={{
            ...params.slotProps,
            htmlInput: { ...params.slotProps?.htmlInput, 'aria-label': 'Tags' },
          }}
        />
      )}
      sx={{ '& .MuiInputBase-root': { bgcolor: GREY.card } }}
    />
  );
}
