import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { ApiError } from '../api/client.ts';
import { makeTileFrom } from '../api/upload.ts';
import { GREY } from '../theme.ts';

interface DropPlaceProps {
  projectId(): Promise<string>;
  onMade(tileId: string): void;
}

/** The first place of the Yard: drop a photo, get a tile. */
export function DropPlace({ projectId, onMade }: DropPlaceProps) {
  const [busy, setBusy] = useState('');
  const [problem, setProblem] = useState('');
  const take = async ([file]: File[]) => {
    if (!file) return;
    setProblem('');
    setBusy(file.name);
    try {
      onMade((await makeTileFrom(file, await projectId())).id);
    } catch (error) {
      const words = error instanceof ApiError ? `${error.message} ${error.hint}` : String(error);
      setProblem(`${file.name}: ${words}`);
    } finally {
      setBusy('');
    }
  };
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    onDrop: take,
    multiple: false,
    noClick: true,
    noKeyboard: true,
  });
  return (
    <Box
      {...getRootProps()}
      sx={{
        border: `2px dashed ${isDragActive ? GREY.ink : '#8f8f8f'}`,
        bgcolor: isDragActive ? GREY.card : 'transparent',
        borderRadius: 1.5,
        p: 2,
        display: 'flex',
        flexDirection: 'column',
        alignItems: 'center',
        justifyContent: 'center',
        gap: 1,
        textAlign: 'center',
        minHeight: 240,
      }}
    >
      <input {...getInputProps({ 'aria-label': 'Photo for a new tile' } as object)} />
      <Typography sx={{ fontWeight: 700, fontSize: 15 }}>Drop a photo here</Typography>
      <Typography sx={{ color: GREY.soft }}>
        PNG, JPEG, WebP or TIFF, 8 or 16 bit. It becomes a new tile.
      </Typography>
      {busy ? (
        <Box sx={{ width: '100%' }}>
          Reading {busy} …
          <LinearProgress sx={{ mt: 1 }} aria-label={`Reading ${busy}`} />
        </Box>
      ) : (
        <Button onClick={open}>Choose a photo</Button>
      )}
      {problem && (
        <Alert
          severity="error"
          variant="outlined"
          sx={{ textAlign: 'left', bgcolor: GREY.card, width: '100%', overflowWrap: 'anywhere' }}
        >
          {problem}
        </Alert>
      )}
    </Box>
  );
}
