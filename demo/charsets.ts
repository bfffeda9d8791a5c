// Text in the older character sets that the demo's mail is written in. Decoders are everywhere, encoders are not, so
// the table is made by decoding every byte, or pair of bytes, once.

import { decodeText } from '../src/core/mail/charset';

const tables = new Map<string, Map<string, number[]>>();

function tableOf(charset: string): Map<string, number[]> {
  let table = tables.get(charset);
  if (table) return table;
  table = new Map();
  // As mail is read: the host alone may not know all that windows-1252 has.
  const decode = (...bytes: number[]) => decodeText(Uint8Array.from(bytes), charset);
  const wide = /^(gb|shift_jis|euc-|big5)/.test(charset);
  for (let high = 0; high < 256; high++) {
    const one = decode(high);
    if (one.length === 1 && one !== '\ufffd') table.set(one, [high]);
    if (wide && high >= 0x81)
      for (let low = 0x40; low < 0xff; low++) {
        const two = decode(high, low);
        if (two.length === 1 && two !== '\ufffd' && !table.has(two)) table.set(two, [high, low]);
      }
  }
  tables.set(charset, table);
  return table;
}

/** Text as bytes of a character set; what it lacks becomes a question mark. */
export function encodeCharset(text: string, charset: string): Uint8Array {
  if (charset === 'utf-8') return new TextEncoder().encode(text);
  const table = tableOf(charset);
  const out: number[] = [];
  for (const character of text) out.push(...(table.get(character) ?? [63]));
  return Uint8Array.from(out);
}
