// What rules forward and answer: of what comes in through the post office, once, within limits, and never in a loop.
//
// That it was sent is written down before it is sent: a crash between the two leaves something unsent, never sent twice.
import { sendLimits, type Send } from '../../core/effects/effect';
import { toAnswer } from '../../core/delivery/automaticAnswer';
import { clockOf } from '../../core/delivery/weekly';
import { deliveriesOf } from '../../core/delivery/delivery';
import { AccountIndex, type Account } from '../../core/mail/account';
import { addressKey } from '../../core/mail/address';
import type { Envelope } from '../../core/mail/envelopeSchema';
import { count, short } from '../../core/text/sentences';
import { exactTime } from '../../core/text/time';
import { fileName } from '../../core/text/fileName';
import { answerSubject, forwardedHtml, forwardSubject } from '../../core/writing/answer';
import { threadFields } from '../../core/writing/threadFields';
import { composeMessage, type FileToSend, type WrittenMessage } from '../../core/writing/composing';
import { mostBytes } from '../../core/writing/draft';
import type { Readable } from '../reading/reader';
import type { Loading, Logged } from '../state/mailState';
import type { Exclusive } from '../storage/committing';
import type { Stored } from '../storage/stored';
import type { PostOffice } from './postOffice';
import type { Sending } from './submission';

const day = 86_400_000;

/** The mark on what a rule forwarded: what bears it is never forwarded by a rule again. */
export const hopMark = 'X-Wide-Sort-Forwarded';

/** A message that came in, and what rules want sent of it. */
export interface ToSendByRules {
  id: number;
  sends: readonly Send[];
}

type Sender = Sending & { tell(says: string): void } & Readable &
  Exclusive &
  Pick<Stored, 'envelopes'> &
  Pick<Loading, 'journalReady'> &
  Pick<Logged, 'heads'>;

/** The beginning of the commands that send by a rule. */
const prefix = 'rule-send';

/** How many were sent by rules since a moment. */
const sentSince = ({ heads }: Pick<Logged, 'heads'>, since: number): number =>
  heads.reduce((n, { command, at }) => n + (at > since && command.startsWith(`${prefix} `) ? 1 : 0), 0);

/** Sends what rules want sent of messages that came in. Rejects where one can’t be sent. */
export async function sendByRules(mailbox: Sender, post: PostOffice, list: readonly ToSendByRules[]): Promise<void> {
  if (list.length === 0 || !mailbox.postOn) return;
  await mailbox.journalReady();
  await mailbox.envelopes.ensure(
    list.map(({ id }) => id),
    mailbox.columns.count,
  );
  for (const { id, sends } of list) for (const send of sends) await one(mailbox, post, id, send);
}

async function one(mailbox: Sender, post: PostOffice, id: number, send: Send): Promise<void> {
  const signs = await mailbox.reader.one(id, 'ruleSigns', hopMark);
  if (!signs) return;
  const made =
    send.do === 'answer' ? await answering(mailbox, id, send, signs) : await forwarding(mailbox, id, send, signs);
  if (!made) return;
  const now = mailbox.now();
  if (sentSince(mailbox, now - day) >= sendLimits.messagesADay)
    return mailbox.tell(
      `${count(sendLimits.messagesADay)} messages were forwarded or answered by rules within a day: no more are, until tomorrow. Look through the rules that send.`,
    );
  const { command, says, message } = made;
  // Whatever comes again, it is sent once.
  if (mailbox.heads.some((head) => head.command === command && head.at > now - sendLimits.answeredForDays * day))
    return;
  await mailbox.exclusive(() => mailbox.commit({ command, by: 'Wide Sort', says, final: true }));
  const raw = composeMessage({
    ...message,
    messageId: `${command.replace(/[^\w.-]+/g, '.')}.${mailbox.seq}@${message.from.address.slice(message.from.address.lastIndexOf('@') + 1)}`,
    date: now,
    zone: Math.round(clockOf(deliveriesOf(mailbox.setup).zone, now).offsetNanoseconds / 60e9),
  });
  await post.submit(raw, mailbox.cursor);
}

interface Made {
  command: string;
  says: string;
  message: Omit<WrittenMessage, 'messageId' | 'date' | 'zone'>;
}
export interface Signs {
  answer: Parameters<typeof toAnswer>[1];
  marked: boolean;
}

const fromOf = ({ name, address }: Account) => ({ name, address });

/**
 * Whether a message may go on to an address. Not what was forwarded before, a report, an automatic answer, what the person
 * wrote, what comes from there, or what would come back here.
 */
export function mayGoOn(
  { from }: Pick<Envelope, 'from'>,
  to: string,
  signs: Signs,
  accounts: readonly Account[],
): boolean {
  const own = new AccountIndex(accounts);
  const there = addressKey(from.address) === addressKey(to);
  return !signs.marked && signs.answer.returnPath !== '' && !there && !own.isOwn(from.address) && !own.isOwn(to);
}

/** The answer to a message; null where it must have none. */
async function answering(
  { envelopes, setup }: Sender,
  id: number,
  { block: wanted }: Extract<Send, { do: 'answer' }>,
  signs: Signs,
): Promise<Made | null> {
  const envelope = envelopes.get(id);
  const block = setup.blocks.find((item) => item.id === wanted);
  const whom = toAnswer(envelope, signs.answer, setup.accounts);
  if (!block || !whom.ok) return null;
  return {
    command: `${prefix} answer ${addressKey(whom.to.address)} ${block.id}`,
    says: `Answered ${whom.to.address} by a rule with “${block.name}”`,
    message: {
      from: fromOf(whom.account),
      to: [whom.to],
      subject: answerSubject(envelope.subject),
      html: block.html,
      text: '',
      files: [],
      ...threadFields(envelope),
      // RFC 3834, section 5.
      extra: [['Auto-Submitted', 'auto-replied']],
    },
  };
}

/** A message on its way to somebody else; null where it must not go on. */
async function forwarding(
  { envelopes, setup, derived, columns, reader }: Sender,
  id: number,
  { to, form }: Extract<Send, { do: 'forward' }>,
  signs: Signs,
): Promise<Made | null> {
  const envelope = envelopes.get(id);
  if (!mayGoOn(envelope, to, signs, setup.accounts)) return null;
  const account = setup.accounts[Math.max(0, derived.account(id))];
  if (!account) return null;
  const [head, files] = form === 'file' ? await asFile(reader, id, envelope.subject) : await asText();
  async function asText(): Promise<[string, FileToSend[]]> {
    const quoted = await reader.one(id, 'quotable', undefined);
    const message = {
      envelope,
      when: exactTime(columns.date[id]),
      text: quoted?.text ?? '',
      html: quoted?.html ?? null,
    };
    return [forwardedHtml(message), (await reader.one(id, 'forwarded', quoted?.html ?? '')) ?? []];
  }
  if (files.reduce((sum, { bytes }) => sum + bytes.length, 0) > mostBytes) return null;
  return {
    command: `${prefix} forward ${envelope.messageId || id} ${addressKey(to)}`,
    says: `Forwarded “${short(envelope.subject || 'No subject')}” to ${to} by a rule`,
    message: {
      from: fromOf(account),
      to: [{ name: '', address: to }],
      subject: forwardSubject(envelope.subject),
      html: head,
      text: '',
      files,
      extra: [
        ['Auto-Submitted', 'auto-generated'],
        [hopMark, '1'],
      ],
    },
  };
}

async function asFile(reader: Sender['reader'], id: number, subject: string): Promise<[string, FileToSend[]]> {
  const raw = await reader.one(id, 'raw', undefined);
  const name = `${fileName(subject || 'message')}.eml`;
  return ['<p>Forwarded as a file.</p>', raw ? [{ name, type: 'message/rfc822', bytes: raw }] : []];
}
