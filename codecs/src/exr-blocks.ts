import { inflateSync } from 'node:zlib';
import { type ExrHeader, exrDamaged } from './exr-header.ts';

const incomplete = () => exrDamaged('not all of its blocks are there');

/** Tiles of every level across or down, as the table of offsets counts them. */
function tilesOf(length: number, tile: number, levels: number, roundUp: boolean): number[] {
  return Array.from({ length: levels }, (_, level) => {
    const exact = length / 2 ** level;
    const reduced = Math.max(1, roundUp ? Math.ceil(exact) : Math.floor(exact));
    return Math.ceil(reduced / tile);
  });
}

/** Entries of the table of offsets, and blocks of the full-size picture, which come first. */
function countBlocks({ width, height, block, tiled }: ExrHeader): { entries: number; blocks: number } {
  if (!tiled) {
    const blocks = Math.ceil(height / block.height);
    return { entries: blocks, blocks };
  }
  const steps = Math.log2(Math.max(width, height));
  const levels = tiled.levels === 'one' ? 1 : 1 + (tiled.roundUp ? Math.ceil(steps) : Math.floor(steps));
  const across = tilesOf(width, block.width, levels, tiled.roundUp);
  const down = tilesOf(height, block.height, levels, tiled.roundUp);
  const entries = across.reduce((sum, count, level) => sum + count * down[level], 0);
  return { entries, blocks: across[0] * down[0] };
}

/** @throws Problem `damaged` where a zlib stream unpacks to anything but at most `most` bytes. */
function checkInflated(packed: Uint8Array, most: number): void {
  try {
    inflateSync(packed, { maxOutputLength: Math.max(1, most) });
  } catch {
    throw exrDamaged('a block does not unpack to its size');
  }
}

/** The eleven lengths before the rules of a block in DWA compression, in bytes. */
const DWA_LENGTHS = 11 * 8;
const DEFLATE = 1;

/** Checks the lengths in a DWA block, and that its packed parts unpack to no more than the block can hold. */
function checkDwa(data: Uint8Array, raw: number): void {
  const view = new DataView(data.buffer, data.byteOffset, data.byteLength);
  const bad = () => exrDamaged('a block has wrong lengths');
  if (data.length < DWA_LENGTHS + 2) throw bad();
  const lengths = Array.from({ length: 11 }, (_, k) => Number(view.getBigUint64(8 * k, true)));
  const [, , , packedAc, packedDc, packedRle, , rawRle, countAc, , acCompression] = lengths;
  if (lengths.some((length) => length > 2 * raw + DWA_LENGTHS)) throw bad();
  const rules = view.getUint16(DWA_LENGTHS, true);
  let at = DWA_LENGTHS + rules;
  if (rules < 2 || at > data.length) throw bad();
  const part = (length: number) => {
    if (at + length > data.length) throw bad();
    at += length;
    return data.subarray(at - length, at);
  };
  if (packedAc > 0 && acCompression === DEFLATE) checkInflated(part(countAc), 2 * raw);
  else part(packedAc);
  if (packedDc > 0) checkInflated(part(packedDc), 2 * raw);
  if (rawRle > 0) checkInflated(part(packedRle), 2 * raw);
}

/** Checks that a block in a packed form cannot unpack to more than its pixels. */
function checkPacked({ compression }: ExrHeader, data: Uint8Array, raw: number): void {
  // What is not smaller than its samples is stored as it is.
  if (data.length === raw) return;
  if (compression === 'none') throw incomplete();
  if (compression === 'zip' || compression === 'zips' || compression === 'pxr24') checkInflated(data, raw);
  if (compression === 'dwaa' || compression === 'dwab') checkDwa(data, raw);
}

/**
 * Checks that every block of an OpenEXR picture is in the file, once, within its bounds: the decoder reads the blocks one
 * after the other, trusts their lengths, and takes what is missing for black.
 * @throws Problem `damaged`.
 */
export function checkExrBlocks(bytes: Uint8Array, header: ExrHeader): void {
  const { width, height, top, block, tiled, pixelBytes } = header;
  const { entries, blocks } = countBlocks(header);
  let at = header.length + 8 * entries;
  const before = tiled ? 20 : 8;
  if (at + blocks * before > bytes.length) throw incomplete();
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const across = tiled ? Math.ceil(width / block.width) : 1;
  const down = Math.ceil(height / block.height);
  const seen = new Uint8Array(blocks);
  for (let k = 0; k < blocks; k++) {
    if (at + before > bytes.length) throw incomplete();
    const int = (offset: number) => view.getInt32(at + offset, true);
    const x = tiled ? int(0) : 0;
    const y = tiled ? int(4) : (int(0) - top) / block.height;
    const isTop = !tiled || (int(8) === 0 && int(12) === 0);
    if (!isTop || !Number.isInteger(y) || x < 0 || x >= across || y < 0 || y >= down) throw incomplete();
    if (seen[y * across + x]) throw incomplete();
    seen[y * across + x] = 1;
    const columns = Math.min(block.width, width - x * block.width);
    const raw = columns * Math.min(block.height, height - y * block.height) * pixelBytes;
    const length = view.getUint32(at + before - 4, true);
    at += before;
    if (length < 1 || length > raw || at + length > bytes.length) throw incomplete();
    checkPacked(header, bytes.subarray(at, at + length), raw);
    at += length;
  }
}
