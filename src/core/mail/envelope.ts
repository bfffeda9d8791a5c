// The envelope: what is known of a message without opening it again (the word is IMAP's, RFC 9051, section 7.5.2).
import { parseAddresses, type Address } from './address';
import { attachmentList } from './body';
import { parseDate, readDate } from './date';
import { decodeEncodedWords } from './encodedWord';
import { fieldValue, type HeaderField } from './header';
import { longestLine, oneLine, withoutTurns } from '../text/oneLine';
import { scriptOf } from '../text/writingSystem';
import { isAttachment, leaves } from './structure';
import { isCutBase64 } from './transfer';
import type { Envelope } from './envelopeSchema';
import { Message } from './message';

/** More recipients than these are counted by nobody and slow down everything. */
const mostRecipients = 2_000;

const mostReferences = 1_000;

const longestWritten = 20_000;

const messageIds = (field: string | null): string[] =>
  field === null ? [] : [...field.matchAll(/<([^<>\s\0-\x1f\x7f]+)>/g)].slice(-mostReferences).map((m) => m[1]);

function firstId(field: string | null): string {
  return messageIds(field)[0] ?? oneLine(field ?? '').replace(/^<|>$/g, '');
}

function people(fields: readonly HeaderField[], name: string): Address[] {
  const out: Address[] = [];
  for (const field of fields)
    if (field.key === name) out.push(...parseAddresses(field.value, mostRecipients - out.length));
  return out.map((a) => ({ name: oneLine(a.name), address: withoutTurns(a.address) }));
}

/** The identifier of a List-Id field: what stands in angle brackets, or all of it (RFC 2919, section 3). */
export function listIdOf(field: string | null): string {
  if (field === null) return '';
  return (/<([^<>]*)>/.exec(field)?.[1] ?? field).trim().toLowerCase();
}

/**
 * The address by which a message came: as the server that delivered it noted it (Delivered-To, X-Original-To or
 * Envelope-To; common practice, no source), or the “for” clause of the trace (RFC 5321, section 4.4).
 */
function deliveredTo(fields: readonly HeaderField[]): string {
  const named = ['delivered-to', 'x-original-to', 'envelope-to'].map((name) => fieldValue(fields, name)).find(Boolean);
  const address = named ?? /\sfor\s+<([^<>\s]+)>/.exec(fieldValue(fields, 'received') ?? '')?.[1] ?? '';
  return oneLine(address).replace(/^<|>$/g, '').slice(0, 320);
}

/** Received fields that are looked at. */
const mostReceived = 10;
/** Before this no message of this form was written (RFC 822, August 1982). */
const firstMail = Date.UTC(1982, 7, 13);
/** Clocks differ, and zones are wrong; a Date so far ahead of the newest Received is no clock's (common practice, no source). */
const aheadBy = 2 * 86_400_000;

/** When the last server got it: the date of the uppermost Received field that has one (RFC 5321, section 4.4). */
function receivedTime(fields: readonly HeaderField[]): number | null {
  let looked = 0;
  for (const { key, value } of fields) {
    if (key !== 'received') continue;
    const time = parseDate(value.slice(value.lastIndexOf(';') + 1).slice(0, 200));
    if (time !== null && time > firstMail) return time;
    if (++looked === mostReceived) break;
  }
  return null;
}

/** When it was received, where its own date can't be gone by; null elsewhere. */
function receivedInstead(fields: readonly HeaderField[], date: number | null): number | null {
  const received = receivedTime(fields);
  if (received === null) return null;
  return date === null || date < firstMail || date > received + aheadBy ? received : null;
}

/** Whether a machine sent it: Auto-Submitted says so (RFC 3834, section 5), or its address takes no answer. */
function isAutomatic(fields: readonly HeaderField[], from: string): boolean {
  const submitted = fieldValue(fields, 'auto-submitted');
  if (submitted !== null) return !/^\s*no\b/i.test(submitted);
  // The second is common practice, no source.
  return /^(?:no-?reply|do-?not-?reply|mailer-daemon|postmaster|bounces?)\b/i.test(from);
}

/** All fields of a name as they are written, decoded; each on a line of its own. */
function writtenOf(fields: readonly HeaderField[], name: string): string {
  const values = fields.filter((field) => field.key === name).map((field) => decodeEncodedWords(field.value).trim());
  return values.join('\n').slice(0, longestWritten);
}

const longestPreview = 160;

/** The first words stand within so many characters; a message may begin with pages of quotes. */
const previewReads = 1_500;

/** The first words of a text, without what it quotes. */
function previewOf(text: string): string {
  let preview = '';
  for (let from = 0; from < previewReads && from < text.length && preview.length < longestPreview;) {
    const lineEnd = text.indexOf('\n', from);
    const to = Math.min(lineEnd < 0 ? text.length : lineEnd, previewReads);
    const line = text[from] === '>' ? '' : oneLine(text.slice(from, to));
    if (line) preview += preview ? ` ${line}` : line;
    from = to + 1;
  }
  return preview.slice(0, longestPreview);
}

/**
 * Reads the envelope of a raw message. Never throws: what can't be read is empty, and `damage` says what is wrong.
 */
export function parseEnvelope(raw: Uint8Array): Envelope {
  return envelopeOf(new Message(raw));
}

/** What the header alone says of who wrote to whom, of what, and how it was sent. */
export type EnvelopeHead = Pick<Envelope, 'from' | 'to' | 'cc' | 'replyTo' | 'subject' | 'listId' | 'automatic'>;

/** The head of a message’s envelope: a third of the work of all of it, and none of that on its body. */
export function headOf({ fields }: Message): EnvelopeHead {
  return headBy(fields, people(fields, 'from'));
}

function headBy(fields: readonly HeaderField[], authors: readonly Address[]): EnvelopeHead {
  const from = authors[0] ?? people(fields, 'sender')[0] ?? { name: '', address: '' };
  return {
    from,
    to: people(fields, 'to'),
    cc: people(fields, 'cc'),
    replyTo: people(fields, 'reply-to'),
    subject: oneLine(decodeEncodedWords(fieldValue(fields, 'subject') ?? '')),
    listId: oneLine(listIdOf(fieldValue(fields, 'list-id'))),
    automatic: isAutomatic(fields, from.address),
  };
}

/** The envelope of a message that was taken apart already; `body`: its text, where that is known (body.ts). */
export function envelopeOf({ raw, structure, text: body }: Message): Envelope {
  const { fields } = structure;
  let { damage } = structure;
  for (const part of leaves(structure.root))
    if (part.encoding === 'base64' && isAttachment(part) && isCutBase64(raw.subarray(part.start, part.end)))
      damage ??= `Its attachment ${part.filename ? `“${oneLine(part.filename)}” ` : ''}is cut off.`;
  const dateField = readDate(fieldValue(fields, 'date') ?? '');
  const received = receivedInstead(fields, dateField?.time ?? null);
  const subjectWritten = writtenOf(fields, 'subject');
  const references = messageIds(fieldValue(fields, 'references'));
  for (const id of messageIds(fieldValue(fields, 'in-reply-to'))) if (!references.includes(id)) references.push(id);
  const authors = people(fields, 'from');
  const head = headBy(fields, authors);
  return {
    ...head,
    messageId: firstId(fieldValue(fields, 'message-id')).slice(0, longestLine),
    date: dateField?.time ?? null,
    ...(dateField?.zone ? { zone: dateField.zone } : {}),
    ...(received === null ? {} : { received }),
    written: {
      from: writtenOf(fields, 'from'),
      to: writtenOf(fields, 'to'),
      cc: writtenOf(fields, 'cc'),
      ...(subjectWritten === head.subject ? {} : { subject: subjectWritten }),
      ...(authors.length > 1 ? { others: authors.slice(1).map(({ address }) => address) } : {}),
    },
    references,
    deliveredTo: deliveredTo(fields),
    charset: (leaves(structure.root).find((part) => part.charset)?.charset ?? '').toLowerCase().slice(0, 40),
    script: scriptOf(`${head.subject} ${body.slice(0, 4_000)}`),
    attachments: attachmentList(raw, structure),
    preview: previewOf(body),
    textLength: body.length,
    size: raw.length,
    damage,
  };
}

/** The envelope of what can't be taken apart: no more than its size in bytes, and why, in words. */
export const unreadable = (size: number, reason: string): Envelope => ({
  ...parseEnvelope(new Uint8Array(0)),
  size,
  damage: `It could not be taken apart (${reason}).`,
  unreadable: true,
});
