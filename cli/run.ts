// The verbs of the command line.
import { readFile } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import { demoMailbox } from '../demo/mailbox';
import { Line, messageOf, parseEnvelope, parseSetup, toMbox, type Envelope } from '../src/core';
import { fileError, messagesOf, UsageError } from './files';

/** Where the output goes. */
export interface Output {
  out: (text: string) => void;
  error: (text: string) => void;
  binary: (bytes: Uint8Array) => Promise<void>;
}

const usage = `usage: npm run cli -- VERB [FILE…] [options]
  summary FILE… [--json]                    how many messages, how many damaged, how many bytes
  messages FILE… [--json]                   every message: who, when, what
  sort FILE… --setup SETUP.json [--json]    where the sorting line puts every message, and why
  demo --count N [--seed S] [--now TIME]    the demo mailbox as an mbox on standard output
`;

interface Options {
  json: boolean;
  setup?: string;
  count?: string;
  seed?: string;
  now?: string;
}

/** Runs one command; the exit code: 0, or 2 for anything that the caller has to mend. */
export async function run(args: string[], output: Output): Promise<number> {
  try {
    const { values, positionals } = parseArguments(args);
    const [verb, ...files] = positionals;
    switch (verb) {
      case 'summary':
        await summary(some(files), values, output);
        return 0;
      case 'messages':
        await list(some(files), values, output);
        return 0;
      case 'sort':
        await sort(some(files), values, output);
        return 0;
      case 'demo':
        await demo(values, output);
        return 0;
      default:
        output.error(verb ? `There is no verb “${verb}”.\n${usage}` : usage);
        return 2;
    }
  } catch (error) {
    if (!(error instanceof UsageError)) throw error;
    output.error(`${error.message}\n`);
    return 2;
  }
}

function parseArguments(args: string[]): { values: Options; positionals: string[] } {
  try {
    const { values, positionals } = parseArgs({
      args,
      allowPositionals: true,
      options: {
        json: { type: 'boolean', default: false },
        setup: { type: 'string' },
        count: { type: 'string' },
        seed: { type: 'string' },
        now: { type: 'string' },
      },
    });
    return { values: { ...values, json: values.json ?? false }, positionals };
  } catch (error) {
    throw new UsageError(String(error).split('\n')[0]);
  }
}

function some(files: string[]): string[] {
  if (files.length === 0) throw new UsageError('Name at least one file.');
  return files;
}

function wholeNumber(text: string | undefined, name: string, standard: number | null, least = 0): number {
  if (text === undefined && standard !== null) return standard;
  const value = Number(text);
  if (text === undefined || !/^\d+$/.test(text) || !Number.isSafeInteger(value) || value < least)
    throw new UsageError(`--${name} must be a whole number from ${least} up.`);
  return value;
}

interface Read {
  index: number;
  envelope: Envelope;
  bytes: number;
}

/** Every message of every file, numbered from 0 across them all. */
async function* envelopes(files: string[]): AsyncGenerator<Read> {
  let index = 0;
  for (const file of files)
    for await (const { stored, form } of messagesOf(file)) {
      const raw = messageOf(stored, form);
      yield { index: index++, envelope: parseEnvelope(raw), bytes: raw.length };
    }
}

const json = (value: unknown): string => `${JSON.stringify(value)}\n`;

async function summary(files: string[], options: Options, output: Output): Promise<void> {
  const totals = { messages: 0, damaged: 0, bytes: 0 };
  for await (const { envelope, bytes } of envelopes(files)) {
    totals.messages++;
    totals.bytes += bytes;
    if (envelope.damage !== null) totals.damaged++;
  }
  if (options.json) output.out(json(totals));
  else output.out(`${totals.messages} messages, ${totals.damaged} of them damaged, ${totals.bytes} bytes\n`);
}

const isoDate = (date: number | null): string | null => (date === null ? null : new Date(date).toISOString());

async function list(files: string[], options: Options, output: Output): Promise<void> {
  for await (const { index, envelope } of envelopes(files)) {
    const { messageId, date, from, to, cc, subject, attachments, textLength } = envelope;
    if (options.json)
      output.out(json({ index, messageId, date: isoDate(date), from, to, cc, subject, attachments, textLength }));
    else output.out(`${index}\t${isoDate(date) ?? '-'}\t${from.address || '-'}\t${subject}\n`);
  }
}

async function sort(files: string[], options: Options, output: Output): Promise<void> {
  if (!options.setup) throw new UsageError('sort needs --setup SETUP.json.');
  const text = await readFile(options.setup, 'utf8').catch((error: unknown) => {
    throw fileError(options.setup ?? '', error);
  });
  const read = parseSetup(text);
  if (!read.ok) throw new UsageError(`${options.setup}: ${read.error}`);
  const line = new Line(read.setup);
  const names = new Map(read.setup.labels.map((label) => [label.id, label.name]));
  for await (const { index, envelope } of envelopes(files)) {
    const { place, labels, trace } = line.decide(envelope);
    const named = labels.map((id) => names.get(id) ?? id);
    if (options.json) output.out(json({ index, messageId: envelope.messageId, place, labels: named, trace }));
    else output.out(`${index}\t${place}\t${named.join(', ') || '-'}\t${trace.at(-1)?.says ?? ''}\n`);
  }
}

async function demo(options: Options, output: Output): Promise<void> {
  const count = wholeNumber(options.count, 'count', null, 1);
  const seed = wholeNumber(options.seed, 'seed', 7);
  const now = options.now === undefined ? Date.now() : Date.parse(options.now);
  if (Number.isNaN(now)) throw new UsageError('--now must be a time like 2026-11-24T10:00:00Z.');
  const mailbox = demoMailbox(count, seed, now);
  for (const [i, { raw, sender, date }] of mailbox.entries()) {
    await output.binary(toMbox(raw, 'eml', sender, date, i === mailbox.length - 1));
  }
}
