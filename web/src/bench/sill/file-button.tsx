import Button from '@mui/material/Button';
import { useRef, useState } from 'react';
import { wordsOf } from '../../api/words-of.ts';
import { pressable } from '../pressed.ts';

/** A button that takes one file; what is wrong with the file is said under it. */
export function FileButton({
  words,
  label,
  accept,
  take,
}: {
  words: string;
  label: string;
  accept: string;
  /** @throws Error in plain words. */
  take(file: File): Promise<void>;
}) {
  const input = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState('');
  const given = async (file: File | undefined) => {
    if (!file) return;
    try {
      await take(file);
      setProblem('');
    } catch (error) {
      setProblem(wordsOf(error));
    }
  };
  return (
    <>
      <Button sx={pressable(false)} onClick={() => input.current?.click()}>
        {words}
      </Button>
      <input
        ref={input}
        type="file"
        hidden
        accept={accept}
        aria-label={label}
        onChange={(event) => {
          void given(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
      {problem && (
        <div role="alert" style={{ flexBasis: '100%' }}>
          {problem}
        </div>
      )}
    </>
  );
}
