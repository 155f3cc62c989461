import { type NamedSet, roleOfContents, UNCHANGED } from '@zesty-tile/core';
import * as v from 'valibot';
import type { FirstSettings } from '../../api/first-recipe.ts';

/** What is needed of a crate's manifest to take its pictures in again. */
const manifestSchema = v.object({
  name: v.string(),
  edgeMetres: v.number(),
  reliefMm: v.number(),
  files: v.array(
    v.object({
      file: v.string(),
      contents: v.array(v.string()),
      normalY: v.nullable(v.picklist(['+Y', '-Y'])),
      inside: v.optional(v.nullable(v.string())),
      width: v.number(),
    }),
  ),
});
type CrateManifest = v.InferOutput<typeof manifestSchema>;

/** What a crate says of the set in it. */
export interface CrateFacts {
  /** Names of all files of the crate. */
  files: string[];
  /** Settings that its pictures were made with, and that are kept: they are calibrated already. */
  first: FirstSettings;
}

/** A set with what its crate says of it; of other sets nothing is known. */
export interface CrateSet {
  set: NamedSet<File>;
  facts: CrateFacts | null;
}

/** A manifest by the name of its file. */
export const isManifest = (file: File): boolean => /\.tile\.json$/i.test(file.name);

async function manifestIn(file: File): Promise<CrateManifest | null> {
  try {
    const read = v.safeParse(manifestSchema, JSON.parse(await file.text()));
    return read.success ? read.output : null;
  } catch {
    return null;
  }
}

/**
 * The set of pictures that a crate's manifest names, each read by what the manifest says is in it; of pictures that hold
 * the same the largest alone. Null where the file is no manifest, or none of its pictures is among the files.
 */
export async function setOfCrate(manifest: File, files: readonly File[]): Promise<CrateSet | null> {
  const known = await manifestIn(manifest);
  if (!known) return null;
  const { name, edgeMetres, reliefMm } = known;
  const seen = new Set<string>();
  const members = [...known.files]
    .sort((a, b) => b.width - a.width)
    .flatMap(({ file: called, contents, normalY }): NamedSet<File>['files'] => {
      const file = files.find((one) => one.name === called);
      const read = roleOfContents(contents);
      const same = contents.join();
      if (!file || !read || seen.has(same)) return [];
      seen.add(same);
      const green = normalY === null ? null : normalY === '-Y' ? 'down' : 'up';
      return [{ file, read: { ...read, isSure: true, stem: name, green } }];
    });
  if (members.length === 0) return null;
  const first: FirstSettings = {
    ...UNCHANGED,
    square: { ...UNCHANGED.square, edgeMetres },
    relief: { depthMm: reliefMm },
  };
  return {
    set: { stem: name, files: members },
    facts: { files: known.files.map(({ file }) => file), first },
  };
}
