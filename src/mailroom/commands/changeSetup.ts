// Changing the setup and, where asked, sorting the mail here by it.
import { filled } from '../../core/data/rows';
import { placedNow } from '../state/retention';
import type { DryRunChange } from '../../core/line/dryRun';
import type { Receipt } from '../border/outcome';
import { roundSince } from '../../core/delivery/tray';
import { nameClash } from '../../core/line/nameClash';
import { type SetupEdit, edited } from '../../core/line/setupEdit';
import { changesBetween } from '../search/candidates';
import { applyChanges, CellColumns, cellsOf } from '../state/effectColumns';
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

/** What is needed of the mailbox to send the mail here down the line again. */
export type Resorting = MailState &
  Pick<Stored, 'envelopes'> &
  Pick<Loading, 'journalReady'> &
  Pick<Logged, 'heads' | 'commands'> &
  Pick<Correspondents, 'people'> &
  Judging &
  Asking &
  Tabled &
  Sorting &
  Committing;

/** What the line puts into Held, or takes out of it, waits for no moment of its own any more. */
function waits(columns: MailState['columns'], changes: readonly DryRunChange[]): Columns {
  const anew = ({ from, to }: DryRunChange) => from !== to && (from === 'held' || to === 'held');
  if (!changes.some(anew)) return {};
  return {
    until: filled(Float64Array, changes, (c) => (anew(c) ? 0 : columns.until[c.id])),
    waitsFrom: filled(Uint32Array, changes, (c) => (anew(c) ? 0 : columns.waitsFrom[c.id])),
  };
}

/** The columns that some changes of a dry run come to. */
export function changeColumns(
  mailbox: Pick<MailState, 'columns' | 'tables' | 'now' | 'daysSeen'>,
  changes: readonly DryRunChange[],
): { ids: Int32Array; after: Columns } {
  const { columns, tables } = mailbox;
  const ids = filled(Int32Array, changes, (c) => c.id);
  const placed = placedNow(mailbox);
  const cells = new CellColumns(tables, ids.length);
  for (const [i, change] of changes.entries()) {
    const its = cellsOf(mailbox, change.id);
    applyChanges(its, change.changes);
    cells.put(i, its);
  }
  const { due, ink, tray, ...always } = cells.columns;
  return {
    ids,
    after: {
      ...always,
      placedAt: filled(Float64Array, changes, (c) => (c.from === c.to ? columns.placedAt[c.id] : placed)),
      // Flags and inks stand in a change only where it sets them: Undo goes by what it has.
      ...(changes.some((c) => c.changes.flag?.due) ? { due } : {}),
      ...(changes.some((c) => c.changes.ink) ? { ink } : {}),
      ...(changes.some((c) => c.changes.tray) ? { tray } : {}),
      ...waits(columns, changes),
      trace: filled(Uint32Array, changes, (c) => tables.traces.add(c.trace())),
    },
  };
}

/** The edits, the rounds of trays among them as from now on where they are others. */
const sinceNow = ({ setup, now }: Pick<MailState, 'setup' | 'now'>, edits: readonly SetupEdit[]): SetupEdit[] =>
  edits.map((edit) =>
    edit.list === 'trays' && edit.item
      ? {
          ...edit,
          item: roundSince(
            edit.item,
            setup.trays.find(({ id }) => id === edit.id),
            now(),
          ),
        }
      : edit,
  );

export type EditResult = { ok: true; receipt: Receipt } | { ok: false; error: string };

/** Changes the setup and, where asked, sends the mail here down the changed line: one command, undone as one. */
export async function changeSetup(
  mailbox: Resorting,
  command: string,
  edits: SetupEdit[],
  says: string,
  runHere: boolean,
): Promise<EditResult> {
  const before = await doneBefore(mailbox, command);
  if (before) return { ok: true, receipt: before };
  const stamped = sinceNow(mailbox, edits);
  const next = edited(mailbox.setup, stamped);
  if (!next.ok) return { ok: false, error: next.error };
  const clash = nameClash(mailbox.setup, next.setup);
  if (clash !== null) return { ok: false, error: clash };
  if (runHere) await mailbox.readyToSort(next.setup);
  const changes = runHere ? changesBetween(mailbox, mailbox.setup, next.setup) : [];
  const words = changes.length ? `${says}, and sorted ${messages(changes.length)} here by it` : says;
  const change = changes.length ? changeColumns(mailbox, changes) : {};
  const seq = await mailbox.commit({ command, by: 'you', says: words, setup: stamped, ...change });
  return { ok: true, receipt: { seq, count: changes.length, says: words } };
}
