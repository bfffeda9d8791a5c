// Features: what the model weighs of a message, each a kind and a word, hashed into a fixed number of slots.
import { hashed } from '../data/hash';
import { domainOf, domainsUp } from '../mail/address';
import { signalsOf } from './signals';
import type { JunkReading } from './junkReading';
import { eachLetters, wordOfPiece } from './letters';
import { eachPiece } from './pieces';
import {
  begun,
  featureKinds,
  firstLetterSlot,
  longestWord,
  slotOf,
  slotOfWord,
  slots,
  type NamedFeature,
  type Visit,
} from './slots';
import { unitKind } from './unitKinds';

const subjectShape = /!+|\?+/g;
const signalKind = featureKinds.indexOf('signal');

/** The words of a text, at least two letters long. Scripts without spaces are read in pairs of characters. */
function eachWord(kind: number, text: string, visit: Visit): void {
  const start = begun(kind);
  const { length } = text;
  let [from, hash, before] = [0, start, 0];
  /** What the word at hand is made of; 1 between words. */
  let word = 1;
  for (let at = 0; at <= length; at++) {
    const unit = at < length ? text.charCodeAt(at) : 32;
    const its = unitKind(unit);
    if (its !== word) {
      if (word === 2 && at - from > 1) visit(slotOf(hash), kind, text, from, Math.min(at, from + longestWord));
      word = its;
      from = at;
      hash = start;
    } else if (its === 3) visit(slotOf(hashed(hashed(start, before), unit)), kind, text, at - 1, at + 1);
    if (its === 2 && at - from < longestWord) hash = hashed(hash, unit);
    before = unit;
  }
}

/** Every feature of a message in turn, with repetitions. */
function eachFeature(reading: JunkReading, bulk: boolean, visit: Visit): void {
  const whole = (kind: number, word: string, says?: string) =>
    visit(slotOfWord(kind, word), kind, word, 0, word.length, says);
  const text = reading.text.toLowerCase();
  eachWord(0, text, visit);
  const subject = reading.subject.toLowerCase().replace(/^(?:(?:re|fwd?)\s*:\s*)+/, '');
  eachWord(1, subject, visit);
  for (const marks of subject.match(subjectShape) ?? []) whole(1, marks);
  const address = reading.from.address.toLowerCase();
  whole(2, address);
  for (const domain of domainsUp(domainOf(address))) whole(2, domain);
  eachWord(3, reading.from.name.toLowerCase(), visit);
  for (const host of new Set(reading.links.map((link) => link.host)))
    for (let at = 0, part = 0; at >= 0 && part < 4; part++) {
      whole(4, host.slice(at));
      at = host.indexOf('.', at) + 1 || -1;
    }
  for (const { name, says } of signalsOf(reading, bulk)) whole(signalKind, name, says);
  eachPiece(reading, visit);
  eachLetters(reading, text, visit);
}

/** A bit for each slot: whether the message at hand has it. All zero between messages. */
const seen = new Uint32Array(slots / 32);
/** What was found of the message at hand. No message has more features than there are slots. */
const found = new Uint32Array(slots);

/** The slots of a message's features, each once, ascending. `bulk`: as in {@link signalsOf}. */
export function featuresOf(reading: JunkReading, bulk = true): Uint32Array<ArrayBuffer> {
  eachFeature(reading, bulk, (slot) => {
    seen[slot >>> 5] |= 1 << (slot & 31);
  });
  let n = 0;
  for (let at = 0; at < seen.length; at++) {
    let bits = seen[at];
    if (bits === 0) continue;
    seen[at] = 0;
    for (; bits !== 0; bits &= bits - 1) found[n++] = at * 32 + 31 - Math.clz32(bits & -bits);
  }
  return found.slice(0, n);
}

/** The features of a message by name. Of those that share a slot the first stands for it. */
export function namedFeaturesOf(reading: JunkReading, bulk = true): NamedFeature[] {
  const out = new Map<number, NamedFeature>();
  eachFeature(reading, bulk, (slot, kind, source, from, to, says) => {
    if (out.has(slot)) return;
    const word = slot < firstLetterSlot ? source.slice(from, to) : wordOfPiece(kind, source, from, to);
    out.set(slot, { slot, kind: featureKinds[kind], word, says: says ?? null });
  });
  return [...out.values()];
}
