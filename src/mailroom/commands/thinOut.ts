// Thinning a conversation out.
import { filled } from '../../core/data/rows';
import { placedNow } from '../state/retention';
import type { Receipt } from '../border/outcome';
import { bit } from '../state/columns';
import { thinVerdicts } from '../search/thinning';
import type { MailState, Loading, Logged } from '../state/mailState';
import type { Readable } from '../reading/reader';
import type { Stored } from '../storage/stored';
import type { Judging } from '../junk/junkFilter';
import type { Committing } from '../storage/committing';
import type { Columns } from '../storage/stateRecords';
import { messages } from '../../core/text/sentences';
import { nothing, doneBefore } from './once';

/** Bins what stands whole in a later message of the same conversation. */
export async function thinOut(
  mailbox: MailState &
    Stored &
    Readable &
    Pick<Loading, 'journalReady'> &
    Pick<Logged, 'heads' | 'commands'> &
    Judging &
    Committing,
  command: string,
  id: number,
): Promise<Receipt> {
  const before = await doneBefore(mailbox, command);
  if (before) return before;
  const verdicts = await thinVerdicts(mailbox, id);
  const ids = Int32Array.from(verdicts.filter(({ goes }) => goes).map((verdict) => verdict.id)).sort();
  if (ids.length === 0) return nothing('Nothing to thin out: every message says something of its own.');
  const { columns, tables } = mailbox;
  const bits = filled(Uint8Array, ids, (one) => columns.bits[one] | bit.byHand);
  const says = `Thinned out “${mailbox.envelopes.get(verdicts[0].id).subject}”: ${messages(ids.length)} to the Bin`;
  const after: Columns = { place: tables.placeIndex('bin'), placedAt: placedNow(mailbox), bits };
  const seq = await mailbox.commit({ command, by: 'you', says, ids, after });
  return { seq, count: ids.length, says };
}
