// Questions about the Register: what each entry did, and what one would hit.
import { guardsOf } from '../../core/senders/guards';
import type { Entry } from '../../core/senders/register';
import { type SetupEdit, edited } from '../../core/line/setupEdit';
import type { EntryCheck, EntryUse } from '../border/junk';
import { changesBetween, type SortedMail } from '../search/candidates';
import type { MailState, Loading } from '../state/mailState';
import type { Sorting } from '../search/searching';
import { expunged } from '../state/internedTables';

/** How many messages each entry decided, and when the last of them came. By the entry's id. */
export async function registerUse(
  mailbox: Pick<MailState, 'columns' | 'tables'> & Pick<Loading, 'journalReady'>,
): Promise<Record<string, EntryUse>> {
  await mailbox.journalReady();
  const { columns, tables } = mailbox;
  const entryOfTrace = tables.traces.items.map((trace) => {
    const by = trace.find((line) => line.station === 'register')?.by;
    return by?.startsWith('entry:') ? by.slice('entry:'.length) : null;
  });
  const out: Record<string, EntryUse> = {};
  for (let id = 0; id < columns.count; id++) {
    const entry = entryOfTrace[columns.trace[id]];
    if (!entry || columns.place[id] === expunged) continue;
    const use = (out[entry] ??= { decided: 0, last: null });
    use.decided++;
    if (use.last === null || columns.date[id] > use.last) use.last = columns.date[id];
  }
  return out;
}

/** What speaks against an entry as it would be, and how many messages come back when it is taken off. */
export async function checkEntry(
  mailbox: SortedMail & Sorting,
  entry: Entry,
  shared: ReadonlySet<string>,
): Promise<EntryCheck> {
  await mailbox.readyToSort(mailbox.setup);
  const { setup, people } = mailbox;
  const others = setup.register.filter(
    (one) => one.id !== entry.id && !(one.kind === entry.kind && one.value === entry.value),
  );
  const guards = guardsOf(entry, people.own, people.writtenTo, [...others, entry], shared);
  const off: SetupEdit = { list: 'register', id: entry.id, item: null };
  const next = edited(setup, [off]);
  const took = next.ok ? changesBetween(mailbox, setup, next.setup).filter((c) => c.from !== c.to).length : 0;
  return { guards, took };
}
