// Answering a message: what an answer begins with, and sending it through the post office.
import { AccountIndex } from '../../core/mail/account';
import { formatAddress, parseAddresses, type Address } from '../../core/mail/address';
import { answerSubject, answerText, recipientsOf, threadFields } from '../../core/writing/answer';
import { answerSchema, type Answer, type AnswerFile, type AnswerStart } from '../border/answers';
import { type Outcome } from '../border/outcome';
import { seenFrom } from '../questions/conversations';
import { fileName } from '../../core/text/fileName';
import type { MailState } from '../state/mailState';
import type { Stored } from '../storage/stored';
import type { Readable } from '../reading/reader';
import type { Judging } from '../junk/junkFilter';
import type { Viewing } from '../search/searching';
import type { PostOffice } from './postOffice';
import { rowOf } from '../questions/row';
import { messageToSend, sendMessage, type Sending, textPart, type ToSend } from './submission';
import { expunged } from '../state/internedTables';

const written = (list: readonly Address[]): string => list.map(formatAddress).join(', ');

/** What an answer to a message begins with; null where the message is gone. */
export async function startAnswer(
  mailbox: MailState & Stored & Readable & Judging & Viewing,
  id: number,
  all: boolean,
  when: string,
): Promise<AnswerStart | null> {
  const { columns, derived, envelopes, setup } = mailbox;
  if (id < 0 || id >= columns.count || columns.place[id] === expunged) return null;
  const members = seenFrom(mailbox, id, { kind: 'place', place: 'inbox' }, true);
  await envelopes.ensure(members, columns.count);
  const envelope = envelopes.get(id);
  const accounts = new AccountIndex(setup.accounts);
  const { to, cc } = recipientsOf(envelope, all, accounts.own);
  const text = await mailbox.reader.one(id, 'text', undefined);
  const later = members.slice(members.indexOf(id) + 1).filter((member) => !derived.isOwn(member));
  const newest = later.at(-1);
  return {
    account: setup.accounts[derived.account(id)]?.id ?? setup.accounts[0]?.id ?? null,
    recipients: written(to),
    copies: written(cc),
    subject: answerSubject(envelope.subject),
    text: answerText(envelope.from, when, text ?? ''),
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

/** An answer as it is to be sent, or why it can’t be. */
async function readAnswer(
  mailbox: Pick<MailState, 'setup' | 'columns'> & Pick<Stored, 'envelopes'>,
  answer: Answer,
  zone: number,
): Promise<{ ok: true; message: ToSend } | { ok: false; error: string }> {
  const read = answerSchema.safeParse(answer);
  if (!read.success) return { ok: false, error: `The answer can’t be sent: ${read.error.issues[0].message}.` };
  const account = mailbox.setup.accounts.find((a) => a.id === answer.account);
  if (!account) return { ok: false, error: 'Choose the account from which to send.' };
  const to = readField('To', answer.recipients);
  const cc = readField('Cc', answer.copies);
  const error = to.error ?? cc.error ?? (to.list.length + cc.list.length === 0 ? 'Name somebody to send it to.' : null);
  if (error !== null) return { ok: false, error };
  if (answer.to >= mailbox.columns.count)
    return { ok: false, error: 'The message that it answers is not here any more.' };
  await mailbox.envelopes.ensure([answer.to], mailbox.columns.count);
  const message: ToSend = {
    account,
    zone,
    to: to.list,
    cc: cc.list,
    subject: answer.subject.replace(/\s+/g, ' ').trim(),
    ...threadFields(mailbox.envelopes.get(answer.to)),
    body: textPart(answer.text),
  };
  return { ok: true, message };
}

/** Sends an answer, as {@link sendMessage} does. `zone` in minutes east of UTC. */
export async function sendAnswer(
  mailbox: Sending & Pick<Stored, 'envelopes'>,
  post: PostOffice,
  command: string,
  answer: Answer,
  zone: number,
  check: () => Promise<unknown>,
): Promise<Outcome> {
  const read = await readAnswer(mailbox, answer, zone);
  return read.ok ? sendMessage(mailbox, post, command, check, read.message) : read;
}

/** An answer as a file (RFC 5322), for a program that sends. `zone` in minutes east of UTC. */
export async function answerFile(
  mailbox: MailState & Pick<Stored, 'envelopes'>,
  command: string,
  answer: Answer,
  zone: number,
): Promise<AnswerFile> {
  const read = await readAnswer(mailbox, answer, zone);
  if (!read.ok) return read;
  const blob = new Blob([messageToSend(mailbox.now(), command, read.message)], { type: 'message/rfc822' });
  return { ok: true, blob, name: `${fileName(read.message.subject || 'answer')}.eml` };
}
