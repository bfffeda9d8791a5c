// Help for the mailroom's tests: messages to put in, and stores that fail when they are told to.
import { parseEnvelope } from '../../core/mail/envelope';
import { Message } from '../../core/mail/message';
import { TextBatchWriter } from '../../core/search/textBatch';
import type { Place } from '../../core/mail/place';
import { addMessages, type Incoming } from '../intake/incoming';
import { Mailbox } from '../service/mailbox';
import { memoryStore, type RecordStore } from '../storage/recordStore';
import { here } from '../reading/here';

/** What the text index takes in of a message, as the workers read it. */
function textOf(raw: Uint8Array): Incoming['text'] {
  const writer = new TextBatchWriter();
  writer.add(new Message(raw));
  return { batch: writer.batch(), at: 0 };
}

/** A message as it comes in by itself; the line decides where it goes unless `place` does. */
export function incoming(n: number, from = `sender${n % 7}@harbour.example`, place: Place | null = null): Incoming {
  const bytes = new TextEncoder().encode(
    `From: ${from}\r\nTo: desk@ferry.example\r\nSubject: Message ${n}\r\nMessage-ID: <${n}@harbour.example>\r\n` +
      `Date: Tue, 24 Nov 2026 10:${String(n % 60).padStart(2, '0')}:00 +0000\r\n\r\nText of ${n}\r\n`,
  );
  return {
    stored: { bytes, form: 'eml' },
    envelope: { ...parseEnvelope(bytes), key: `key of ${n}` },
    text: textOf(bytes),
    place,
    read: false,
    flagged: false,
    why: null,
  };
}

export const testTime = Date.UTC(2026, 10, 24, 12);

/** A mailbox on a store, all of it in memory. */
export async function openMailbox(store: RecordStore = memoryStore(), now = () => testTime): Promise<Mailbox> {
  const mailbox = await Mailbox.open(store, now, () => undefined, here);
  await mailbox.ready();
  return mailbox;
}

/** Adds `count` messages as one command. */
export function fill(mailbox: Mailbox, count: number, first = 0): Promise<number[]> {
  const list = Array.from({ length: count }, (_, i) => incoming(first + i));
  return mailbox.exclusive(() => addMessages(mailbox, list, { command: `fill-${first}/1`, by: 'you', says: 'Filled' }));
}

/** The power goes: this write and all after it are lost. */
export class PowerCut extends Error {}

/** A store over `records` that loses the power at its `n`th write, and keeps what was written before. */
export function storeWithPowerCut(records: Map<string, unknown>, n: number): RecordStore {
  const inner = memoryStore(records);
  let writes = 0;
  const guard = () => {
    if (++writes >= n) throw new PowerCut();
  };
  return {
    ...inner,
    set: async (key, value) => {
      guard();
      await inner.set(key, value);
    },
    remove: async (key) => {
      guard();
      await inner.remove(key);
    },
  };
}

/** A store that notes down what is read of it: the keys that begin so. */
export function hearsReads(inner: RecordStore, prefix: string): { store: RecordStore; read: string[] } {
  const read: string[] = [];
  const get: RecordStore['get'] = (key) => {
    if (key.startsWith(prefix)) read.push(key);
    return inner.get(key);
  };
  return { store: { ...inner, get }, read };
}

/** A mailbox opened anew on records, ready, and which of its records that begin so are read from now on. */
export async function openHearing(
  records: Map<string, unknown>,
  prefix: string,
): Promise<{ mailbox: Mailbox; read: string[] }> {
  const { store, read } = hearsReads(memoryStore(records), prefix);
  const mailbox = await openMailbox(store);
  await mailbox.ready();
  read.length = 0;
  return { mailbox, read };
}

/** Everything that a person could tell apart of a mailbox's state, to compare two. */
export function stateOf(mailbox: Mailbox) {
  const { columns, tables, setup } = mailbox;
  return {
    messages: Array.from({ length: columns.count }, (_, id) => ({
      place: tables.places.items[columns.place[id]],
      bits: columns.bits[id],
      ink: columns.ink[id],
      due: columns.due[id],
      until: columns.until[id],
      delivered: columns.delivered[id],
      labels: tables.labelSets.items[columns.labels[id]],
      trace: tables.traces.items[columns.trace[id]],
      subject: mailbox.envelopes.get(id).subject,
    })),
    setup,
  };
}

/** One row for each message. */
export const single = { grouped: false, elsewhere: true } as const;

/** Raw mail as it comes in by itself, from its header fields and text. */
export function mailOf(fields: Record<string, string>, text = 'Text'): Incoming {
  const lines = Object.entries(fields).map(([name, value]) => `${name}: ${value}\r\n`);
  const bytes = new TextEncoder().encode(`${lines.join('')}\r\n${text.replace(/\n/g, '\r\n')}\r\n`);
  return {
    stored: { bytes, form: 'eml' },
    envelope: { ...parseEnvelope(bytes), key: `key of ${fields['Message-ID'] ?? text}` },
    text: textOf(bytes),
    place: null,
    read: false,
    flagged: false,
    why: null,
  };
}

/** A mailbox of the account me@y.test that holds some mail. */
export async function openWith(list: Incoming[], store = memoryStore()): Promise<Mailbox> {
  const mailbox = await openMailbox(store);
  const item = { id: 'me', name: 'Me', address: 'me@y.test' };
  await mailbox.exclusive(async () => {
    await mailbox.commit({
      command: 'setup',
      by: 'you',
      says: 'Set up',
      setup: [{ list: 'accounts', id: item.id, item }],
    });
    await addMessages(mailbox, list, { command: 'mail', by: 'you', says: 'Came' });
  });
  return mailbox;
}
