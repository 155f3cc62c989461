import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { useRef, useState } from 'react';
import { useWhereFrom, WhereFromFields } from '../stations/source/where-from.tsx';
import { GREY } from '../theme.ts';
import { useImport } from './import-state.ts';
import { cancelImport, keepMade } from './importing.ts';

interface DropPlaceProps {
  /** Something is held over the Yard. */
  over: boolean;
  onFiles(files: File[]): void;
  /** Tiles of a cancelled import were brought back. */
  onKept(): void;
  /** A tile is to start from one colour. */
  onPlain(): void;
}

/** The first place of the Yard: drop photos, get tiles. */
export function DropPlace({ over, onFiles, onKept, onPlain }: DropPlaceProps) {
  const photos = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);
  const { at, problems, made, isCancelled } = useImport();
  const [asking, setAsking] = useState(false);
  const whereFrom = useWhereFrom();
  const input = {
    type: 'file',
    multiple: true,
    hidden: true,
    onChange: (event: React.ChangeEvent<HTMLInputElement>) => {
      onFiles([...(event.target.files ?? [])]);
      event.target.value = '';
    },
  } as const;
  return (
    <Box
      sx={{
        border: `2px dashed ${over ? GREY.ink : GREY.soft}`,
        bgcolor: over ? GREY.card : 'transparent',
        borderRadius: 1.5,
        p: 2,
        height: '100%',
        overflowY: 'auto',
        display: 'flex',
        flexDirection: 'column',
        alignItems: 'center',
        justifyContent: 'center',
        gap: 1,
        textAlign: 'center',
      }}
    >
      <input ref={photos} aria-label="Photos for new tiles" {...input} />
      <input
        ref={folder}
        aria-label="Folder to make tiles from"
        {...input}
        {...({ webkitdirectory: '' } as object)}
      />
      {!(isCancelled && made.length > 0) && (
        <Typography sx={{ fontWeight: 700, fontSize: 15 }}>Drop or paste a photo here</Typography>
      )}
      {problems.length === 0 && !isCancelled && (
        <Typography sx={{ color: GREY.soft }}>
          or several, a folder, or a set of maps. PNG, JPEG, WebP, TIFF or OpenEXR.
        </Typography>
      )}
      {at ? (
        <Box sx={{ width: '100%', overflowWrap: 'anywhere' }}>
          {at.of > 1 ? `${at.index} of ${at.of}: ` : ''}
          {at.setUp === undefined ? 'Reading' : 'Setting up'} {at.name} …
          <LinearProgress
            sx={{ my: 1 }}
            variant={at.of > 1 || at.setUp !== undefined ? 'determinate' : 'indeterminate'}
            value={(100 * (at.index - 1 + (at.setUp ?? 0))) / at.of}
            aria-label={`Reading ${at.name}`}
          />
          <Button onClick={cancelImport}>Cancel</Button>
        </Box>
      ) : (
        <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', justifyContent: 'center' }}>
          <Button onClick={() => photos.current?.click()}>Choose photos</Button>
          <Button onClick={() => folder.current?.click()}>Choose a folder</Button>
          <Button onClick={onPlain}>Plain colour</Button>
          <Button aria-expanded={asking} onClick={() => setAsking(!asking)}>
            Origin and licence
          </Button>
        </Box>
      )}
      {isCancelled && !at && (
        <Box role="status" sx={{ color: GREY.soft, order: -1, display: 'grid', justifyItems: 'center' }}>
          Import cancelled; nothing was imported.
          {made.length > 0 && (
            <Button onClick={() => void keepMade(onKept)}>
              {made.length === 1
                ? 'Keep the one tile made before'
                : `Keep the ${made.length} tiles made before`}
            </Button>
          )}
        </Box>
      )}
      {asking && !at && (
        // Not a part of the drop place that opens files.
        <Box sx={{ width: '100%', pt: 0.5 }}>
          <WhereFromFields {...whereFrom} onChange={(next) => useWhereFrom.setState(next)} />
        </Box>
      )}
      {problems.map(({ name, words }) => (
        <Alert
          key={name}
          severity="error"
          variant="outlined"
          sx={{ textAlign: 'left', bgcolor: GREY.card, width: '100%', overflowWrap: 'anywhere' }}
        >
          {name}: {words}
        </Alert>
      ))}
    </Box>
  );
}
