// Questions about the Register: what each entry did, and what one would hit.
import { guardsOf, type Guard } from '../../core/senders/guards';
import type { Entry } from '../../core/senders/register';
import { edited } from '../../core/line/setupEdit';
import type { EntryUse } from '../border/junk';
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

/** What speaks against some entries as they would be. */
export async function entryGuards(
  mailbox: SortedMail & Sorting,
  entries: readonly Entry[],
  shared: ReadonlySet<string>,
): Promise<Guard[]> {
  await mailbox.readyToSort(mailbox.setup);
  const { setup, people } = mailbox;
  const keyOf = ({ kind, value }: Entry) => `${kind} ${value}`;
  const ids = new Set(entries.map(({ id }) => id));
  const keys = new Set(entries.map(keyOf));
  const others = setup.register.filter((one) => !ids.has(one.id) && !keys.has(keyOf(one)));
  return guardsOf(entries, people.own, people.writtenTo, [...others, ...entries], shared);
}

/** How many messages are sorted otherwise once an entry is taken off. */
export async function tookByEntry(mailbox: SortedMail & Sorting, id: string): Promise<number> {
  await mailbox.readyToSort(mailbox.setup);
  const next = edited(mailbox.setup, [{ list: 'register', id, item: null }]);
  return next.ok ? changesBetween(mailbox, mailbox.setup, next.setup).filter((c) => c.from !== c.to).length : 0;
}
