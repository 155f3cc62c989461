import type { ShownView } from './protocol.ts';

const isShared = ({ buffer }: Float32Array): boolean => !(buffer instanceof ArrayBuffer);

/** A plane for the page: itself where both see its memory, which nobody writes any more; else a copy, as the cache keeps its own. */
export const toHandOut = (plane: Float32Array): Float32Array => (isShared(plane) ? plane : plane.slice());

/** Memory that goes to the page with a view. */
export const buffersOf = ({ rgba, planes }: ShownView): Transferable[] =>
  [rgba, ...planes.filter((plane) => !isShared(plane))].map((one) => one.buffer as ArrayBuffer);
