// Sending a message through the post office, and having it stand in Sent.
import type { Account } from '../../core/mail/account';
import type { Address } from '../../core/mail/address';
import { writeMessage, type PartToWrite } from '../../core/mail/writing';
import type { Outcome } from '../border/outcome';
import type { TakingIn } from '../intake/incoming';
import { NotWritten, type Exclusive } from '../storage/committing';
import type { PostOffice } from './postOffice';
import { reasonOf } from '../../core/text/sentences';

/** What is to be sent. `zone` in minutes east of UTC. */
export interface ToSend {
  account: Account;
  zone: number;
  to: Address[];
  cc?: Address[];
  subject: string;
  inReplyTo?: string;
  references?: string[];
  extra?: [name: string, value: string][];
  body: PartToWrite;
}

/** What is needed of the mailbox to send: what is sent comes to stand in it. */
export type Sending = TakingIn & Exclusive & { readonly postOn: boolean; readonly cursor: string | null };

/** The Message-ID of what is sent: the command's own, so that what is sent again is the same message. */
const idOf = (command: string, address: string): string =>
  `${command.replace(/[^\w.-]/g, '')}.answer1@${address.slice(address.lastIndexOf('@') + 1)}`;

/** Lines of plain text are ended as mail has them; none is so long that a relay may cut it (RFC 5322, section 2.1.1). */
export function textPart(text: string): PartToWrite {
  const bytes = new TextEncoder().encode(`${text.replace(/\r?\n/g, '\r\n').trimEnd()}\r\n`);
  const plain = bytes.every((byte) => byte < 128) && text.split('\n').every((line) => line.length < 900);
  return {
    type: 'text/plain',
    charset: plain ? 'us-ascii' : 'utf-8',
    bytes,
    encoding: plain ? '7bit' : 'quoted-printable',
  };
}

/** A message as it leaves, with all that is needed to send it anywhere. */
export function messageToSend(
  now: number,
  command: string,
  { account, zone, ...message }: ToSend,
): Uint8Array<ArrayBuffer> {
  return writeMessage({
    ...message,
    messageId: idOf(command, account.address),
    date: now,
    zone,
    from: { name: account.name, address: account.address },
  });
}

/** Why nothing is sent from a mailbox that has no post office. */
export const noPostOffice =
  'This mailbox has no post office: nothing can be sent from here. Save it as a file instead.';

/** Sends a message through the post office, whose next changes bring the copy for Sent: `check` fetches them. */
export async function sendMessage(
  mailbox: Sending,
  post: PostOffice,
  command: string,
  check: () => Promise<unknown>,
  message: ToSend,
): Promise<Outcome> {
  if (!mailbox.postOn) return { ok: false, error: noPostOffice };
  const raw = messageToSend(mailbox.now(), command, message);
  try {
    await post.submit(raw, mailbox.cursor);
    await check();
  } catch (failure) {
    if (failure instanceof NotWritten)
      return { ok: false, error: `It was sent, but not kept in Sent: ${failure.message}` };
    return { ok: false, error: reasonOf(failure) };
  }
  const names = [...message.to, ...(message.cc ?? [])].map((a) => a.name || a.address);
  const says = `Sent to ${names.slice(0, 3).join(', ')}${names.length > 3 ? ` and ${names.length - 3} more` : ''}`;
  return { ok: true, receipt: { seq: null, count: 1, says } };
}
