export { type EncodedFile, type FileProgress, type MadeCrate, makeCrate } from './assemble.ts';
export { type CrateSet, crateSet } from './crate-set.ts';
export { diskProblem, onDisk } from './disk.ts';
export { makeFolder } from './make-folder.ts';
export type { Manifest, ManifestFile } from './manifest.ts';
export { partName } from './part.ts';
export { recoverFolder, refuseExisting, type Staging, stageSet } from './place.ts';
export { type ReadBack, readBack } from './read-back.ts';
export { syncFolder, writeWhole } from './write.ts';
