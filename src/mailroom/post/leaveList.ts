// Leaving a mailing list through the post office: by one request, or by a message that asks for it.
import type { LeftList } from '../../core/senders/leavingWays';
import { normalAddress } from '../../core/senders/normal';
import type { Outcome } from '../border/outcome';
import { sendMessage, type Sending, textPart } from './submission';
import { doneBefore } from '../commands/once';
import type { Loading, Logged } from '../state/mailState';
import type { Stored } from '../storage/stored';
import type { PostOffice } from './postOffice';
import { waysOf } from '../questions/senders';
import { reasonOf } from '../../core/text/sentences';

/** Where a list is left, and whence what it comes to is fetched. `zone`: minutes east of UTC. */
export interface LeavingHost {
  post: PostOffice;
  check: () => Promise<unknown>;
  zone: number;
}

/**
 * Leaves the list of a message in one of the ways that it names, and notes it in the setup: what comes after is counted.
 * It can’t be undone: it has been asked for.
 */
export async function leaveList(
  mailbox: Sending & Stored & Pick<Loading, 'journalReady'> & Pick<Logged, 'heads' | 'commands'>,
  { post, check, zone }: LeavingHost,
  command: string,
  message: number,
  by: LeftList['by'],
): Promise<Outcome> {
  const before = await doneBefore(mailbox, command);
  if (before) return { ok: true, receipt: before };
  if (!mailbox.postOn) return { ok: false, error: 'This mailbox has no post office that could ask for it.' };
  await mailbox.ready();
  const { setup, envelopes, derived, columns } = mailbox;
  if (message < 0 || message >= columns.count) return { ok: false, error: 'That message is not here any more.' };
  const { from, listId } = envelopes.get(message);
  const way = (await waysOf(mailbox, message)).find((one) => one.by === by);
  if (!way) return { ok: false, error: 'The message names no such way to leave its list.' };
  const name = from.name || from.address;
  try {
    if (way.by === 'one-click') await post.leave(way.url);
    if (way.by === 'mail') {
      const account = setup.accounts[derived.account(message)] ?? setup.accounts[0];
      if (!account) return { ok: false, error: 'Say under Accounts which address is yours: the list goes by it.' };
      const sent = await sendMessage(mailbox, post, command, check, {
        zone,
        account,
        to: [{ name: '', address: way.to }],
        subject: way.subject,
        body: textPart(way.text),
      });
      if (!sent.ok) return sent;
    }
  } catch (failure) {
    return { ok: false, error: reasonOf(failure) };
  }
  const item: LeftList = { id: command, listId, address: normalAddress(from.address), name, at: mailbox.now(), by };
  const says = `Left the list of ${name}${by === 'mail' ? ', by a message to it' : ''}`;
  const seq = await mailbox.exclusive(() =>
    mailbox.commit({ command, by: 'you', says, final: true, setup: [{ list: 'left', id: item.id, item }] }),
  );
  return { ok: true, receipt: { seq, count: 0, says } };
}
