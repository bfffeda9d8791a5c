// Fuzz: `npm run fuzz` goes through 20,000 messages and as many settings, and tells how long the slowest took; the unit
// test goes through a few. Nothing may throw, and nothing stops what comes after it.
import { demoSetup } from '../demo/setup';
import { attachmentBytes, attachmentList, bodyBlocks, filesOf } from '../src/core/mail/body';
import { joinedParagraphs } from '../src/core/mail/flow';
import { isUnreadable } from '../src/core/mail/envelopeSchema';
import { anchorsOf } from '../src/core/mail/links';
import { MboxSplitter, sniffMail, type Form } from '../src/core/mail/mbox';
import { messageOfStored } from '../src/core/mail/message';
import { shownBlocks } from '../src/core/mail/shown';
import { stretches } from '../src/core/mail/quoted';
import { checkSetup, parseSetup } from '../src/core/line/setup';
import { readScript, scriptOf } from '../src/core/rules/sieve/read';
import { registerFromCsv, registerToCsv } from '../src/core/senders/registerCsv';
import { readBatch } from '../src/mailroom/reading/readMessages';
import { chance, type Random } from './chance';
import { bytesOf, madeMessage, mutated, mutatedJson, mutatedText } from './fuzzing';
import { realMessages } from './realMessages';

/** What took longest for its length. */
export interface Slowest {
  /** Milliseconds a megabyte; what is shorter than a tenth of one counts as that. */
  rate: number;
  what: string;
}

/** So long each may take, in milliseconds a megabyte. */
const most = 250;

/** What seems to take longer is timed so many times more, unless nobody asks how long it takes. */
const oftener = 9;

export interface FuzzFigures {
  count: number;
  megabytes: number;
  seconds: number;
  /** How many took longer than {@link most}. */
  slow: number;
  slowest: Slowest;
}

const good = bytesOf('From: a@b.test\r\nSubject: Good\r\nMessage-ID: <good@b.test>\r\n\r\nThe words\r\n');

/** What is done with a message, each by itself: read as an import does, then opened as a person does, in both forms. */
function acts(bytes: Uint8Array, form: Form): Act[] {
  const read = async () => {
    const batch = await readBatch([bytes, good], form, true);
    if (isUnreadable(batch.envelopes[0])) throw new Error(batch.envelopes[0].damage ?? 'unreadable');
    if (batch.envelopes[1].subject !== 'Good' || batch.envelopes.length !== 2)
      throw new Error('It stopped the next one.');
  };
  const open = (plain: boolean) => () => {
    const { raw, structure } = messageOfStored({ bytes, form });
    for (const { kind, content } of shownBlocks(bodyBlocks(raw, structure, plain)))
      if (kind === 'html') anchorsOf(content);
      else stretches(joinedParagraphs(content));
    const list = attachmentList(raw, structure);
    if (list.length > 0) attachmentBytes(raw, structure, list.length - 1);
    if (plain) filesOf(raw, structure);
  };
  return [read, open(true), open(false)];
}

type Act = () => void | Promise<void>;
/** What is tried, with its length: `acts` are timed one by one, and each may take as long as the length allows. */
type Maker = (random: Random) => { length: number; acts: Act[]; show: () => string };

async function fuzz(count: number, seed: number, again: number, make: Maker): Promise<FuzzFigures> {
  const random = chance(seed);
  const slowest: Slowest = { rate: 0, what: '' };
  let length = 0;
  let slow = 0;
  const begun = performance.now();
  for (let n = 0; n < count; n++) {
    const one = make(random);
    const timed = async (act: Act) => {
      const from = performance.now();
      await act();
      return (performance.now() - from) / Math.max(0.1, one.length / 1e6);
    };
    let rate = 0;
    try {
      for (const act of one.acts) {
        let its = await timed(act);
        // The machine may have been at something else: what seems slow is timed again.
        for (let n = 0; n < again && its > most; n++) its = Math.min(its, await timed(act));
        rate = Math.max(rate, its);
      }
    } catch (error) {
      throw new Error(`${n} of seed ${seed}: ${String(error)}\n${one.show().slice(0, 2_000)}`, { cause: error });
    }
    if (rate > most) slow++;
    if (rate > slowest.rate)
      Object.assign(slowest, { rate, what: `${n}: ${JSON.stringify(one.show().slice(0, 300))}` });
    length += one.length;
  }
  return { count, megabytes: length / 1e6, seconds: (performance.now() - begun) / 1_000, slow, slowest };
}

const latin = (bytes: Uint8Array) => Buffer.from(bytes).toString('latin1');

/** Messages: real ones altered, and made ones. */
export function fuzzMessages(count: number, seed = 1, again = oftener): Promise<FuzzFigures> {
  const real = realMessages();
  return fuzz(count, seed, again, (random) => {
    const bytes = random(2)
      ? mutated(real[random(real.length)], random)
      : random(2)
        ? madeMessage(random)
        : mutated(madeMessage(random), random);
    const form = random(3) ? 'eml' : 'mbox';
    return { length: bytes.length, acts: acts(bytes, form), show: () => latin(bytes) };
  });
}

/** Files of mail: told what they are, and parted. Nothing of an mbox is lost. */
export function fuzzFiles(count: number, seed = 2, again = oftener): Promise<FuzzFigures> {
  const real = realMessages().slice(0, 400);
  return fuzz(count, seed, again, (random) => {
    const wrapped = Array.from(
      { length: 1 + random(4) },
      () => `From x@y.test Thu Aug 22 12:36:23 2002\n${latin(real[random(real.length)])}\n`,
    );
    const bytes = mutated(Uint8Array.from(Buffer.from(wrapped.join(''), 'latin1')), random);
    const run = () => {
      sniffMail(bytes.subarray(0, 65_536));
      const splitter = new MboxSplitter();
      let length = 0;
      for (let at = 0; at < bytes.length; at += 10_000)
        for (const message of splitter.push(bytes.slice(at, at + 10_000))) length += message.length;
      for (const message of splitter.end()) length += message.length;
      if (length > bytes.length) throw new Error(`${length} bytes came out of ${bytes.length}`);
    };
    return { length: bytes.length, acts: [run], show: () => latin(bytes) };
  });
}

/** A card as address books write it (RFC 6350), with a folded line, a picture and parameters. */
const card = [
  'BEGIN:VCARD',
  'VERSION:4.0',
  'FN:Ana Höchst',
  'N:Höchst;Ana;;Dr.;',
  'EMAIL;TYPE=work;PREF=1:ana@harbour.example',
  'TEL;VALUE=uri;TYPE="voice,home":tel:+47-000-000',
  'NOTE:Said on the quay\\, twice\\;\\n',
  ' and folded',
  'PHOTO;ENCODING=b;TYPE=JPEG:/9j/4AAQSkZJRgABAQAAAQABAAD',
  'CATEGORIES:crew,harbour',
  'END:VCARD',
  '',
].join('\r\n');

/** Cards, which nothing here reads: whoever is given one by mistake refuses it, or takes what it can, and in time. */
export function fuzzCards(count: number, seed = 4, again = oftener): Promise<FuzzFigures> {
  const setup = demoSetup(Date.UTC(2026, 10, 24, 12));
  return fuzz(count, seed, again, (random) => {
    const text = mutatedText(card.repeat(1 + random(40)), random);
    const bytes = bytesOf(text);
    let id = 0;
    const readers: Act[] = [
      () => {
        sniffMail(bytes.subarray(0, 65_536));
        const splitter = new MboxSplitter();
        splitter.push(bytes);
        splitter.end();
      },
      () => void parseSetup(text),
      () => void registerFromCsv(text, 'blocked', 0),
      () => void readScript(text, setup, () => `n${id++}`),
      ...acts(bytes, 'eml'),
    ];
    return { length: bytes.length, acts: readers, show: () => text };
  });
}

/** Files of settings: the setup as text and as JSON, the Register as CSV, rules as Sieve. */
export function fuzzSettings(count: number, seed = 3, again = oftener): Promise<FuzzFigures> {
  const setup = demoSetup(Date.UTC(2026, 10, 24, 12));
  const [json, csv, sieve] = [JSON.stringify(setup, null, 2), registerToCsv(setup.register), scriptOf(setup).script];
  return fuzz(count, seed, again, (random) => {
    const kind = random(4);
    const text =
      kind === 0
        ? mutatedText(json, random)
        : kind === 1
          ? (JSON.stringify(mutatedJson(setup, random)) ?? 'null')
          : mutatedText(kind === 2 ? csv : sieve, random);
    const run = () => {
      if (kind <= 1) {
        const read = parseSetup(text);
        // What is taken can be written, and taken again.
        if (read.ok && !checkSetup(JSON.parse(JSON.stringify(read.setup))).ok)
          throw new Error('It is not taken again.');
        if (read.ok) scriptOf(read.setup);
      } else if (kind === 2) {
        const read = registerFromCsv(text, 'blocked', 0);
        if (read.wrong.some(({ reason }) => !reason)) throw new Error('A row is wrong without a reason.');
      } else {
        let id = 0;
        readScript(text, setup, () => `n${id++}`);
      }
    };
    return { length: text.length, acts: [run], show: () => `${['json', 'setup', 'csv', 'sieve'][kind]} ${text}` };
  });
}
