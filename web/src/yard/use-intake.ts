import { useQueryClient } from '@tanstack/react-query';
import { type NamedSet, setsOf } from '@zesty-tile/core';
import { useRef, useState } from 'react';
import { baseName, makeTileOf, storePicture } from '../api/upload.ts';
import { wordsOf } from '../api/words-of.ts';
import { useWhereFrom } from '../stations/source/where-from.tsx';

/** How far the taking in of dropped files is. */
export interface Intake {
  /** The file being read now, and which of how many it is. */
  at: { name: string; index: number; of: number } | null;
  /** What was refused, and why. */
  problems: { name: string; words: string }[];
}

/** A file that no picture program would open is left out of a folder without a word. */
const mayBePicture = (file: File) => /\.(png|jpe?g|webp|tiff?|exr)$/i.test(file.name);

/**
 * Takes dropped photos in, one tile each, one after the other; one alone opens at once. Pictures whose names make
 * them a set wait until it is said what each is.
 */
export function useIntake(projectId: () => Promise<string>, onOne: (tileId: string) => void) {
  const queries = useQueryClient();
  const [intake, setIntake] = useState<Intake>({ at: null, problems: [] });
  const [sets, setSets] = useState<NamedSet<File>[]>([]);
  const stopped = useRef(false);
  const refresh = () => {
    void queries.invalidateQueries({ queryKey: ['tiles'] });
    void queries.invalidateQueries({ queryKey: ['projects'] });
  };
  const take = async (files: File[]) => {
    const pictures = files.length > 1 ? files.filter(mayBePicture) : files;
    const named = setsOf(pictures);
    const asked = named.filter((one) => one.files.length > 1);
    const wanted = named.filter((one) => one.files.length === 1).map((one) => one.files[0].file);
    setSets((now) => [...now, ...asked]);
    if (pictures.length === 0) {
      if (files.length > 0) {
        const words = 'None of these files is a PNG, JPEG, WebP, TIFF or OpenEXR picture.';
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
        const picture = await storePicture(file);
        const first = { source: useWhereFrom.getState() };
        made = (await makeTileOf(picture, await projectId(), baseName(file.name), first)).id;
        refresh();
      } catch (error) {
        problems.push({ name: file.name, words: wordsOf(error) });
      }
    }
    setIntake({ at: null, problems });
    if (wanted.length === 1 && asked.length === 0 && made) onOne(made);
  };
  return {
    intake,
    take,
    /** The first set that waits to be asked about. */
    set: sets[0] ?? null,
    endSet: (tileId: string | null) => {
      setSets((now) => now.slice(1));
      if (!tileId) return;
      refresh();
      if (sets.length === 1) onOne(tileId);
    },
    stop: () => {
      stopped.current = true;
    },
  };
}
