// The model as a file: short, exact, and refused with the reason where it is cut, spoilt, or newer than this program.
//
//     "WSJM"  version  word bits  shift  count of weights (4 bytes)  checksum (4 bytes)  then for each weight that is
//     not zero a varint: eight times how many slots lie between, and up to 6 how large the weight divided by 2^shift is
//     (zigzag, less one), or 7, and by how much it is larger as another varint. Most weights take one byte.
import { hashOf } from '../data/hash';
import { slots, wordBits } from './slots';
import { JunkModel } from './model';

const magic = [0x57, 0x53, 0x4a, 0x4d];
/** The version that is written. Its features are those of features.ts: others mean another version. */
export const modelVersion = 4;
const headSize = 15;
/** What says that a weight is larger. */
const beyond = 7;

/**
 * Writes a model. `shift`: how many of the lowest bits of each weight are rounded away; 0 keeps it exactly, 12 is
 * enough for judging.
 */
export function writeModel({ weights }: JunkModel, shift = 0): Uint8Array<ArrayBuffer> {
  const body: number[] = [];
  const varint = (n: number) => {
    for (; n >= 0x80; n = Math.floor(n / 0x80)) body.push((n % 0x80) | 0x80);
    body.push(n);
  };
  let [last, count] = [-1, 0];
  for (const [slot, weight] of weights.entries()) {
    const rounded = Math.round(weight / 2 ** shift);
    if (rounded === 0) continue;
    const size = rounded < 0 ? -rounded * 2 - 2 : rounded * 2 - 1;
    varint((slot - last - 1) * 8 + Math.min(size, beyond));
    if (size >= beyond) varint(size - beyond);
    last = slot;
    count++;
  }
  const out = new Uint8Array(headSize + body.length);
  out.set(magic);
  out.set([modelVersion, wordBits, shift], 4);
  out.set(body, headSize);
  const view = new DataView(out.buffer);
  view.setUint32(7, count);
  view.setUint32(11, hashOf(out.subarray(headSize)));
  return out;
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
  if (hashOf(bytes.subarray(headSize)) !== view.getUint32(11)) return no('This model is cut off or spoilt.');
  const weights = new Int32Array(slots);
  let at = headSize;
  const varint = () => {
    let [n, factor] = [0, 1];
    for (;;) {
      const byte = bytes[at++] ?? 0;
      n += (byte & 0x7f) * factor;
      if (byte < 0x80) return n;
      factor *= 0x80;
    }
  };
  let slot = -1;
  for (let left = view.getUint32(7); left > 0; left--) {
    const n = varint();
    slot += Math.floor(n / 8) + 1;
    const size = n % 8 < beyond ? n % 8 : beyond + varint();
    if (slot >= slots || at > bytes.length) return no('This model is cut off or spoilt.');
    weights[slot] = (size % 2 ? (size + 1) / 2 : -(size + 2) / 2) * 2 ** shift;
  }
  return { ok: true, model: new JunkModel(weights) };
}
