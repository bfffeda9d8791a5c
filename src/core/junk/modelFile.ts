// The model as a file: short, exact, and refused with the reason where it is cut, spoilt, or newer than this program.
//
//     "WSJM"  version  word bits  shift  checksum (4 bytes); then for the words, and for the letters: the count of weights
//     that are not zero (4 bytes), two orders of Exp-Golomb codes (bitCodes.ts), the length of what follows (4 bytes); and for
//     each such weight as bits how many slots lie between (by the first order), and how large the weight divided by
//     2^shift is (zigzag, less one; by the second).
import { BitReader, BitWriter, orderFor } from '../data/bitCodes';
import { hashOf } from '../data/hash';
import { firstLetterSlot, slots, wordBits } from './slots';
import { JunkModel } from './model';

const magic = [0x57, 0x53, 0x4a, 0x4d];
/** The version that is written. Its features are those of features.ts: others mean another version. */
export const modelVersion = 5;
const headSize = 11;
const blockHeadSize = 10;
const blocks = [
  [0, firstLetterSlot],
  [firstLetterSlot, slots],
] as const;
const mostOrder = 31;

/** The weights of a block that are not zero: how many slots lie between, and how large they are. */
function sparse(weights: Int32Array, from: number, to: number, shift: number) {
  const gaps: number[] = [];
  const sizes: number[] = [];
  let last = from - 1;
  for (let slot = from; slot < to; slot++) {
    const rounded = Math.round(weights[slot] / 2 ** shift);
    if (rounded === 0) continue;
    gaps.push(slot - last - 1);
    sizes.push(rounded < 0 ? -rounded * 2 - 2 : rounded * 2 - 1);
    last = slot;
  }
  return { gaps, sizes };
}

const mean = (numbers: readonly number[]): number =>
  numbers.reduce((sum, n) => sum + n, 0) / Math.max(1, numbers.length);

function blockOf(weights: Int32Array, from: number, to: number, shift: number): Uint8Array {
  const { gaps, sizes } = sparse(weights, from, to, shift);
  const orders = [orderFor(mean(gaps)), orderFor(mean(sizes))];
  const bits = new BitWriter();
  for (const [i, gap] of gaps.entries()) {
    bits.number(gap, orders[0]);
    bits.number(sizes[i], orders[1]);
  }
  const body = bits.end();
  const out = new Uint8Array(blockHeadSize + body.length);
  const view = new DataView(out.buffer);
  view.setUint32(0, gaps.length);
  out.set(orders, 4);
  view.setUint32(6, body.length);
  out.set(body, blockHeadSize);
  return out;
}

/**
 * Writes a model. `shift`: how many of the lowest bits of each weight are rounded away; 0 keeps it exactly, 6 is
 * enough for judging.
 */
export function writeModel({ weights }: JunkModel, shift = 0): Uint8Array<ArrayBuffer> {
  const parts = blocks.map(([from, to]) => blockOf(weights, from, to, shift));
  const out = new Uint8Array(headSize + parts.reduce((sum, { length }) => sum + length, 0));
  out.set(magic);
  out.set([modelVersion, wordBits, shift], 4);
  let at = headSize;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  new DataView(out.buffer).setUint32(7, hashOf(out.subarray(headSize)));
  return out;
}

/** Reads the weights of a block; false where there are too few, or one beyond its last slot. */
function readBlock(bits: BitReader, weights: Int32Array, block: readonly [number, number], head: BlockHead): boolean {
  const [from, to] = block;
  let slot = from - 1;
  for (let left = head.count; left > 0; left--) {
    slot += bits.number(head.orders[0]) + 1;
    const size = bits.number(head.orders[1]);
    if (!(slot < to) || Number.isNaN(size)) return false;
    weights[slot] = (size % 2 ? (size + 1) / 2 : -(size + 2) / 2) * 2 ** head.shift;
  }
  return true;
}

interface BlockHead {
  count: number;
  orders: readonly [number, number];
  shift: number;
}

/** `older`: it is whole, but an earlier version made it, by other features. */
export type ModelResult = { ok: true; model: JunkModel } | { ok: false; error: string; older: boolean };

/** Reads a model. The error says why a file is none. */
export function readModel(bytes: Uint8Array): ModelResult {
  const no = (error: string, older = false): ModelResult => ({ ok: false, error, older });
  if (bytes.length < 5 || magic.some((byte, i) => bytes[i] !== byte)) return no('This is no junk filter model.');
  if (bytes[4] > modelVersion)
    return no(`This model has version ${bytes[4]}, which is newer than this program reads (${modelVersion}).`);
  if (bytes.length < headSize) return no('This model is cut off.');
  if (bytes[4] < modelVersion) return no('An earlier version made it, which read mail otherwise.', true);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const shift = bytes[6];
  if (bytes[5] !== wordBits || shift > 24) return no('This model was made for other features than this program reads.');
  if (hashOf(bytes.subarray(headSize)) !== view.getUint32(7)) return no('This model is cut off or spoilt.');
  const weights = new Int32Array(slots);
  let at = headSize;
  for (const block of blocks) {
    if (at + blockHeadSize > bytes.length) return no('This model is cut off or spoilt.');
    const orders = [bytes[at + 4], bytes[at + 5]] as const;
    const bits = new BitReader(bytes.subarray(at + blockHeadSize, at + blockHeadSize + view.getUint32(at + 6)));
    const whole = Math.max(...orders) <= mostOrder;
    if (!whole || !readBlock(bits, weights, block, { count: view.getUint32(at), orders, shift }))
      return no('This model is cut off or spoilt.');
    at += blockHeadSize + view.getUint32(at + 6);
  }
  return { ok: true, model: new JunkModel(weights) };
}
