// Answering a message: what an answer begins with, and sending it through the post office.
import { AccountIndex } from '../core/mail/account';
import { formatAddress, parseAddresses, type Address } from '../core/mail/address';
import { answerSubject, answerText, recipientsOf, threadFields } from '../core/mail/answer';
import { bodyText } from '../core/mail/body';
import { messageOf } from '../core/mail/mbox';
import { parseStructure } from '../core/mail/structure';
import { writeMessage } from '../core/mail/writing';
import { answerSchema, type Answer, type AnswerStart, type Outcome } from './api';
import { seenFrom } from './conversations';
import { addMessages } from './incoming';
import { NotWritten, type Mailbox } from './mailbox';
import type { PostOffice } from './postOffice';
import { readMessages } from './reading';
import { rowOf } from './rows';
import { gone } from './tables';

const written = (list: readonly Address[]): string => list.map(formatAddress).join(', ');

/** What an answer to a message begins with; null where the message is gone. */
export async function startAnswer(
  mailbox: Mailbox,
  id: number,
  all: boolean,
  when: string,
): Promise<AnswerStart | null> {
  const { columns, derived, envelopes, setup } = mailbox;
  if (id < 0 || id >= columns.count || columns.place[id] === gone) return null;
  const members = seenFrom(mailbox, id, { kind: 'place', place: 'inbox' }, true);
  await envelopes.ensure(members, columns.count);
  const envelope = envelopes.get(id);
  const accounts = new AccountIndex(setup.accounts);
  const { to, cc } = recipientsOf(envelope, all, accounts.own);
  const stored = await mailbox.raws.read(id).catch(() => null);
  const raw = stored ? messageOf(stored.bytes, stored.form) : null;
  const later = members.slice(members.indexOf(id) + 1).filter((member) => !derived.isOwn(member));
  const newest = later.at(-1);
  return {
    account: setup.accounts[derived.account(id)]?.id ?? setup.accounts[0]?.id ?? null,
    recipients: written(to),
    copies: written(cc),
    subject: answerSubject(envelope.subject),
    text: answerText(envelope.from, when, raw ? bodyText(raw, parseStructure(raw)) : ''),
    newer: later.length,
    newest: newest === undefined ? null : rowOf(mailbox, newest),
  };
}

/** The addresses of a field as typed; the error where one is none. */
function readField(word: string, typed: string): { list: Address[]; error: string | null } {
  const list = parseAddresses(typed);
  const wrong = list.find(({ address }) => !/^[^\s@]+@[^\s@.]+(\.[^\s@.]+)*$/.test(address));
  return { list, error: wrong ? `${word}: “${wrong.address || wrong.name}” is no address.` : null };
}

/** The Message-ID of an answer: the command's own, so that an answer that is sent again is the same message. */
const idOf = (command: string, address: string): string =>
  `${command.replace(/[^\w.-]/g, '')}.answer1@${address.slice(address.lastIndexOf('@') + 1)}`;

/** Lines of plain text are ended as mail has them; none is so long that a relay may cut it (RFC 5322, section 2.1.1). */
function textPart(text: string) {
  const bytes = new TextEncoder().encode(`${text.replace(/\r?\n/g, '\r\n').trimEnd()}\r\n`);
  const plain = bytes.every((byte) => byte < 128) && text.split('\n').every((line) => line.length < 900);
  return {
    type: 'text/plain',
    charset: plain ? 'us-ascii' : 'utf-8',
    bytes,
    encoding: plain ? ('7bit' as const) : ('quoted-printable' as const),
  };
}

/**
 * Sends an answer: to the post office first, then it comes to stand in Sent. `zone` in minutes east of UTC. `check`
 * fetches what the post office has, among it the message, where this mailbox is the post office's.
 */
export async function sendAnswer(
  mailbox: Mailbox,
  post: PostOffice,
  command: string,
  answer: Answer,
  zone: number,
  check: () => Promise<unknown>,
): Promise<Outcome> {
  const read = answerSchema.safeParse(answer);
  if (!read.success) return { ok: false, error: `The answer can’t be sent: ${read.error.issues[0].message}.` };
  const account = mailbox.setup.accounts.find((a) => a.id === answer.account);
  if (!account) return { ok: false, error: 'Choose the account from which to send.' };
  const to = readField('To', answer.recipients);
  const cc = readField('Cc', answer.copies);
  const error = to.error ?? cc.error ?? (to.list.length + cc.list.length === 0 ? 'Name somebody to send it to.' : null);
  if (error !== null) return { ok: false, error };
  await mailbox.envelopes.ensure([answer.to], mailbox.columns.count);
  const raw = writeMessage({
    messageId: idOf(command, account.address),
    date: mailbox.now(),
    zone,
    from: { name: account.name, address: account.address },
    to: to.list,
    cc: cc.list,
    subject: answer.subject.replace(/\s+/g, ' ').trim(),
    ...threadFields(mailbox.envelopes.get(answer.to)),
    body: textPart(answer.text),
  });
  try {
    // A mailbox that is not the post office's keeps its own copy; else the post office hands it out with the rest.
    await post.submit(raw, mailbox.postOn);
    if (mailbox.postOn) await check();
    else await keepCopy(mailbox, command, raw);
  } catch (failure) {
    if (failure instanceof NotWritten)
      return { ok: false, error: `It was sent, but not kept in Sent: ${failure.message}` };
    return { ok: false, error: failure instanceof Error ? failure.message : String(failure) };
  }
  const names = [...to.list, ...cc.list].map((a) => a.name || a.address);
  const says = `Sent to ${names.slice(0, 3).join(', ')}${names.length > 3 ? ` and ${names.length - 3} more` : ''}`;
  return { ok: true, receipt: { seq: null, count: 1, says } };
}

async function keepCopy(mailbox: Mailbox, command: string, raw: Uint8Array<ArrayBuffer>): Promise<void> {
  const [envelope] = await readMessages([raw], 'eml');
  const why = { station: 'post office' as const, by: null, says: 'You sent it.' };
  const copy = {
    stored: { bytes: raw, form: 'eml' as const },
    envelope,
    place: 'sent' as const,
    read: true,
    flagged: false,
    why,
  };
  await mailbox.exclusive(() =>
    addMessages(mailbox, [copy], { command, by: 'post office', says: `Sent “${envelope.subject}”` }),
  );
}
