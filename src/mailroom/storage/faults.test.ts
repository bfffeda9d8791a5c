// Faults of storage, at random: any record of any kind lost, cut, flipped, or swapped with another, at any point of some
// weeks’ work. What is left is right, what is not is told, and the work goes on. SQLite’s promise of atomic commit
// (sqlite.org/atomiccommit.html, from memory) is the measure for writes that are refused.
// FAULTS=5000 for more: the run on CI must end in time.
import { chance, type Random } from '../../../bench/chance';
import { isDeepStrictEqual } from 'node:util';
import { inks } from '../../core/mail/label';
import { bringBack } from '../commands/puttingOff';
import { act } from '../commands/acts';
import { changeSetup } from '../commands/changeSetup';
import { compact } from '../commands/compaction';
import { tidy } from '../commands/retention';
import { undo } from '../commands/undo';
import { addMessages } from '../intake/incoming';
import type { Mailbox } from '../service/mailbox';
import { expunged } from '../state/internedTables';
import { incoming, openMailbox, stateOf, testTime, fill } from '../testing/testing';
import { keyOf } from './keys';
import { memoryStore, type RecordStore } from './recordStore';
import { NotWritten } from './committing';

const cases = Number(process.env.FAULTS ?? 40);
const day = 86_400_000;

type Records = Map<string, unknown>;
type Step = (mailbox: Mailbox) => Promise<unknown>;

/** The clock of all mailboxes here. */
let now = testTime;

const inbox = { view: { kind: 'place', place: 'inbox' } } as const;
const edit = (m: Mailbox, command: string, ...edits: Parameters<typeof changeSetup>[2]) =>
  changeSetup(m, command, edits, command, true);

async function bigMessage(m: Mailbox) {
  const big = incoming(900);
  big.stored = { bytes: new Uint8Array((1 << 20) + 9).fill(66), form: 'eml' };
  big.envelope = { ...big.envelope, size: big.stored.bytes.length };
  await addMessages(m, [incoming(901), big, incoming(902)], { command: 'big', by: 'post office', says: '3 arrived' });
}

async function weeks(m: Mailbox, n: number) {
  for (let i = 0; i < n; i++) {
    now += day;
    await tidy(m);
  }
}

const work: Step[] = [
  (m) => m.commit({ command: 'begin-own', by: 'Wide Sort', says: 'Began', final: true }),
  (m) => edit(m, 'folder', { list: 'folders', id: 'f', item: { id: 'f', name: 'Berths' } }),
  (m) => edit(m, 'label', { list: 'labels', id: 'l', item: { id: 'l', name: 'Tides', ink: inks[0] } }),
  (m) => fill(m, 90),
  (m) => act(m, 'a1', { ids: [1, 2, 70] }, { do: 'move', place: 'folder:f' }),
  (m) => act(m, 'a2', { ids: [2, 3] }, { do: 'label', label: 'l', value: true }),
  (m) => m.flush(),
  (m) => act(m, 'a3', { ids: [5] }, { do: 'move', place: 'bin' }),
  (m) => bigMessage(m),
  (m) => act(m, 'a4', inbox, { do: 'read', value: true }),
  (m) => undo(m, 'u1', m.seq),
  (m) => weeks(m, 32),
  (m) => m.flush(),
  (m) => fill(m, 60, 300),
  (m) => act(m, 'a5', { ids: [100, 101] }, { do: 'move', place: 'archive' }),
  (m) => weeks(m, 95),
  (m) => compact(m, 6),
  (m) => act(m, 'a6', { ids: [7] }, { do: 'flag', value: true }),
  (m) => fill(m, 10, 500),
  (m) => act(m, 'a7', { ids: [8] }, { do: 'move', place: 'folder:f' }),
  (m) => act(m, 'a8', { ids: [9, 10] }, { do: 'putOff', until: now + 3_600_000 }),
  (m) => act(m, 'a9', { ids: [11] }, { do: 'putOff', until: now + 90_000_000 }),
  (m) => m.exclusive(() => bringBack(m, now + 7_200_000)),
];

interface Truth {
  records: Records;
  state: ReturnType<typeof stateOf>;
  places: number[];
  bytes: (string | null)[];
}

const bytesOf = async (m: Mailbox): Promise<(string | null)[]> => {
  const out: (string | null)[] = [];
  for (let id = 0; id < m.columns.count; id++) {
    const stored = await m.raws.read(id).catch(() => undefined);
    out.push(
      stored === undefined ? 'lost' : stored && `${stored.bytes.length} ${stored.bytes.at(9)} ${stored.bytes.at(60)}`,
    );
  }
  return out;
};

/** The mailbox after each step, as it lies in storage and as it should come back. */
async function truths(): Promise<Truth[]> {
  const records: Records = new Map();
  const mailbox = await openMailbox(memoryStore(records), () => now);
  const out: Truth[] = [];
  for (const step of work) {
    await step(mailbox);
    const places = Array.from({ length: mailbox.columns.count }, (_, id) => mailbox.columns.place[id]);
    out.push({ records: new Map(records), state: stateOf(mailbox), places, bytes: await bytesOf(mailbox) });
  }
  mailbox.close();
  return out;
}

/** Something within a value, cut or flipped; the value itself is left alone. */
function spoilt(value: unknown, random: Random, how: 'cut' | 'flip'): unknown {
  if (typeof value === 'string') {
    if (how === 'cut' || value === '') return value.slice(0, random(value.length));
    const at = random(value.length);
    return value.slice(0, at) + String.fromCharCode(value.charCodeAt(at) ^ (1 << random(7))) + value.slice(at + 1);
  }
  if (typeof value === 'number') return how === 'cut' ? Math.floor(value / 2) - 1 : value + 1 + random(1e9);
  if (typeof value === 'boolean') return !value;
  if (value === null) return 'something';
  if (ArrayBuffer.isView(value)) {
    const copy = structuredClone(value) as Uint8Array;
    if (copy.length === 0) return new Uint8Array(3);
    if (how === 'cut') return copy.slice(0, random(copy.length));
    copy[random(copy.length)] ^= 1 + random(100);
    return copy;
  }
  if (Array.isArray(value)) {
    if (value.length === 0) return ['x'];
    const at = random(value.length);
    return how === 'cut' ? value.slice(0, at) : value.map((item, i) => (i === at ? spoilt(item, random, how) : item));
  }
  if (typeof value !== 'object') return 'something';
  const names = Object.keys(value).filter((name) => name !== 'v');
  const name = names[random(names.length)];
  return { ...value, [name]: spoilt((value as Record<string, unknown>)[name], random, how) };
}

/** Damages a record. Returns the keys that it touched. */
function damage(records: Records, random: Random): string[] {
  // Each kind as often as any other, however many records it has.
  const kindOf = (key: string) => key.split('/')[0];
  if (records.size === 0) return [];
  const kinds = [...new Set([...records.keys()].map(kindOf))];
  const chosen = kinds[random(kinds.length)];
  const kind = [...records.keys()].filter((key) => kindOf(key) === chosen);
  const key = kind[random(kind.length)];
  const how = (['lose', 'cut', 'flip', 'swap'] as const)[random(4)];
  if (how === 'lose') records.delete(key);
  else if (how === 'swap') {
    const keys = [...records.keys()];
    const other = keys[random(keys.length)];
    const [mine, its] = [records.get(key), records.get(other)];
    records.set(key, its).set(other, mine);
    return key === other ? [] : [key, other];
  } else records.set(key, spoilt(records.get(key), random, how));
  return [key];
}

/** How many messages stay certain where the last records of the journal are gone: of those nobody can know. */
function certain({ records, places }: Truth, touched: readonly string[]): number {
  const numbers = [...records.keys()].flatMap((key) => (key.startsWith(keyOf.journals) ? [Number(key.slice(8))] : []));
  const written = (records.get(keyOf.meta) as { seq: number } | undefined)?.seq ?? 0;
  let sure = places.length;
  // Of messages whose bytes, envelopes and journal record are all lost nothing is left.
  const lastOf = (kind: string) =>
    [...records.keys()]
      .filter((key) => key.startsWith(kind))
      .sort()
      .at(-1) ?? '';
  const [raw, envelopes] = [lastOf('raw/'), lastOf('envelopes/')];
  if ([raw, envelopes].every((key) => touched.includes(key)) && touched.some((key) => key.startsWith(keyOf.journals)))
    sure = Number(raw.slice(4)) * 64;
  for (let seq = Math.max(0, ...numbers); seq > written && touched.includes(keyOf.journal(seq)); seq--) {
    const { add } = records.get(keyOf.journal(seq)) as { add: { first: number } | null };
    if (add) sure = Math.min(sure, add.first);
  }
  return sure;
}

/** The first thing in which two states differ, in words. */
function difference(a: ReturnType<typeof stateOf>, b: ReturnType<typeof stateOf>): string {
  if (a.messages.length !== b.messages.length) return `${a.messages.length} messages, then ${b.messages.length}`;
  const at = a.messages.findIndex((message, id) => !isDeepStrictEqual(message, b.messages[id]));
  if (at < 0) return `setup ${JSON.stringify(a.setup)}, then ${JSON.stringify(b.setup)}`;
  return `message ${at}: ${JSON.stringify(a.messages[at])}, then ${JSON.stringify(b.messages[at])}`;
}

const rawOf = (id: number) => [keyOf.raw(Math.floor(id / 64)), keyOf.big(id)];

/** Whether only what nobody can know of was lost: the last entries of the journal, before anything else speaks of them. */
const lastEntriesLost = (truth: Truth, touched: readonly string[]): boolean => {
  const numbers = [...truth.records.keys()].flatMap((key) =>
    key.startsWith(keyOf.journals) ? [Number(key.slice(8))] : [],
  );
  return touched.includes(keyOf.journal(Math.max(0, ...numbers)));
};

test(`${cases} faults: what is left is right, what is not is told, and the work goes on`, async () => {
  const all = await truths();
  const random = chance(20261127);
  for (let n = 0; n < cases; n++) {
    const at = random(all.length);
    const truth = all[at];
    const records: Records = new Map(truth.records);
    const touched: string[] = [];
    for (let hits = 1 + (random(3) === 0 ? 1 : 0); hits > 0; hits--) touched.push(...damage(records, random));
    const what = `case ${n}: after step ${at}, ${touched.join(', ')}`;
    const again = await openMailbox(memoryStore(records), () => now).catch((error: unknown) => {
      throw new Error(`${what}: ${String(error)}`, { cause: error });
    });
    const { columns, troubles } = again;
    const found = await bytesOf(again);
    const wrong: string[] = [];
    const sure = certain(truth, touched);
    if (columns.count < sure) wrong.push(`${columns.count} messages of ${sure}`);
    for (let id = 0; id < Math.min(sure, columns.count); id++) {
      if (truth.places[id] !== expunged && columns.place[id] === expunged) wrong.push(`message ${id} is nowhere`);
      const hit = rawOf(id).some((key) => touched.includes(key));
      if (found[id] !== truth.bytes[id] && !(hit && found[id] === 'lost')) wrong.push(`message ${id}: ${found[id]}`);
    }
    const same = isDeepStrictEqual(stateOf(again), truth.state);
    if (!same && troubles.length === 0 && !lastEntriesLost(truth, touched))
      wrong.push('another state, and nothing told');
    // The work goes on, and what is done now is there the next time.
    const id = columns.place.subarray(0, columns.count).findIndex((place) => place !== expunged);
    if (id >= 0) await act(again, `on-${n}`, { ids: [id] }, { do: 'move', place: 'sent' });
    await addMessages(again, [incoming(7_000 + n)], { command: `more-${n}`, by: 'post office', says: '1 arrived' });
    if (random(2) === 0) await again.flush();
    const before = stateOf(again);
    again.close();
    const third = await openMailbox(memoryStore(records), () => now);
    const thirdState = stateOf(third);
    if (!isDeepStrictEqual(thirdState, before))
      wrong.push(`what was done afterwards did not stay: ${difference(before, thirdState)}`);
    third.close();
    if (wrong.length) throw new Error(`${what}\n${wrong.slice(0, 5).join('\n')}\ntold: ${troubles.join(' | ')}`);
  }
}, 3_600_000);

test('a write refused at any point: the command is not there, said so, and all else stays', async () => {
  const random = chance(7);
  let refused = 0;
  for (let n = 0; n < Math.max(3, cases / 50); n++) {
    now = testTime;
    const records: Records = new Map();
    const inner = memoryStore(records);
    let left = 3 + random(60);
    const store: RecordStore = {
      ...inner,
      set: async (key, value) => {
        if (--left === 0 || (left < 0 && random(12) === 0)) {
          refused++;
          throw new DOMException('Quota exceeded', 'QuotaExceededError');
        }
        await inner.set(key, value);
      },
    };
    const mailbox = await openMailbox(store, () => now);
    for (const step of work) {
      const before = stateOf(mailbox);
      try {
        await step(mailbox);
      } catch (error) {
        if (error instanceof NotWritten) {
          // Weeks are many commands, and some were done.
          if (step.toString().includes('weeks')) continue;
          expect(isDeepStrictEqual(stateOf(mailbox), before)).toBe(true);
        }
      }
    }
    left = Infinity;
    await mailbox.flush();
    const after = stateOf(mailbox);
    const bytes = await bytesOf(mailbox);
    mailbox.close();
    const again = await openMailbox(memoryStore(records), () => now);
    expect(stateOf(again)).toEqual(after);
    expect(await bytesOf(again)).toEqual(bytes);
    expect(again.troubles).toEqual([]);
    again.close();
  }
  expect(refused).toBeGreaterThan(3);
}, 3_600_000);
