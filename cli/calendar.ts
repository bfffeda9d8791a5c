// calendar: what stands in .ics files; calendar-write: a calendar from items; invite: an invitation, or the answer to one.
import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { z } from 'zod';
import { composeMessage, envelopeOf, Message, isoIn, parseStructure, type Address } from '../src/core';
import { answers, itemSchema, newItem, type Item } from '../src/core/agenda/item';
import { replyOf, requestOf, type Sent } from '../src/core/agenda/inviting';
import { occurrencesOf } from '../src/core/agenda/occurrences';
import { readCalendar } from '../src/core/agenda/readCalendar';
import { isClock, type When } from '../src/core/agenda/wallTime';
import { writeCalendar } from '../src/core/agenda/writeCalendar';
import { isCalendar } from '../src/core/mail/attachmentKind';
import { filesOf } from '../src/core/mail/body';
import { addressKey } from '../src/core/mail/address';
import { calendarType } from '../src/core/writing/composing';
import { fileError, fileText, oneFile, UsageError } from './files';
import { timeOf, type Options, type Output } from './options';

const address = z.strictObject({ name: z.string().default(''), address: z.string().regex(/^\S+@\S+$/) });

/** A task or an appointment in a file. */
const printedSchema = z.strictObject({
  uid: z.string().min(1).optional(),
  kind: z.enum(['task', 'appointment']),
  title: z.string().default(''),
  start: z.string().nullable().default(null),
  end: z.string().nullable().default(null),
  due: z.string().nullable().default(null),
  zone: z.string().nullable().default(null),
  repeats: z.string().nullable().default(null),
  except: z.array(z.string()).default([]),
  besides: z.array(z.string()).default([]),
  sequence: z.number().int().nonnegative().default(0),
  place: z.string().default(''),
  note: z.string().default(''),
  /** Minutes before. */
  reminder: z.number().int().nullable().default(null),
  done: z.boolean().default(false),
  messages: z.array(z.string()).default([]),
  organizer: address.nullable().default(null),
  invited: z.array(address.extend({ answer: z.enum(answers).default('needs-action') })).default([]),
});
type Printed = z.infer<typeof printedSchema>;

function itemOf(printed: Printed, file: string, n: number, now: number): Item {
  const { uid, kind, start, end, due, zone, done, invited, ...rest } = printed;
  if (zone !== null && !isClock(zone)) throw new UsageError(`${file}: ${n}.zone: “${zone}” is no time zone`);
  const when = (at: string | null): When | null => (at === null ? null : { at, zone: at.length === 10 ? null : zone });
  const made = createHash('sha256').update(JSON.stringify(printed)).digest('hex').slice(0, 32);
  const item = itemSchema.safeParse({
    ...newItem(uid ?? made, kind, now),
    ...rest,
    start: when(start),
    end: when(kind === 'task' ? (due ?? end) : end),
    done: done ? now : null,
    invited: invited.map((one) => ({ ...one, at: 0 })),
  });
  if (item.success) return item.data;
  const [{ path, message }] = item.error.issues;
  throw new UsageError(`${file}: ${n}${path.length ? `.${path.join('.')}` : ''}: ${message}`);
}

async function jsonOf(file: string): Promise<unknown> {
  const text = await fileText(file);
  try {
    return JSON.parse(text);
  } catch {
    throw new UsageError(`${file}: it is no JSON`);
  }
}

function itemsOf(json: unknown, file: string, now: number): Item[] {
  const read = z.array(printedSchema).safeParse(json);
  if (!read.success) {
    const [{ path, message }] = read.error.issues;
    throw new UsageError(`${file}: ${path.length ? `${path.join('.')}: ` : ''}${message}`);
  }
  return read.data.map((one, n) => itemOf(one, file, n, now));
}

/** An item as it is printed: its times by the clock of its zone. */
function printed(item: Item): object {
  const { uid, kind, title, start, end, repeats, except, besides, sequence, place, note, reminder, done, messages } =
    item;
  const times =
    kind === 'task'
      ? { start: start?.at ?? null, due: end?.at ?? null }
      : { start: start?.at ?? null, end: end?.at ?? null };
  const { organizer, invited } = item;
  return {
    ...{ uid, kind, title, ...times, zone: (start ?? end)?.zone ?? null, repeats, except, besides, sequence },
    ...{ place, note, reminder, done: done !== null, messages, organizer },
    invited: invited.map(({ name, address: at, answer }) => ({ name, address: at, answer })),
    status: item.status,
    changed: item.changed.map(({ on, title: named, start: from, end: to, cancelled }) => ({
      on,
      title: named,
      start: from.at,
      end: to?.at ?? null,
      cancelled,
    })),
  };
}

function momentOf(text: string, name: string): number {
  const at = Date.parse(text);
  if (Number.isNaN(at)) throw new UsageError(`--${name} must be a moment, like 2026-11-24T10:00:00Z.`);
  return at;
}

/** Prints a task or an appointment a line, or what of it falls between two moments; what was not taken, on standard error. */
export async function calendar(files: readonly string[], options: Options, output: Output): Promise<void> {
  if ((options.from === undefined) !== (options.to === undefined)) throw new UsageError('--from and --to go together.');
  const now = timeOf(options.now);
  for (const file of files) {
    const bytes = await readFile(file).catch((error: unknown) => {
      throw fileError(file, error);
    });
    const read = readCalendar(new Uint8Array(bytes), now);
    for (const { line, says } of read.remarks) output.error(`${file}:${line}: ${says}\n`);
    if (read.components === 0) throw new UsageError(`${file}: no task and no appointment is in it`);
    for (const item of read.items) {
      if (options.from === undefined || options.to === undefined) {
        output.out(`${JSON.stringify(printed(item))}\n`);
        continue;
      }
      const zone = (item.start ?? item.end)?.zone;
      const here = zone && isClock(zone) ? zone : 'UTC';
      for (const one of occurrencesOf(item, momentOf(options.from, 'from'), momentOf(options.to, 'to'), here))
        output.out(
          `${JSON.stringify({ uid: item.uid, kind: item.kind, title: one.title, on: one.on, start: isoIn(here, one.start), end: isoIn(here, one.end), wholeDay: one.wholeDay })}\n`,
        );
    }
  }
}

/** Prints a calendar (RFC 5545) of a list of items. Throws UsageError. */
export async function calendarWrite(files: readonly string[], options: Options, output: Output): Promise<void> {
  const file = oneFile(files, 'a list of tasks and appointments (JSON)');
  output.out(writeCalendar(itemsOf(await jsonOf(file), file, timeOf(options.now))));
}

/** The raw message that carries a calendar (RFC 6047). */
function rawOf(
  sent: Sent,
  from: Address,
  to: readonly Address[],
  now: number,
  more: { inReplyTo?: string; references?: string[] } = {},
) {
  const digest = createHash('sha256').update(sent.calendar).digest('hex').slice(0, 32);
  return composeMessage({
    messageId: `${now.toString(36)}.${digest}@${from.address.slice(from.address.lastIndexOf('@') + 1)}`,
    date: now,
    zone: 0,
    from,
    to: [...to],
    subject: sent.subject,
    html: null,
    text: sent.text,
    files: [
      { name: 'invitation.ics', type: `${calendarType}${sent.method}`, bytes: new TextEncoder().encode(sent.calendar) },
    ],
    ...more,
  });
}

/** Prints the raw invitation to an appointment, or the raw answer to one that came. Throws UsageError. */
export async function invite(files: readonly string[], options: Options, output: Output): Promise<void> {
  const now = timeOf(options.now);
  if (options.answer !== undefined) return reply(files, options, now, output);
  const file = oneFile(files, 'an appointment (JSON)');
  const [item] = itemsOf([await jsonOf(file)], file, now);
  if (item.kind !== 'appointment') throw new UsageError(`${file}: only to an appointment is anybody invited.`);
  if (!item.organizer || item.invited.length === 0)
    throw new UsageError(`${file}: name the organizer, and who is invited.`);
  await output.binary(rawOf(requestOf(item, item.sequence > 0), item.organizer, item.invited, now));
}

async function reply(files: readonly string[], options: Options, now: number, output: Output): Promise<void> {
  const answer = (['accepted', 'tentative', 'declined'] as const).find((one) => one === options.answer);
  if (!answer) throw new UsageError('--answer must be accepted, tentative or declined.');
  const file = oneFile(files, 'the message with the invitation (.eml)');
  const bytes = await readFile(file).catch((error: unknown) => {
    throw fileError(file, error);
  });
  const raw = new Uint8Array(bytes);
  const envelope = envelopeOf(new Message(raw));
  const part = filesOf(raw, parseStructure(raw)).find(isCalendar);
  const read = part && readCalendar(part.bytes, now);
  const item = read?.items.at(0);
  if (!item?.organizer || read?.method !== 'REQUEST') throw new UsageError(`${file}: no invitation is in it.`);
  const wanted =
    options.as ??
    [envelope.deliveredTo, ...envelope.to.map((one) => one.address)].find((to) =>
      item.invited.some((one) => addressKey(one.address) === addressKey(to)),
    );
  if (!wanted) throw new UsageError(`${file}: it is not known who answers: say so with --as ADDRESS.`);
  const me = item.invited.find((one) => addressKey(one.address) === addressKey(wanted)) ?? {
    name: '',
    address: wanted,
  };
  const from = { name: me.name, address: me.address };
  const threads = envelope.messageId
    ? { inReplyTo: envelope.messageId, references: [...envelope.references, envelope.messageId] }
    : {};
  await output.binary(rawOf(replyOf(item, from, answer, now), from, [item.organizer], now, threads));
}
