export { crateFileNames, type EncodedFile, encodeCrate, manifestName } from './crate.ts';
export { decodePicture, LIMITS, type PictureFacts, readFacts } from './decode.ts';
export { encodeFile, encodeForScreen, encodeSmall, plainPicture } from './encode.ts';
export { sha256Of } from './hash.ts';
export { sourceHost } from './host.ts';
export { type ReadBack, readBack } from './read-back.ts';
export { writeWhole } from './write.ts';
