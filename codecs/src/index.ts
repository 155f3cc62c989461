export { crateFileNames, type EncodedFile, encodeCrate, manifestName } from './crate.ts';
export { decodePicture, LIMITS, type PictureFacts, readFacts } from './decode.ts';
export { encodeForScreen, encodePng, encodeSmall, plainPicture } from './encode.ts';
export { sha256Of } from './hash.ts';
export { sourceHost } from './host.ts';
export { writeWhole } from './write.ts';
