// Which addresses may be the person's own: those that stand in much of what came.
import { addressKey } from '../../core/mail/address';
import type { OwnAddresses } from '../border/ownAddresses';
import { expunged } from '../state/internedTables';
import type { Loading, MailState } from '../state/mailState';
import type { Stored } from '../storage/stored';

/** An address in fewer messages, or in a smaller share of them, is hardly one's own. */
const fewest = 3;
const smallestShare = 0.1;
const most = 3;

/** So many of the newest messages say whose mail it is: all the others need not be read for it. */
const newest = 10_000;

/**
 * The addresses that most of the newest mail came to, by the number of messages in which each stands: as the one that it
 * was delivered to, or in To and Cc. What came by a mailing list names the list there, so only its delivery counts.
 */
export async function ownAddresses(
  mailbox: Pick<MailState, 'columns'> & Pick<Stored, 'envelopes'> & Pick<Loading, 'journalReady'>,
  of = newest,
): Promise<OwnAddresses> {
  await mailbox.journalReady();
  const { columns, envelopes } = mailbox;
  const ids: number[] = [];
  for (let id = columns.count - 1; id >= 0 && ids.length < of; id--) if (columns.place[id] !== expunged) ids.push(id);
  await envelopes.ensure(ids, columns.count);
  const counts = new Map<string, { address: string; name: string; count: number }>();
  for (const id of ids) {
    const { deliveredTo, to, cc, listId } = envelopes.get(id);
    const named = [{ name: '', address: deliveredTo }, ...(listId ? [] : [...to, ...cc])];
    const seen = new Set<string>();
    for (const { name, address } of named) {
      const key = address ? addressKey(address) : '';
      if (!/^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(key) || seen.has(key)) continue;
      seen.add(key);
      const old = counts.get(key);
      if (!old) counts.set(key, { address: key, name, count: 1 });
      else {
        old.count++;
        old.name ||= name;
      }
    }
  }
  const likely = [...counts.values()].filter(({ count }) => count >= Math.max(fewest, ids.length * smallestShare));
  const addresses = likely.sort((a, b) => b.count - a.count).slice(0, most);
  return { looked: ids.length, addresses };
}
