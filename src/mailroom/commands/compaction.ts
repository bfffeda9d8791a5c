// Compacting the journal, so that the Logbook is kept to a size: old entries are let go, and the state is written once
// more, as the checkpoint on which the rest of the journal stands.
import { daysKept, type JournalHead, jobOf } from '../state/journalHead';
import type { MailState, Loading, Logged } from '../state/mailState';
import type { Keeping } from '../storage/stored';
import { journalOf } from '../storage/stock';
import { keyOf, statePackSize } from '../storage/keys';
import type { Writes } from '../storage/storing';

/** Entries that are kept whatever their age. */
export const mostEntries = 5_000;
/** How many of the oldest entries may go: more than are kept, older than is kept, no job torn apart. */
export function mayGo(heads: readonly JournalHead[], now: number, keepDays: number, most = mostEntries): number {
  const before = now - daysKept(keepDays) * 86_400_000;
  let n = Math.max(0, heads.length - most);
  while (n > 0 && heads[n - 1].at >= before) n--;
  while (n > 0 && n < heads.length && jobOf(heads[n - 1].command) === jobOf(heads[n].command)) n--;
  return n;
}

/** Lets the oldest entries go where there are too many. Returns how many went. Only within `exclusive`. */
export async function compact(
  mailbox: Pick<MailState, 'columns' | 'setup' | 'now'> &
    Pick<Keeping, 'records'> &
    Pick<Loading, 'journalReady'> &
    Pick<Logged, 'heads' | 'first'> & { flush(): Promise<void> } & { letGo(n: number, first: number): void } & {
      meta(): Writes[number];
    },
  most = mostEntries,
): Promise<number> {
  await mailbox.journalReady();
  const { records, heads, columns } = mailbox;
  const n = mayGo(heads, mailbox.now(), mailbox.setup.junk.keepDays, most);
  if (n === 0) return 0;
  const last = heads[n - 1].seq;
  await mailbox.flush();
  // First the checkpoint, then what says that it is there: until then the old one counts, and no record is missing.
  for (let pack = 0; pack * statePackSize < columns.count; pack++)
    await records.write(keyOf.checkpointState(pack), columns.pack(pack));
  const [, meta] = mailbox.meta();
  await records.write(keyOf.checkpoint, { meta: { ...meta, first: last + 1 } });
  mailbox.letGo(n, last + 1);
  await mailbox.flush();
  // What a crash left of an earlier time goes, too.
  for (const seq of await journalOf(records)) if (seq <= last) await records.remove(keyOf.journal(seq));
  return n;
}
