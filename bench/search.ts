// `npm run bench -- --search`: finding and clearing out on real messages, at 10,000 and 100,000: queries beside MiniSearch and a
// plain scan, the index while importing and in memory, the table of senders, a clear-out of most of it. In Node.js.
import { freemem } from 'node:os';
import { getHeapStatistics } from 'node:v8';
import MiniSearch from 'minisearch';
import { Message, toMbox } from '../src/core';
import { everythingGoes } from '../src/core/clearout/clearOut';
import { bodyText } from '../src/core/mail/body';
import { envelopeOf, parseEnvelope } from '../src/core/mail/envelope';
import { foldSearch } from '../src/core/text/fold';
import { parseStructure } from '../src/core/mail/structure';
import { parseQuery } from '../src/core/search/query';
import { TextBatchWriter } from '../src/core/search/textBatch';
import { TextSegments } from '../src/core/search/segments';
import { act } from '../src/mailroom/commands/acts';
import { importFiles } from '../src/mailroom/intake/importFiles';
import { Mailbox } from '../src/mailroom/service/mailbox';
import { readBatch } from '../src/mailroom/reading/readMessages';
import { rows } from '../src/mailroom/questions/rows';
import { senders } from '../src/mailroom/questions/senders';
import { memoryStore } from '../src/mailroom/storage/recordStore';
import { undo } from '../src/mailroom/commands/undo';
import type { View } from '../src/mailroom/border/views';
import { Random } from '../demo/random';
import { realMessages } from './realMessages';
import { someQueries } from './someQueries';
import { wordsOf } from './someRules';
import { here } from '../src/mailroom/reading/here';

const queries = 200;
/** MiniSearch takes some 20 KB for each message: where they would not fit beside the rest, it gets the first of them. */
const mostForMiniSearch = Math.max(
  10_000,
  Math.floor((Math.min(getHeapStatistics().heap_size_limit, freemem()) - 4e9) / 30_000),
);

/**
 * So many messages of real length: the corpus over and over, each time with other identifiers, other dates, and the lines
 * of its bodies mixed with those of the message before, so that no two say the same.
 */
export function* messagesOfRealLength(count: number): Generator<Uint8Array> {
  const real = realMessages().map((raw) => {
    const text = Buffer.from(raw).toString('latin1');
    const at = /\r?\n\r?\n/.exec(text)?.index ?? text.length;
    return { header: text.slice(0, at), body: text.slice(at).split('\n') };
  });
  for (let n = 0; n < count; n++) {
    const random = Random.of(7, n);
    const { header, body } = real[n % real.length];
    const other = real[(n * 7 + 13) % real.length].body;
    const round = Math.floor(n / real.length);
    const plain = !/^content-(type|transfer-encoding):.*(multipart|base64|quoted)/im.test(header);
    const lines = round > 0 && plain ? body.map((line, i) => (random.chance(0.3) && other[i] ? other[i] : line)) : body;
    const own = header.replace(/^message-id:.*$/im, `Message-ID: <${n}@bench.test>`);
    yield Uint8Array.from(Buffer.from(`${own}\nX-Number: ${n}\n${lines.join('\n')}`, 'latin1'));
  }
}

export async function fill(count: number): Promise<{ mailbox: Mailbox; seconds: number; raws: Uint8Array[] }> {
  const raws = [...messagesOfRealLength(count)];
  return { ...(await fillStore(raws)), raws };
}

/** Brings messages into a mailbox on a store in memory; `seconds`: how long that took. */
export async function fillStore(
  raws: readonly Uint8Array[],
): Promise<{ mailbox: Mailbox; seconds: number; records: Map<string, unknown> }> {
  const size = 5_000;
  const files = Array.from({ length: Math.ceil(raws.length / size) }, (_, at) =>
    raws.slice(at * size, (at + 1) * size),
  );
  const records = new Map<string, unknown>();
  const mailbox = await Mailbox.open(memoryStore(records), Date.now, () => undefined, here);
  let seconds = 0;
  for (const [at, some] of files.entries()) {
    const parts = some.map((raw, i) => toMbox(raw, 'eml', 'x@x.test', 0, i === some.length - 1));
    const bytes = Uint8Array.from(Buffer.concat(parts));
    const start = performance.now();
    await importFiles(
      mailbox,
      `bench-${at}`,
      [
        {
          name: `${at}.mbox`,
          size: bytes.length,
          slice: (from, to) => ({ arrayBuffer: async () => bytes.slice(from, to).buffer }),
        },
      ],
      'inbox',
      async (messages, form, judged) => ({ messages, ...(await readBatch(messages, form, judged)) }),
      1,
      { cancelled: false },
      () => undefined,
    );
    seconds += (performance.now() - start) / 1000;
  }
  await mailbox.ready();
  return { mailbox, seconds, records };
}

const at = (times: number[], share: number) =>
  times.toSorted((a, b) => a - b)[Math.min(times.length - 1, Math.floor(share * times.length))];

export async function timed(work: () => unknown): Promise<number> {
  const start = performance.now();
  await work();
  return performance.now() - start;
}

/** The seconds that the index takes of an import: its words, and taking them in. */
function indexing(raws: readonly Uint8Array[]): number {
  const some = raws.slice(0, 6_000);
  const segments = new TextSegments();
  let seconds = 0;
  for (let from = 0; from < some.length; from += 512) {
    // As an import does it: what is read for the envelope is not read again.
    const read = some.slice(from, from + 512).map((raw) => {
      const message = new Message(raw);
      envelopeOf(message);
      return message;
    });
    const start = performance.now();
    const writer = new TextBatchWriter();
    for (const message of read) writer.add(message);
    const batch = writer.batch();
    for (const i of read.keys()) segments.add(batch, i);
    seconds += (performance.now() - start) / 1000;
  }
  return (seconds / some.length) * raws.length;
}

interface Figures {
  count: number;
  bodies: number;
  import: number;
  indexShare: number;
  indexMemory: number;
  warming: number;
  queries: number[];
  short: number[];
  words: number[];
  scan: number[];
  mini: { count: number; build: number; memory: number; words: number[] };
  senders: number;
  clearOut: number;
  clearOutCount: number;
  undo: number;
}

/** The same words asked of a plain scan and of MiniSearch. */
async function references(raws: readonly Uint8Array[], single: readonly string[]) {
  const documents = raws.map((raw, id) => {
    const { from, to, subject, attachments } = parseEnvelope(raw);
    const people = [from, ...to].map((a) => `${a.name} ${a.address}`).join(' ');
    const names = attachments.map(({ name }) => name ?? '').join(' ');
    return { id, subject, people, body: bodyText(raw, parseStructure(raw)), attachments: names };
  });
  const folded = documents.map(({ subject, people, body, attachments }) =>
    foldSearch(`${subject} ${people} ${body} ${attachments}`),
  );
  const scan: number[] = [];
  for (const word of single.slice(0, 20)) {
    const sought = foldSearch(word);
    scan.push(await timed(() => folded.filter((text) => text.includes(sought)).length));
  }
  const forMini = documents.slice(0, mostForMiniSearch);
  const before = process.memoryUsage().heapUsed;
  const mini = new MiniSearch({ fields: ['subject', 'people', 'body', 'attachments'] });
  const build = await timed(() => mini.addAll(forMini));
  const memory = process.memoryUsage().heapUsed - before;
  const miniWords: number[] = [];
  for (const word of single) miniWords.push(await timed(() => mini.search(word, { prefix: true })));
  const bodies = documents.reduce((n, { body }) => n + body.length, 0) / raws.length;
  return { bodies, scan, mini: { count: forMini.length, build, memory, words: miniWords } };
}

async function measure(count: number): Promise<Figures> {
  const { mailbox, seconds, raws } = await fill(count);
  // Right after the import, in the same state of memory.
  const index = indexing(raws);
  const sample = Array.from({ length: 400 }, (_, i) => Math.floor((i * count) / 400));
  const words = wordsOf(sample.map((id) => ({ envelope: mailbox.envelopes.get(id), raw: raws[id] })));
  const ask = async (query: string): Promise<number> => {
    const view: View = { kind: 'found', query, within: null };
    const parsed = parseQuery(query);
    if (!parsed.ok) throw new Error(`${query}: ${parsed.error}`);
    const start = performance.now();
    await rows(mailbox, view, { grouped: false, elsewhere: true }, 0, 60);
    return performance.now() - start;
  };
  // As the mailroom does it some seconds after it was opened.
  const warming = await timed(() => mailbox.finding.warm());
  const mixed: number[] = [];
  for (const query of someQueries(queries, words, 3, 3)) mixed.push(await ask(query));
  const short: number[] = [];
  for (const query of someQueries(queries, words, 4)) short.push(await ask(query));
  const single = words.bodies
    .flatMap((text) => text.split(/\s+/))
    .filter((word) => /^[a-z]{4,}$/i.test(word))
    .filter((_, i, list) => i % Math.ceil(list.length / 60) === 0);
  const ours: number[] = [];
  for (const word of single) ours.push(await ask(`"${word}"`));

  const { bodies, scan, mini } = await references(raws, single);
  const question = {
    by: 'address' as const,
    only: 'all' as const,
    words: '',
    order: 'messages' as const,
    turned: false,
  };
  const table: number[] = [];
  for (let n = 0; n < 5; n++) {
    // Any change makes it anew.
    await act(mailbox, `flag-${n}`, { ids: [n] }, { do: 'flag', value: true });
    table.push(await timed(() => senders(mailbox, question, 0, 60)));
  }
  const choice = { ...everythingGoes, keepNewest: Math.round(count * 0.4) };
  const inbox: View = { kind: 'place', place: 'inbox' };
  let clearOutCount = 0;
  const clear: number[] = [];
  const back: number[] = [];
  for (let n = 0; n < 5; n++) {
    let seq = 0;
    clear.push(
      await timed(async () => {
        const done = await act(
          mailbox,
          `clear-${n}`,
          { clearOut: choice, of: inbox },
          { do: 'move', place: 'archive' },
        );
        [clearOutCount, seq] = [done.count, done.seq ?? 0];
      }),
    );
    back.push(await timed(() => undo(mailbox, `back-${n}`, seq)));
  }
  const figures: Figures = {
    count,
    bodies,
    import: seconds,
    indexShare: index / seconds,
    indexMemory: mailbox.text.texts.bytes,
    warming,
    queries: mixed,
    short,
    words: ours,
    scan,
    mini,
    senders: at(table, 0.5),
    clearOut: at(clear, 0.5),
    clearOutCount,
    undo: at(back, 0.5),
  };
  mailbox.close();
  return figures;
}

const ms = (n: number) => `${n < 10 ? n.toFixed(1) : Math.round(n).toLocaleString('en')} ms`;
const mb = (n: number) => `${Math.round(n / 1e6).toLocaleString('en')} MB`;

const lines: [name: string, value: (f: Figures) => string][] = [
  ['characters of a body, on average', (f) => Math.round(f.bodies).toLocaleString('en')],
  ['import', (f) => `${f.import.toFixed(1)} s`],
  ['  of that the text index (goal 33 %)', (f) => `${Math.round(f.indexShare * 100)} %`],
  ['text index in memory, after all queries (goal 250 MB)', (f) => mb(f.indexMemory)],
  ['made ready for the first query, while nobody asks', (f) => ms(f.warming)],
  [`${queries} mixed queries, texts of three characters and more: the middle one`, (f) => ms(at(f.queries, 0.5))],
  ['  95 of 100 under (goal 50 ms)', (f) => ms(at(f.queries, 0.95))],
  ['  the slowest (goal 200 ms)', (f) => ms(at(f.queries, 1))],
  ['with texts of one and two characters: 95 of 100 under', (f) => ms(at(f.short, 0.95))],
  ['  the slowest', (f) => ms(at(f.short, 1))],
  ['one word: the middle one', (f) => ms(at(f.words, 0.5))],
  ['  plain scan of folded texts', (f) => ms(at(f.scan, 0.5))],
  ['  times faster than the scan', (f) => `${(at(f.scan, 0.5) / at(f.words, 0.5)).toFixed(1)} x`],
  ['MiniSearch, of so many', (f) => f.mini.count.toLocaleString('en')],
  ['  to build', (f) => ms(f.mini.build)],
  ['  in memory', (f) => mb(f.mini.memory)],
  ['  one word, by its beginning: the middle one', (f) => ms(at(f.mini.words, 0.5))],
  ['table of senders (goal 200 ms)', (f) => ms(f.senders)],
  ['messages of the clear-out', (f) => f.clearOutCount.toLocaleString('en')],
  ['  acknowledged (goal 300 ms)', (f) => ms(f.clearOut)],
  ['  undone', (f) => ms(f.undo)],
];

/** Measures at each size and prints one table. */
export async function benchSearch(sizes: readonly number[]): Promise<void> {
  const columns: Figures[] = [];
  for (const size of sizes) {
    console.error(`measuring: ${size.toLocaleString('en')} …`);
    columns.push(await measure(size));
  }
  const width = Math.max(...lines.map(([name]) => name.length)) + 2;
  const cell = 14;
  console.log(''.padEnd(width) + columns.map((f) => f.count.toLocaleString('en').padStart(cell)).join(''));
  for (const [name, value] of lines)
    console.log(name.padEnd(width) + columns.map((f) => value(f).padStart(cell)).join(''));
}
