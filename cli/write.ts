// write: a message from a draft in a file, as it goes out or as it stands in Sent.
import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { z } from 'zod';
import {
  composeMessage,
  envelopeOf,
  Message,
  messageOf,
  readRecipient,
  type Address,
  type FileToSend,
  type WrittenMessage,
} from '../src/core';
import { bodyBlocks } from '../src/core/mail/body';
import {
  answerSubject,
  forwardedHtml,
  forwardedText,
  forwardSubject,
  quotedHtml,
  quotedText,
  recipientsOf,
  type Quotable,
} from '../src/core/writing/answer';
import { threadFields } from '../src/core/writing/threadFields';
import { forwardedFiles } from '../src/core/writing/forwardedFiles';
import { htmlLines } from '../src/core/writing/htmlLines';
import { typedText } from '../src/core/writing/flowed';
import { addressKey } from '../src/core/mail/address';
import { fileName } from '../src/core/text/fileName';
import { fileError, fileText, messagesOf, oneFile, UsageError } from './files';
import { timeOf, type Options, type Output } from './options';

const address = z.strictObject({ name: z.string().default(''), address: z.string() });

/** A draft in a file. */
const draftSchema = z
  .strictObject({
    from: address,
    to: z.array(address).optional(),
    cc: z.array(address).optional(),
    bcc: z.array(address).default([]),
    subject: z.string().optional(),
    html: z.string().optional(),
    text: z.string().optional(),
    attachments: z
      .array(z.strictObject({ file: z.string(), name: z.string().optional(), type: z.string().optional() }))
      .default([]),
    answers: z.string().optional(),
    how: z.enum(['reply', 'reply all', 'forward', 'attach']).optional(),
    quote: z.boolean().default(false),
  })
  .refine((draft) => draft.html !== undefined || draft.text !== undefined, { error: 'give html or text' })
  .refine((draft) => (draft.answers === undefined) === (draft.how === undefined), {
    error: 'answers and how go together',
  });
type Draft = z.infer<typeof draftSchema>;

async function draftOf(file: string): Promise<Draft> {
  let json: unknown;
  try {
    json = JSON.parse(await fileText(file));
  } catch (error) {
    if (error instanceof UsageError) throw error;
    throw new UsageError(`${file}: it is no JSON: ${error instanceof Error ? error.message : ''}`);
  }
  const read = draftSchema.safeParse(json);
  if (read.success) return read.data;
  const [{ path: at, message }] = read.error.issues;
  throw new UsageError(`${file}: ${at.length ? `${at.join('.')}: ` : ''}${message}`);
}

/** The addresses of a field as they are sent to. Throws UsageError. */
function sentTo(file: string, field: string, list: readonly Address[]): Address[] {
  return list.map((one) => {
    const read = readRecipient(one);
    if (!read.ok) throw new UsageError(`${file}: ${field}: “${one.address}” is no address: ${read.reason}.`);
    return read.address;
  });
}

/** What is answered: its bytes, and as far as it is quoted. */
interface Answered {
  raw: Uint8Array;
  message: Message;
  quotable: Quotable;
}

async function answeredOf(file: string): Promise<Answered> {
  for await (const { stored, form } of messagesOf(file)) {
    const raw = messageOf(stored, form);
    const message = new Message(raw);
    const envelope = envelopeOf(message);
    const rich = bodyBlocks(raw, message.structure).filter(({ kind }) => kind === 'html');
    const when = envelope.date === null ? 'a day that it does not say' : new Date(envelope.date).toUTCString();
    const html = rich.length ? rich.map(({ content }) => content).join('') : null;
    return { raw, message, quotable: { envelope, when, text: message.text, html } };
  }
  throw new UsageError(`${file}: no message is in it`);
}

/** What a draft says of what it answers, where it does not say it itself. */
function answering(draft: Draft, answered: Answered): Partial<WrittenMessage> {
  const envelope = envelopeOf(answered.message);
  if (draft.how === 'forward' || draft.how === 'attach')
    return { subject: forwardSubject(envelope.subject), to: [], cc: [], ...threadFields(envelope) };
  const own = new Set([addressKey(draft.from.address)]);
  return {
    subject: answerSubject(envelope.subject),
    ...recipientsOf(envelope, draft.how === 'reply all', own),
    ...threadFields(envelope),
  };
}

/** The text with what is quoted or forwarded below it. */
function textOf(draft: Draft, answered: Answered | null): { html: string | null; text: string } {
  const forward = draft.how === 'forward';
  const below = answered && (forward || (draft.quote && draft.how !== 'attach')) ? answered.quotable : null;
  if (draft.html !== undefined) {
    const html = draft.html + (below ? (forward ? forwardedHtml(below) : quotedHtml(below)) : '');
    return { html, text: typedText(htmlLines(html)) };
  }
  const text = draft.text ?? '';
  return { html: null, text: below ? `${text}\n\n${forward ? forwardedText(below) : quotedText(below)}` : text };
}

const types: Record<string, string> = {
  '.csv': 'text/csv',
  '.eml': 'message/rfc822',
  '.gif': 'image/gif',
  '.htm': 'text/html',
  '.html': 'text/html',
  '.ics': 'text/calendar',
  '.jpeg': 'image/jpeg',
  '.jpg': 'image/jpeg',
  '.json': 'application/json',
  '.pdf': 'application/pdf',
  '.png': 'image/png',
  '.txt': 'text/plain',
  '.vcf': 'text/vcard',
  '.webp': 'image/webp',
  '.zip': 'application/zip',
};

async function filesToSend(file: string, draft: Draft, answered: Answered | null): Promise<FileToSend[]> {
  const folder = path.dirname(file);
  const files: FileToSend[] = await Promise.all(
    draft.attachments.map(async ({ file: from, name, type }) => {
      const bytes = await readFile(path.resolve(folder, from)).catch((error: unknown) => {
        throw fileError(from, error);
      });
      return {
        name: name ?? path.basename(from),
        type: type ?? types[path.extname(from).toLowerCase()] ?? 'application/octet-stream',
        bytes: new Uint8Array(bytes),
      };
    }),
  );
  if (!answered) return files;
  if (draft.how === 'attach')
    files.push({
      name: `${fileName(answered.quotable.envelope.subject || 'message')}.eml`,
      type: 'message/rfc822',
      bytes: answered.raw,
    });
  if (draft.how === 'forward')
    files.push(...forwardedFiles(answered.raw, answered.message.structure, answered.quotable.html ?? ''));
  return files;
}

/** Prints the raw message of a draft. Throws UsageError. */
export async function write(files: readonly string[], options: Options, output: Output): Promise<void> {
  const file = oneFile(files, 'a draft (JSON)');
  const draft = await draftOf(file);
  const answered =
    draft.answers === undefined ? null : await answeredOf(path.resolve(path.dirname(file), draft.answers));
  const before = answered ? answering(draft, answered) : {};
  const now = timeOf(options.now);
  const [from] = sentTo(file, 'from', [draft.from]);
  const [to, cc, bcc] = [
    sentTo(file, 'to', draft.to ?? before.to ?? []),
    sentTo(file, 'cc', draft.cc ?? before.cc ?? []),
    sentTo(file, 'bcc', draft.bcc),
  ];
  if (to.length + cc.length + bcc.length === 0) throw new UsageError(`${file}: name somebody in to, cc or bcc.`);
  // The same draft at the same moment is the same message.
  const digest = createHash('sha256').update(JSON.stringify(draft)).digest('hex').slice(0, 32);
  const message: WrittenMessage = {
    messageId: `${now.toString(36)}.${digest}@${from.address.slice(from.address.lastIndexOf('@') + 1)}`,
    date: now,
    zone: 0,
    from,
    to,
    cc,
    bcc,
    subject: draft.subject ?? before.subject ?? '',
    ...textOf(draft, answered),
    files: await filesToSend(file, draft, answered),
    inReplyTo: before.inReplyTo,
    references: before.references,
  };
  await output.binary(composeMessage(message, options.sent));
}
