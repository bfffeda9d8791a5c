// The Logbook: everything that was done, by whom, on which messages, and whether it can still be undone.
import type { LogEntry, LogDetail, LogFilter, LogWindow } from '../border/log';
import { type JournalHead, canUndo, daysKept, jobOf, undoneBy } from '../state/journalHead';
import type { Logged, MailState, Loading } from '../state/mailState';
import type { Stored } from '../storage/stored';
import type { Judging } from '../junk/junkFilter';
import { foldSearch } from '../../core/text/fold';
import { rowOf } from './row';
import { expunged } from '../state/internedTables';
import { traceNames } from '../../core/line/stations';

const mostRows = 50;
const mostDecided = 20;

/** Whether a sorted list of ids has one. */
export function includes(ids: Int32Array, id: number): boolean {
  let low = 0;
  let high = ids.length - 1;
  while (low <= high) {
    const middle = (low + high) >> 1;
    if (ids[middle] === id) return true;
    if (ids[middle] < id) low = middle + 1;
    else high = middle - 1;
  }
  return false;
}

/** An entry: the last of its parts speaks for all of them. */
interface Entry {
  head: JournalHead;
  parts: JournalHead[];
}

/** The Logbook's entries: parts of one job are one entry, newest first. */
function entries(mailbox: Pick<Logged, 'heads'>): Entry[] {
  const out: Entry[] = [];
  let job = '';
  for (const head of mailbox.heads) {
    const its = jobOf(head.command);
    const last = out.at(-1);
    if (last && its === job && its !== head.command) {
      last.parts.push(head);
      last.head = { ...head, count: last.head.count + head.count, undoes: last.head.undoes };
    } else out.push({ head, parts: [head] });
    job = its;
  }
  return out.reverse();
}

/**
 * Of how many messages of each entry something decided, as a trace names it. A message is decided about where it was
 * sorted last: what came in and was sorted anew later counts there.
 */
function decidedIn(
  mailbox: Pick<MailState, 'columns' | 'tables'> & Pick<Logged, 'heads'>,
  all: readonly Entry[],
  by: string,
): Map<number, number> {
  const { columns, tables, heads } = mailbox;
  const traces = new Set(
    tables.traces.items.flatMap((lines, at) => (lines.some((line) => line.by === by) ? [at] : [])),
  );
  const seen = new Uint8Array(columns.count);
  const counts = new Map<number, number>();
  for (const { head, parts } of all) {
    if (!parts.some(({ sorted }) => sorted) || head.undoes !== null || undoneBy(heads, head.seq) !== null) continue;
    let count = 0;
    for (const { sorted, ids } of parts)
      for (const id of sorted && ids ? ids : []) {
        if (!seen[id] && traces.has(columns.trace[id]) && columns.place[id] !== expunged) count++;
        seen[id] = 1;
      }
    if (count > 0) counts.set(head.seq, count);
  }
  return counts;
}

function logEntry(
  mailbox: Pick<Logged, 'heads'> & Pick<MailState, 'setup'>,
  { head, parts }: Entry,
  decided: number | null = null,
): LogEntry {
  const by = undoneBy(mailbox.heads, head.seq);
  return {
    seq: head.seq,
    at: head.at,
    by: head.by,
    says: head.says,
    count: head.count,
    kinds: [...new Set(parts.flatMap(({ kinds }) => kinds))],
    decided,
    undoable: canUndo(head) && by === null,
    keptUntil: head.at + daysKept(mailbox.setup.junk.keepDays) * 86_400_000,
    undoneBy: by,
    undoes: head.undoes,
  };
}

function fits({ head, parts }: Entry, { who, what, since, before, message }: LogFilter, words: string): boolean {
  return (
    (who === 'all' || head.by === who) &&
    (what === null || parts.some(({ kinds }) => kinds.includes(what))) &&
    (since === null || head.at >= since) &&
    (before === null || head.at < before) &&
    (words === '' || foldSearch(head.says).includes(words)) &&
    (message === null || parts.some(({ ids }) => ids !== null && includes(ids, message)))
  );
}

/** A stretch of the Logbook, newest first. */
export async function logbook(
  mailbox: MailState &
    Pick<Stored, 'envelopes'> &
    Pick<Loading, 'journalReady'> &
    Pick<Logged, 'heads' | 'first'> &
    Judging,
  filter: LogFilter,
  from: number,
  to: number,
): Promise<LogWindow> {
  await mailbox.journalReady();
  const words = foldSearch(filter.words.trim());
  const { message, decidedBy } = filter;
  const { columns, envelopes } = mailbox;
  const every = entries(mailbox);
  const decided = decidedBy === null ? null : decidedIn(mailbox, every, decidedBy);
  const all = every.filter((entry) => fits(entry, filter, words) && (decided?.has(entry.head.seq) ?? true));
  const here = message !== null && message < columns.count && columns.place[message] !== expunged;
  if (here) await envelopes.ensure([message], columns.count);
  return {
    total: all.length,
    entries: all.slice(from, to).map((entry) => logEntry(mailbox, entry, decided?.get(entry.head.seq) ?? null)),
    keptDays: daysKept(mailbox.setup.junk.keepDays),
    keptSince: mailbox.first > 1 ? (mailbox.heads[0]?.at ?? null) : null,
    message: here ? rowOf(mailbox, message) : null,
  };
}

/** What an entry touched, or what of it something decided, as a trace names it; null where the Logbook has none of that number. */
export async function logDetail(
  mailbox: MailState &
    Pick<Stored, 'envelopes'> &
    Pick<Loading, 'ready'> &
    Pick<Logged, 'heads' | 'deletedLately'> &
    Judging,
  seq: number,
  decidedBy: string | null = null,
): Promise<LogDetail | null> {
  await mailbox.ready();
  const entry = entries(mailbox).find(({ parts }) => parts.some((part) => part.seq === seq));
  if (!entry) return null;
  const { columns, tables } = mailbox;
  const wanted = (id: number) =>
    decidedBy === null || (tables.traces.items[columns.trace[id]] ?? []).some((line) => line.by === decidedBy);
  const ids = [...new Set(entry.parts.flatMap((part) => [...(part.ids ?? [])]))].filter(wanted);
  const here = ids.filter((id) => columns.place[id] !== expunged);
  const latest = here.toSorted((a, b) => columns.date[b] - columns.date[a] || b - a).slice(0, mostRows);
  const decided = new Map<string, LogDetail['decided'][number]>();
  if (entry.parts.some(({ added }) => added))
    for (const id of here) {
      const line = tables.traces.items[columns.trace[id]]?.at(-1);
      if (!line) continue;
      const key = `${line.station} ${line.by ?? line.says}`;
      const one = decided.get(key);
      if (one) one.count++;
      else
        decided.set(key, {
          who: traceNames[line.station],
          says: line.says,
          setting: settingOf(mailbox, line.by),
          count: 1,
        });
    }
  return {
    rows: latest.map((id) => rowOf(mailbox, id)),
    total: ids.length,
    gone: ids.length - here.length,
    named: ids
      .flatMap((id) => {
        const known = mailbox.deletedLately.get(id);
        return known ? [{ id, ...known }] : [];
      })
      .sort((a, b) => b.date - a.date || b.id - a.id)
      .slice(0, mostRows),
    decided: [...decided.values()].sort((a, b) => b.count - a.count).slice(0, mostDecided),
  };
}

/** A setting that a trace names, where it still exists: `entry:ID`, `rule:ID`, `tray:ID`, `junk` or `delivery`. */
export function settingOf({ setup }: Pick<MailState, 'setup'>, by: string | null): string | null {
  if (by === null || by === 'junk' || by === 'delivery') return by;
  const [kind, key] = [by.slice(0, by.indexOf(':')), by.slice(by.indexOf(':') + 1)];
  const list = kind === 'entry' ? setup.register : kind === 'tray' ? setup.trays : setup.rules;
  return list.some((item) => item.id === key) ? by : null;
}

/** What Undo takes back: the person's last command that was no undo and was not undone. */
export function lastUndoable(mailbox: Pick<Logged, 'heads'> & Pick<MailState, 'setup'>): LogEntry | null {
  for (let i = mailbox.heads.length - 1; i >= 0; i--) {
    const head = mailbox.heads[i];
    if (head.by !== 'you' || head.undoes !== null || head.final) continue;
    if (undoneBy(mailbox.heads, head.seq) === null) return logEntry(mailbox, { head, parts: [head] });
  }
  return null;
}
