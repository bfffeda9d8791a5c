// The Agenda: flagged mail by due date, what is put off, and reminders when a flag falls due.
import { endOfDay, setHours, startOfDay } from 'date-fns';
import type { Row } from '../border/rows';
import type { Agenda } from '../border/rules';
import { bit } from '../state/columns';
import { rowOf, type RowSource } from './row';
import { expunged } from '../state/internedTables';
import type { MailState } from '../state/mailState';

/** More flags than these no day has. */
const mostRows = 2_000;
const mostDone = 20;
/** A flag for a whole day is told of in its morning. */
const morning = 9;

/** All flagged mail, what is due first at the top, then what has no date; and what was done lately. */
export async function agenda(mailbox: RowSource): Promise<Agenda> {
  const { columns, envelopes } = mailbox;
  const putOff: number[] = [];
  const held = mailbox.tables.places.items.indexOf('held');
  const flagged: number[] = [];
  const done: number[] = [];
  for (let id = 0; id < columns.count; id++) {
    if (columns.place[id] === expunged) continue;
    if (columns.place[id] === held && columns.until[id] > 0) putOff.push(id);
    if (columns.bits[id] & bit.flagged) flagged.push(id);
    else if (columns.bits[id] & bit.done) done.push(id);
  }
  flagged.sort(
    (a, b) => (columns.due[a] || Infinity) - (columns.due[b] || Infinity) || columns.date[b] - columns.date[a],
  );
  // What was done last is not known by message; the newest mail is what one looks for.
  done.sort((a, b) => columns.date[b] - columns.date[a]);
  putOff.sort((a, b) => columns.until[a] - columns.until[b] || columns.date[b] - columns.date[a]);
  const [shown, doneShown, putOffShown] = [
    flagged.slice(0, mostRows),
    done.slice(0, mostDone),
    putOff.slice(0, mostRows),
  ];
  await envelopes.ensure([...shown, ...doneShown, ...putOffShown], columns.count);
  const rows = (ids: number[]) => ids.map((id) => rowOf(mailbox, id));
  return {
    total: flagged.length,
    rows: rows(shown),
    done: rows(doneShown),
    doneTotal: done.length,
    putOff: rows(putOffShown),
    putOffTotal: putOff.length,
  };
}

/** When a flag is told of: at its time; one for a whole day, in the morning of that day. */
export function reminderOf(due: number): number {
  return due === endOfDay(due).getTime() ? setHours(startOfDay(due), morning).getTime() : due;
}

/** When the next flag after some moment is to be told of, milliseconds since 1970; null where none is. */
export function nextReminder({ columns }: Pick<MailState, 'columns'>, after: number): number | null {
  let next = Infinity;
  for (let id = 0; id < columns.count; id++) {
    if (!(columns.bits[id] & bit.flagged) || columns.due[id] === 0 || columns.place[id] === expunged) continue;
    // It is told of in the morning of its day at the earliest.
    if (columns.due[id] < after || columns.due[id] - 86_400_000 > next) continue;
    const at = reminderOf(columns.due[id]);
    if (at > after && at < next) next = at;
  }
  return next === Infinity ? null : next;
}

/** Flags whose time to be told of has come after `from`, up to `to`. */
export async function fallenDue(mailbox: RowSource, from: number, to: number): Promise<Row[]> {
  const { columns, envelopes } = mailbox;
  const ids: number[] = [];
  for (let id = 0; id < columns.count && ids.length < mostRows; id++) {
    if (!(columns.bits[id] & bit.flagged) || columns.due[id] === 0 || columns.place[id] === expunged) continue;
    const at = reminderOf(columns.due[id]);
    if (at > from && at <= to) ids.push(id);
  }
  await envelopes.ensure(ids, columns.count);
  return ids.map((id) => rowOf(mailbox, id));
}
