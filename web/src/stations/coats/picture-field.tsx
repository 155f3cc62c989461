import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { PickPicture } from '../../api/pick-picture.tsx';
import { pressable } from '../../bench/pressed.ts';
import { GREY } from '../../theme.ts';
import { drawnSvg } from './drawn-svg.ts';

interface Ref {
  sha256: string;
  width: number;
  height: number;
  name?: string;
}

interface PictureFieldProps {
  label: string;
  picture: Ref | null;
  onPicture(picture: Ref | null): void;
}

/** The picture of a mask part or an output, taken from this machine; a drawing in SVG is drawn once. */
export const PictureField = ({ label, picture, onPicture }: PictureFieldProps) => (
  <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.75 }}>
    <span
      style={{
        color: GREY.soft,
        flex: 1,
        minWidth: 0,
        overflow: 'hidden',
        textOverflow: 'ellipsis',
        whiteSpace: 'nowrap',
      }}
    >
      {picture ? (picture.name ?? `${picture.width} × ${picture.height}`) : 'No picture yet'}
    </span>
    <PickPicture
      words={picture ? 'Another' : 'Choose …'}
      label={label}
      prepare={drawnSvg}
      onPicture={({ sha256, width, height, name }) => onPicture({ sha256, width, height, name })}
    />
    {picture && (
      <Button sx={pressable(false)} aria-label={`Remove ${label}`} onClick={() => onPicture(null)}>
        Clear
      </Button>
    )}
  </Box>
);
