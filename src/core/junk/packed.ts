// Features, packed: by how much each slot is above the one before it, most in one byte of letters and two of words. A message's
// thousand features take a third of what they take as numbers, so that three times as many are kept.
import { slots } from './slots';

/** Where features are packed. A longer gap leaves slots out, so that there are never more bytes than slots. */
const room = new Uint8Array(slots);

/** Packs features. They must be ascending, as `featuresOf` has them. */
export function packedFeatures(features: Uint32Array): Uint8Array<ArrayBuffer> {
  let [n, before] = [0, 0];
  for (const slot of features) {
    let gap = slot - before;
    before = slot;
    for (; gap >= 0x80; gap >>>= 7) room[n++] = (gap & 0x7f) | 0x80;
    room[n++] = gap;
  }
  return room.slice(0, n);
}

/** The features that were packed. */
export function unpackedFeatures(packed: Uint8Array): Uint32Array<ArrayBuffer> {
  let count = 0;
  for (let at = 0; at < packed.length; at++) if (packed[at] < 0x80) count++;
  const out = new Uint32Array(count);
  let [n, slot, shift] = [0, 0, 0];
  for (let at = 0; at < packed.length; at++) {
    slot += (packed[at] & 0x7f) << shift;
    if (packed[at] >= 0x80) shift += 7;
    else {
      out[n++] = slot;
      shift = 0;
    }
  }
  return out;
}
