// Being told of new mail: what of it the person chose, as it arrives and as it would have been lately.
import { isTold, type Told } from '../../core/senders/told';
import type { ToldReport } from '../border/notifications';
import type { Row } from '../border/rows';
import type { MailState, Loading } from '../state/mailState';
import type { Stored } from '../storage/stored';
import type { Judging } from '../junk/junkFilter';
import type { Viewing } from '../search/searching';
import { rowOf, type RowSource } from './row';

const lately = 7 * 86_400_000;
const sampleSize = 50;

/** Of some messages those to tell of: new in the Inbox, and chosen. Their envelopes must be in memory. */
export function toTell(mailbox: RowSource, ids: Iterable<number>, told: readonly Told[] = mailbox.setup.told): Row[] {
  if (told.length === 0) return [];
  const inbox = mailbox.tables.placeIndex('inbox');
  const out: Row[] = [];
  for (const id of ids)
    if (mailbox.columns.place[id] === inbox && !mailbox.derived.isOwn(id)) {
      const row = rowOf(mailbox, id);
      if (isTold(told, row.from.address, row.labels)) out.push(row);
    }
  return out;
}

/** What the person would have been told of in the last seven days, of what is still in the Inbox. */
export async function toldLately(
  mailbox: MailState & Pick<Stored, 'envelopes'> & Pick<Loading, 'ready'> & Judging & Viewing,
  told: readonly Told[],
): Promise<ToldReport> {
  await mailbox.ready();
  const rows = toTell(mailbox, mailbox.views.since(mailbox.now() - lately), told);
  return { total: rows.length, sample: rows.slice(0, sampleSize) };
}
