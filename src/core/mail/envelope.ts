// The envelope: what is known of a message without opening it again (the word is IMAP's, RFC 9051, section 7.5.2).
import { z } from 'zod';
import { parseAddresses, type Address } from './address';
import { attachmentList, bodyText } from './body';
import { byteText } from './charset';
import { parseDate } from './date';
import { decodeEncodedWords } from './encodedWord';
import { fieldValue, type HeaderField } from './header';
import { isAttachment, leaves, parseStructure } from './structure';
import { isCutBase64 } from './transfer';

const addressSchema = z.object({ name: z.string(), address: z.string() });

/** What a stored envelope must look like. */
export const envelopeSchema = z.object({
  /** Message-ID without its angle brackets; empty where there is none. */
  messageId: z.string(),
  /** The Date field, milliseconds since 1970 in UTC; null where there is none that can be read. */
  date: z.number().nullable(),
  from: addressSchema,
  to: z.array(addressSchema),
  cc: z.array(addressSchema),
  replyTo: z.array(addressSchema),
  subject: z.string(),
  /** The identifier of List-Id, in lower case (RFC 2919); empty where the message came by no list. */
  listId: z.string(),
  /** Message-IDs that it answers, oldest first, from References and In-Reply-To (RFC 5322, section 3.6.4). */
  references: z.array(z.string()),
  attachments: z.array(z.object({ name: z.string().nullable(), type: z.string(), size: z.number() })),
  /** The first words of its text, at most 160 characters. */
  preview: z.string(),
  /** Length of its plain text, in characters. */
  textLength: z.number(),
  /** Size of the raw message, in bytes. */
  size: z.number(),
  /** What is broken about it, in a sentence; null where nothing is. */
  damage: z.string().nullable(),
});

export type Envelope = z.infer<typeof envelopeSchema>;

/** More recipients than these are counted by nobody and slow down everything. */
const mostRecipients = 2_000;
const mostReferences = 1_000;
const longestText = 2_000;

/** Characters that would turn the rest of a line around, or are no text at all: they never belong in a one-line field. */
const unwanted = new RegExp('[\\u0000-\\u001f\\u007f\\u202a-\\u202e\\u2066-\\u2069]+', 'g');
const oneLine = (text: string): string => text.replace(unwanted, ' ').replace(/\s+/g, ' ').trim().slice(0, longestText);

const messageIds = (field: string | null): string[] =>
  field === null ? [] : [...field.matchAll(/<([^<>\s]+)>/g)].slice(-mostReferences).map((m) => m[1]);

function firstId(field: string | null): string {
  return messageIds(field)[0] ?? field?.trim().replace(/^<|>$/g, '') ?? '';
}

function people(fields: readonly HeaderField[], name: string): Address[] {
  const out: Address[] = [];
  for (const field of fields)
    if (field.key === name) out.push(...parseAddresses(field.value, mostRecipients - out.length));
  return out.map((a) => ({ name: oneLine(a.name), address: a.address }));
}

/** The identifier of a List-Id field: what stands in angle brackets, or all of it (RFC 2919, section 3). */
export function listIdOf(field: string | null): string {
  if (field === null) return '';
  return (/<([^<>]*)>/.exec(field)?.[1] ?? field).trim().toLowerCase();
}

/** The first words of a text, without what it quotes. */
function previewOf(text: string): string {
  const own = text
    .slice(0, 1_500)
    .split('\n')
    .filter((line) => !line.startsWith('>'))
    .join(' ');
  return oneLine(own).slice(0, 160);
}

/**
 * Reads the envelope of a raw message. Never throws: what can't be read is empty, and `damage` says what is wrong.
 */
export function parseEnvelope(raw: Uint8Array): Envelope {
  const text = byteText(raw);
  const structure = parseStructure(raw, text);
  const { fields } = structure;
  let { damage } = structure;
  for (const part of leaves(structure.root))
    if (part.encoding === 'base64' && isAttachment(part) && isCutBase64(raw.subarray(part.start, part.end)))
      damage ??= `Its attachment ${part.filename ? `“${oneLine(part.filename)}” ` : ''}is cut off.`;
  const body = bodyText(raw, structure);
  const dateField = fieldValue(fields, 'date');
  const references = messageIds(fieldValue(fields, 'references'));
  for (const id of messageIds(fieldValue(fields, 'in-reply-to'))) if (!references.includes(id)) references.push(id);
  return {
    messageId: firstId(fieldValue(fields, 'message-id')).slice(0, longestText),
    date: dateField === null ? null : parseDate(dateField),
    from: people(fields, 'from')[0] ?? people(fields, 'sender')[0] ?? { name: '', address: '' },
    to: people(fields, 'to'),
    cc: people(fields, 'cc'),
    replyTo: people(fields, 'reply-to'),
    subject: oneLine(decodeEncodedWords(fieldValue(fields, 'subject') ?? '')),
    listId: oneLine(listIdOf(fieldValue(fields, 'list-id'))),
    references,
    attachments: attachmentList(raw, structure),
    preview: previewOf(body),
    textLength: body.length,
    size: raw.length,
    damage,
  };
}
