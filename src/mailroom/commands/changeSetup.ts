// Changing the setup and, where asked, sorting the mail here by it.
import type { DryRunChange } from '../../core/line/dryRun';
import type { Receipt } from '../border/outcome';
import { type SetupEdit, edited } from '../../core/line/setupEdit';
import { changesBetween } from '../search/candidates';
import { bit, inkNumber } from '../state/columns';
import type { MailState, Loading, Logged } from '../state/mailState';
import type { Correspondents } from '../state/correspondents';
import type { Stored } from '../storage/stored';
import type { Judging } from '../junk/junkFilter';
import type { Asking, Sorting } from '../search/searching';
import type { Committing } from '../storage/committing';
import type { Columns } from '../storage/stateRecords';
import { messages } from '../../core/text/sentences';
import { doneBefore } from './once';
import type { Tabled } from '../search/indexed';

/** The columns that some changes of a dry run come to. */
export function changeColumns(
  mailbox: Pick<MailState, 'columns' | 'tables' | 'now'>,
  changes: readonly DryRunChange[],
): { ids: Int32Array; after: Columns } {
  const { columns, tables } = mailbox;
  const ids = Int32Array.from(changes, (c) => c.id);
  const now = mailbox.now();
  return {
    ids,
    after: {
      place: Uint16Array.from(changes, (c) => tables.placeIndex(c.to)),
      placedAt: Float64Array.from(changes, (c) => (c.from === c.to ? columns.placedAt[c.id] : now)),
      bits: Uint8Array.from(
        changes,
        (c) => columns.bits[c.id] | (c.markRead ? bit.read : 0) | (c.flag ? bit.flagged : 0),
      ),
      ...(changes.some((c) => c.flag?.due)
        ? { due: Float64Array.from(changes, (c) => (c.flag ? (c.flag.due ?? 0) : columns.due[c.id])) }
        : {}),
      ...(changes.some((c) => c.ink !== undefined)
        ? { ink: Uint8Array.from(changes, (c) => (c.ink === undefined ? columns.ink[c.id] : inkNumber(c.ink))) }
        : {}),
      labels: Uint16Array.from(changes, (c) =>
        tables.labelSetIndex([...tables.labelSets.items[columns.labels[c.id]], ...c.addLabels]),
      ),
      trace: Uint32Array.from(changes, (c) => tables.traces.add(c.trace())),
    },
  };
}

export type EditResult = { ok: true; receipt: Receipt } | { ok: false; error: string };

/** Changes the setup and, where asked, sends the mail here down the changed line: one command, undone as one. */
export async function changeSetup(
  mailbox: MailState &
    Pick<Stored, 'envelopes'> &
    Pick<Loading, 'journalReady'> &
    Pick<Logged, 'heads' | 'commands'> &
    Pick<Correspondents, 'people'> &
    Judging &
    Asking &
    Tabled &
    Sorting &
    Committing,
  command: string,
  edits: SetupEdit[],
  says: string,
  runHere: boolean,
): Promise<EditResult> {
  const before = await doneBefore(mailbox, command);
  if (before) return { ok: true, receipt: before };
  const next = edited(mailbox.setup, edits);
  if (!next.ok) return { ok: false, error: next.error };
  if (runHere) await mailbox.readyToSort(next.setup);
  const changes = runHere ? changesBetween(mailbox, mailbox.setup, next.setup) : [];
  const words = changes.length ? `${says}, and sorted ${messages(changes.length)} here by it` : says;
  const change = changes.length ? changeColumns(mailbox, changes) : {};
  const seq = await mailbox.commit({ command, by: 'you', says: words, setup: edits, ...change });
  return { ok: true, receipt: { seq, count: changes.length, says: words } };
}
