// Checksums of records: over the key and everything in it, so that a record that was cut, altered or put in the place of
// another is not taken for what was written.
import { hashed, hashOf, hashOfText, hashSeed } from '../../core/data/hash';
import { remembering } from '../../core/data/memo';

const scratch = new Float64Array(1);
const scratchWords = new Uint32Array(scratch.buffer);

/** The hash of typed values by their bytes, four at a time. */
function hashOfView(view: ArrayBufferView, seed: number): number {
  const aligned = view.byteOffset % 4 === 0;
  const { buffer, byteOffset } = aligned
    ? view
    : new Uint8Array(view.buffer.slice(view.byteOffset, view.byteOffset + view.byteLength));
  const words = view.byteLength >> 2;
  const hash = hashOf(new Uint32Array(buffer, byteOffset, words), hashed(seed, view.byteLength));
  return hashOf(new Uint8Array(buffer, byteOffset + words * 4, view.byteLength % 4), hash);
}

/** The hash of a text, two characters at a time: most of what a mailbox stores is text. */
function hashOfString(text: string, seed: number): number {
  let hash = hashed(seed, text.length);
  const even = text.length & ~1;
  for (let at = 0; at < even; at += 2) hash = hashed(hash, text.charCodeAt(at) | (text.charCodeAt(at + 1) << 16));
  return even < text.length ? hashed(hash, text.charCodeAt(even)) : hash;
}

/** The hash of the name of a field: there are few names, and a great many fields. */
const hashOfName = remembering((name) => hashOfText(name));

function hashOfValue(value: unknown, seed: number): number {
  if (typeof value === 'string') return hashOfString(value, seed);
  if (typeof value === 'number') {
    scratch[0] = value;
    return hashOf(scratchWords, seed);
  }
  if (typeof value === 'boolean') return hashed(seed, value ? 2 : 1);
  if (typeof value !== 'object' || value === null) return hashed(seed, 0);
  if (ArrayBuffer.isView(value)) return hashOfView(value, seed);
  if (Array.isArray(value)) {
    let hash = hashed(seed, value.length);
    for (const item of value) hash = hashOfValue(item, hash);
    return hash;
  }
  // A sum, so that the order of the fields is of no account.
  let sum = 0;
  for (const name of Object.keys(value)) {
    const its = (value as Record<string, unknown>)[name];
    // What is not there and what is undefined come back alike.
    if (its !== undefined) sum = (sum + hashOfValue(its, hashOfName(name))) | 0;
  }
  return hashed(seed, sum);
}

/** The checksum of what a record holds under a key: 32 bits. */
export const checksumOf = (key: string, content: unknown): number =>
  hashOfValue(content, hashOfText(key, hashSeed)) >>> 0;
