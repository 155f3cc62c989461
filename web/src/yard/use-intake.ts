import { useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { makeTileFrom } from '../api/upload.ts';
import { wordsOf } from '../api/words-of.ts';

/** How far the taking in of dropped files is. */
export interface Intake {
  /** The file being read now, and which of how many it is. */
  at: { name: string; index: number; of: number } | null;
  /** What was refused, and why. */
  problems: { name: string; words: string }[];
}

/** A file that no picture program would open is left out of a folder without a word. */
const mayBePicture = (file: File) => /\.(png|jpe?g|webp|tiff?)$/i.test(file.name);

/** Takes dropped photos in, one tile each, one after the other; one alone opens at once. */
export function useIntake(projectId: () => Promise<string>, onOne: (tileId: string) => void) {
  const queries = useQueryClient();
  const [intake, setIntake] = useState<Intake>({ at: null, problems: [] });
  const stopped = useRef(false);
  const take = async (files: File[]) => {
    const wanted = files.length > 1 ? files.filter(mayBePicture) : files;
    if (wanted.length === 0) {
      if (files.length > 0) {
        const words = 'None of these files is a PNG, JPEG, WebP or TIFF picture.';
        setIntake({ at: null, problems: [{ name: `${files.length} files`, words }] });
      }
      return;
    }
    stopped.current = false;
    const problems: Intake['problems'] = [];
    let made = '';
    for (const [index, file] of wanted.entries()) {
      if (stopped.current) break;
      setIntake({ at: { name: file.name, index: index + 1, of: wanted.length }, problems: [...problems] });
      try {
        made = (await makeTileFrom(file, await projectId())).id;
        void queries.invalidateQueries({ queryKey: ['tiles'] });
        void queries.invalidateQueries({ queryKey: ['projects'] });
      } catch (error) {
        problems.push({ name: file.name, words: wordsOf(error) });
      }
    }
    setIntake({ at: null, problems });
    if (wanted.length === 1 && made) onOne(made);
  };
  return {
    intake,
    take,
    stop: () => {
      stopped.current = true;
    },
  };
}
