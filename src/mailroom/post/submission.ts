// Sending a message through the post office, and having it stand in Sent.
import type { Account } from '../../core/mail/account';
import type { Address } from '../../core/mail/address';
import { writeMessage, type PartToWrite } from '../../core/mail/writing';
import type { Outcome } from '../border/outcome';
import { addMessages, type TakingIn } from '../intake/incoming';
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
  body: PartToWrite;
}

/** What is needed of the mailbox to send: what is sent comes to stand in it. */
export type Sending = TakingIn & Exclusive & { readonly postOn: boolean };

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

/**
 * Sends a message: to the post office first, then it comes to stand in Sent. `check` fetches what the post office has,
 * among it the message, where this mailbox is the post office's.
 */
export async function sendMessage(
  mailbox: Sending,
  post: PostOffice,
  command: string,
  check: () => Promise<unknown>,
  { account, zone, ...message }: ToSend,
): Promise<Outcome> {
  const raw = writeMessage({
    ...message,
    messageId: idOf(command, account.address),
    date: mailbox.now(),
    zone,
    from: { name: account.name, address: account.address },
  });
  try {
    // A mailbox that is not the post office's keeps its own copy; else the post office hands it out with the rest.
    await post.submit(raw, mailbox.postOn);
    if (mailbox.postOn) await check();
    else await keepCopy(mailbox, command, raw);
  } catch (failure) {
    if (failure instanceof NotWritten)
      return { ok: false, error: `It was sent, but not kept in Sent: ${failure.message}` };
    return { ok: false, error: reasonOf(failure) };
  }
  const names = [...message.to, ...(message.cc ?? [])].map((a) => a.name || a.address);
  const says = `Sent to ${names.slice(0, 3).join(', ')}${names.length > 3 ? ` and ${names.length - 3} more` : ''}`;
  return { ok: true, receipt: { seq: null, count: 1, says } };
}

async function keepCopy(mailbox: TakingIn & Exclusive, command: string, raw: Uint8Array<ArrayBuffer>): Promise<void> {
  const { envelopes, text } = await mailbox.reader.parse([raw], 'eml', false);
  const [envelope] = envelopes;
  const why = { station: 'post office' as const, by: null, says: 'You sent it.' };
  const copy = {
    stored: { bytes: raw, form: 'eml' as const },
    envelope,
    text: { batch: text, at: 0 },
    place: 'sent' as const,
    read: true,
    flagged: false,
    why,
  };
  await mailbox.exclusive(() =>
    addMessages(mailbox, [copy], { command: `${command}-sent`, by: 'post office', says: `Sent “${envelope.subject}”` }),
  );
}
