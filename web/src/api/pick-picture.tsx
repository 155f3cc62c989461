import Button from '@mui/material/Button';
import { useRef, useState } from 'react';
import { pressable } from '../bench/pressed.ts';
import { type StoredPicture, storePicture } from './upload.ts';
import { wordsOf } from './words-of.ts';

interface PickPictureProps {
  /** What is on the button. */
  words: string;
  /** What the file is for. */
  label: string;
  /** Makes of the file what is stored. @throws Error in plain words. */
  prepare?(file: File): Promise<File>;
  onPicture(picture: StoredPicture): void;
}

/** A button that takes one picture from this machine into the store. */
export function PickPicture({ words, label, prepare, onPicture }: PickPictureProps) {
  const file = useRef<HTMLInputElement>(null);
  const [state, setState] = useState('');
  const take = async (given: File | undefined) => {
    if (!given) return;
    setState('Being read …');
    try {
      onPicture(await storePicture(prepare ? await prepare(given) : given));
      setState('');
    } catch (error) {
      setState(wordsOf(error));
    }
  };
  return (
    <>
      <Button sx={pressable(false)} onClick={() => file.current?.click()}>
        {words}
      </Button>
      <input
        ref={file}
        type="file"
        hidden
        accept="image/*,.tif,.tiff,.exr"
        aria-label={label}
        onChange={(event) => {
          void take(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
      {state && <span role="status">{state}</span>}
    </>
  );
}
