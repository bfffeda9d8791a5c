// Measured in Node.js: the import of a file from its bytes to a stored, listed mailbox, beside postal-mime and Python.
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import PostalMime from 'postal-mime';
import { MboxSplitter, messageOf, messageOfStored } from '../src/core';
import { importFiles } from '../src/mailroom/intake/importFiles';
import type { MailFile } from '../src/mailroom/intake/mailFile';
import { Mailbox } from '../src/mailroom/service/mailbox';
import { measureRules, type RuleFigures } from './rules';
import { rows } from '../src/mailroom/questions/rows';
import { readBatch } from '../src/mailroom/reading/readMessages';
import { parseStructure } from '../src/core/mail/structure';
import { bodyText } from '../src/core/mail/body';
import { TextBatchWriter } from '../src/core/search/textBatch';
import { TextSegment } from '../src/core/search/textIndex';
import { memoryStore } from '../src/mailroom/storage/recordStore';
import { here } from '../src/mailroom/reading/here';

/** Messages a second. */
export interface NodeFigures {
  messages: number;
  import: number;
  postalMime: number | null;
  python: number | null;
  /** The share of the import’s time that the text index takes, from 0 to 1. */
  indexing: number;
  rules: RuleFigures;
  order: OrderFigures;
}

/** From asking for a list by subject until its first rows are there: the first time, and after something changed. In ms. */
export interface OrderFigures {
  first: number;
  again: number;
}

async function measureOrder(mailbox: Mailbox): Promise<OrderFigures> {
  const bySubject = { grouped: false, elsewhere: true, order: { by: 'subject', turned: false } } as const;
  const timed = async () => {
    const start = performance.now();
    await rows(mailbox, { kind: 'place', place: 'inbox' }, bySubject, 0, 60);
    return performance.now() - start;
  };
  const first = await timed();
  mailbox.views.changed();
  return { first, again: await timed() };
}

const plain = (file: string): Uint8Array<ArrayBuffer> => Uint8Array.from(readFileSync(file));

async function ours(files: string[]): Promise<Pick<NodeFigures, 'messages' | 'rules' | 'order'> & { rate: number }> {
  const list: MailFile[] = files.map((file) => {
    const bytes = plain(file);
    return {
      name: path.basename(file),
      size: bytes.length,
      slice: (start, end) => ({ arrayBuffer: async () => bytes.slice(start, end).buffer }),
    };
  });
  const start = performance.now();
  const mailbox = await Mailbox.open(memoryStore(), Date.now, () => undefined, here);
  const report = await importFiles(
    mailbox,
    'bench',
    list,
    'line',
    async (messages, form, judged) => ({ messages, ...(await readBatch(messages, form, judged)) }),
    1,
    { cancelled: false },
    () => undefined,
  );
  await rows(mailbox, { kind: 'place', place: 'inbox' }, { grouped: false, elsewhere: true }, 0, 60);
  const seconds = (performance.now() - start) / 1000;
  const order = await measureOrder(mailbox);
  mailbox.close();
  return { messages: report.added, rate: report.added / seconds, order, rules: await measureRules(mailbox) };
}

async function postalMime(files: string[], most: number): Promise<number> {
  const messages: Uint8Array[] = [];
  for (const file of files) {
    const splitter = new MboxSplitter();
    for (const stored of [...splitter.push(plain(file)), ...splitter.end()]) messages.push(messageOf(stored, 'mbox'));
  }
  // Every nth message of a large file: the rate is the same, the wait is not.
  const some = messages.filter((_, i) => i % Math.ceil(messages.length / most) === 0);
  const start = performance.now();
  for (const message of some) await PostalMime.parse(message);
  return some.length / ((performance.now() - start) / 1000);
}

/** Seconds a message that the text index takes: its words, and taking them in. */
function indexing(files: string[], most: number): number {
  const [file] = files;
  const splitter = new MboxSplitter();
  const messages = [...splitter.push(plain(file)), ...splitter.end()].slice(0, most);
  const segment = new TextSegment();
  const start = performance.now();
  // In batches, as the parse workers hand them over.
  for (let at = 0; at < messages.length; at += 512) {
    const writer = new TextBatchWriter();
    const some = messages.slice(at, at + 512);
    for (const bytes of some) writer.add(messageOfStored({ bytes, form: 'mbox' }));
    const batch = writer.batch();
    for (const i of some.keys()) segment.add(batch, i);
  }
  const all = performance.now() - start;
  const again = performance.now();
  // What parsing takes is no part of it: structure and text are read for the envelope anyway.
  for (const bytes of messages) {
    const raw = messageOf(bytes, 'mbox');
    bodyText(raw, parseStructure(raw));
  }
  return (all - (performance.now() - again)) / 1000 / messages.length;
}

/** Messages a second that Python’s mailbox and email read of files: the middle of three times, once where it takes long. */
export function python(files: string[]): number | null {
  try {
    const script = path.join(import.meta.dirname, 'python_import.py');
    const rates: number[] = [];
    for (let seconds = 0; rates.length < 3 && seconds < 15;) {
      const said = execFileSync('python3', [script, ...files], { encoding: 'utf8' })
        .split(' ')
        .map(Number);
      seconds += said[1];
      rates.push(said[0] / said[1]);
    }
    return rates.toSorted((a, b) => a - b)[Math.floor(rates.length / 2)];
  } catch {
    return null;
  }
}

export async function measureNode(files: string[], others: boolean): Promise<NodeFigures> {
  const { messages, rate, rules, order } = await ours(files);
  return {
    messages,
    import: rate,
    rules,
    order,
    indexing: indexing(files, 2_000) * rate,
    postalMime: others ? await postalMime(files, 2_000) : null,
    python: others ? python(files) : null,
  };
}
