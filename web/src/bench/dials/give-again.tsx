import Button from '@mui/material/Button';
import { picturesOf } from '@zesty-tile/core';
import { useRef, useState } from 'react';
import { storePicture } from '../../api/upload.ts';
import { wordsOf } from '../../api/words-of.ts';
import { useBench } from '../state.ts';
import { askAgain } from '../use-engine.ts';

/** Takes a picture that vanished from the store once more; it must be the very same file. */
export function GiveAgain() {
  const file = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState('');
  const take = async (given: File | undefined) => {
    if (!given) return;
    try {
      const { sha256 } = await storePicture(given);
      const { source, recipe } = useBench.getState();
      const wanted = [source, ...Object.values(picturesOf(recipe))].map((one) => one.sha256);
      if (!wanted.includes(sha256)) {
        setProblem(`${given.name} is a different image. Find the original file.`);
        return;
      }
      setProblem('');
      askAgain();
    } catch (error) {
      setProblem(wordsOf(error));
    }
  };
  return (
    <div>
      <Button sx={{ mt: 1 }} onClick={() => file.current?.click()}>
        Locate the image …
      </Button>
      <input
        ref={file}
        type="file"
        hidden
        aria-label="The tile’s picture, again"
        onChange={(event) => {
          void take(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
      {problem && <p role="alert">{problem}</p>}
    </div>
  );
}
