// Tasks and appointments as the Agenda and messages show them.
import { startOfDay } from 'date-fns';
import { answerWords } from '../../core/agenda/invitation';
import { itemTitle, type Item } from '../../core/agenda/item';
import { occurrences, type Occurrence } from '../../core/agenda/occurrences';
import { recurrenceWords } from '../../core/agenda/recurrenceWords';
import { deliveriesOf } from '../../core/delivery/delivery';
import { AccountIndex } from '../../core/mail/account';
import type { DatedItem, DatedStretch } from '../border/agenda';
import { expunged } from '../state/internedTables';
import type { Dated, Loading, MailState } from '../state/mailState';
import type { Stored } from '../storage/stored';

/** What of the mailbox is gone by. */
export type DatedSource = MailState & Dated & Pick<Stored, 'envelopes'> & Pick<Loading, 'ready'>;

/** No stretch shows more, and no list of tasks. */
const mostShown = 4_000;
const mostTasks = 200;
const mostDone = 20;

/** The zone in which the person is. */
export const hereOf = ({ setup }: Pick<MailState, 'setup'>): string => deliveriesOf(setup).zone;

/** Which messages of those Message-IDs are here, in which place. Only after `ready`. */
export function messagesHere(
  { columns, envelopes, tables }: Pick<MailState, 'columns' | 'tables'> & Pick<Stored, 'envelopes'>,
  wanted: ReadonlySet<string>,
): Map<string, NonNullable<DatedItem['message']>> {
  const out = new Map<string, NonNullable<DatedItem['message']>>();
  if (wanted.size === 0) return out;
  for (let id = 0; id < columns.count && out.size < wanted.size; id++) {
    if (columns.place[id] === expunged) continue;
    const { messageId } = envelopes.get(id);
    if (wanted.has(messageId)) out.set(messageId, { id, place: tables.place(columns.place[id]) });
  }
  return out;
}

/** Whether a task is open. */
const isOpen = ({ kind, done, status }: Item): boolean => kind === 'task' && done === null && status !== 'cancelled';

/** Makes what crosses the border of items. */
class Showing {
  private readonly own: AccountIndex;
  private readonly here: Map<string, NonNullable<DatedItem['message']>>;
  private readonly now: number;

  constructor(mailbox: DatedSource, items: Iterable<Item>) {
    this.own = new AccountIndex(mailbox.setup.accounts);
    this.here = messagesHere(mailbox, new Set([...items].flatMap(({ messages }) => messages)));
    this.now = mailbox.now();
  }

  /** One, as it stands at a moment or without one. Written out whole: thousands are made at once. */
  private entry(item: Item, at: Pick<DatedItem, 'on' | 'title' | 'place' | 'at' | 'end' | 'wholeDay' | 'late'>) {
    const { organizer, repeats } = item;
    const others = item.invited.filter(({ address }) => !this.own.isOwn(address));
    const mine = organizer !== null && !this.own.isOwn(organizer.address);
    return {
      uid: item.uid,
      on: at.on,
      kind: item.kind,
      title: at.title,
      place: at.place,
      at: at.at,
      end: at.end,
      wholeDay: at.wholeDay,
      done: item.done !== null,
      late: at.late,
      status: item.status,
      repeats: repeats === null ? '' : recurrenceWords(repeats),
      messages: item.messages.length,
      message: item.messages.flatMap((id) => this.here.get(id) ?? []).at(0) ?? null,
      invited: mine || others.length === 0 ? '' : answerWords(others),
      by: mine ? organizer.name || organizer.address : '',
      mine: mine ? (item.invited.find(({ address }) => this.own.isOwn(address))?.answer ?? null) : null,
    } satisfies DatedItem;
  }

  occurrence({ item, on, title, place, start, end, wholeDay }: Occurrence): DatedItem {
    // A whole day is late once it is over.
    const by = wholeDay && item.kind === 'task' ? start + 86_400_000 : start;
    const late = isOpen(item) && by <= this.now;
    return this.entry(item, { on, title, place, at: start, end, wholeDay, late });
  }

  undated(item: Item): DatedItem {
    const { place } = item;
    return this.entry(item, { on: null, title: itemTitle(item), place, at: null, end: 0, wholeDay: true, late: false });
  }
}

/** What stands in the stretch from `from` up to, not including, `to`, milliseconds since 1970: at most `most` of it. */
export async function dated(
  mailbox: DatedSource,
  from: number,
  to: number,
  most: number = mostShown,
): Promise<DatedStretch> {
  await mailbox.ready();
  const here = hereOf(mailbox);
  const all = [...mailbox.items.all.values()];
  const found = occurrences(all, from, to, here);
  const shown = found.slice(0, Math.min(most, mostShown));
  const past = all.filter(isOpen);
  const allLate = occurrences(past, 0, from, here).filter(
    ({ item, start, wholeDay }) => item.repeats === null || (wholeDay ? start + 86_400_000 : start) <= mailbox.now(),
  );
  const late = allLate.slice(-mostTasks);
  const allUndated = past.filter(({ start, end }) => start === null && end === null);
  const undated = allUndated.slice(0, mostTasks);
  const done = all
    .filter((item) => item.kind === 'task' && item.done !== null)
    .sort((a, b) => (b.done ?? 0) - (a.done ?? 0))
    .slice(0, mostDone);
  const showing = new Showing(mailbox, new Set([...shown, ...late].map(({ item }) => item).concat(undated, done)));
  const rounds = deliveriesOf(mailbox.setup).between(Math.max(from, mailbox.now()), to);
  return {
    items: shown.map((one) => showing.occurrence(one)),
    total: found.length,
    late: late.map((one) => showing.occurrence(one)),
    lateTotal: allLate.length,
    undated: undated.map((one) => showing.undated(one)),
    undatedTotal: allUndated.length,
    done: done.map((one) => showing.undated(one)),
    rounds: rounds
      .slice(0, 500)
      .map(({ at, name, what }) => ({ at, name: what === 'tray' ? `Tray ${name}` : `Delivery: ${name}` })),
  };
}

/** A whole day is told of in its morning. */
const morning = 9 * 3_600_000;

/** When an occurrence is told of: so long before as its reminder says, of a whole day counted from its morning. */
function reminderAt({ item, start, wholeDay }: Occurrence): number | null {
  if (item.reminder === null || item.done !== null || item.status === 'cancelled') return null;
  return (wholeDay ? startOfDay(start).getTime() + morning : start) - item.reminder * 60_000;
}

/** Farther ahead nothing is planned: the mailroom looks again before. */
const ahead = 8 * 86_400_000;
const longestReminder = 366 * 86_400_000;

/** What is told of after `from`, up to `to`; each with the moment. */
function reminders(mailbox: MailState & Dated, from: number, to: number): { at: number; of: Occurrence }[] {
  const here = hereOf(mailbox);
  const out: { at: number; of: Occurrence }[] = [];
  for (const item of mailbox.items.all.values()) {
    if (item.reminder === null) continue;
    const reach = Math.min(longestReminder, Math.abs(item.reminder) * 60_000) + 86_400_000;
    for (const of of occurrences([item], from - reach, to + reach, here)) {
      const at = reminderAt(of);
      if (at !== null && at > from && at <= to) out.push({ at, of });
    }
  }
  return out;
}

/** When the next task or appointment is to be told of after a moment; null where none is in sight. */
export function nextItemReminder(mailbox: MailState & Dated, after: number): number | null {
  const all = reminders(mailbox, after, after + ahead);
  return all.length ? Math.min(...all.map(({ at }) => at)) : null;
}

/** Tasks and appointments whose time to be told of has come after `from`, up to `to`. */
export async function itemsFallenDue(mailbox: DatedSource, from: number, to: number): Promise<DatedItem[]> {
  const due = reminders(mailbox, from, to);
  if (due.length === 0) return [];
  await mailbox.ready();
  const showing = new Showing(
    mailbox,
    due.map(({ of }) => of.item),
  );
  return due.map(({ of }) => showing.occurrence(of));
}
