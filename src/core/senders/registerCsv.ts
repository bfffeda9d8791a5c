// The Register as CSV (RFC 4180), out and in. What comes in is checked row by row; what goes out is safe to open in a
// spreadsheet: a cell that such a program would take for a formula begins with an apostrophe.
import { csvFormatRow, dsvFormat } from 'd3-dsv';
import {
  entryKinds,
  everything,
  parseEntry,
  parseEntryOf,
  type Entry,
  type EntryKind,
  type Standing,
} from './register';

const columns = ['kind', 'value', 'subdomains', 'except', 'standing', 'since', 'why'] as const;

/** Whether a spreadsheet would take a cell for a formula (OWASP, CSV injection). */
const formula = /^[=+\-@\t\r]/;
const guarded = (cell: string): string => (formula.test(cell) ? `'${cell}` : cell);
const unguarded = (cell: string): string =>
  cell.startsWith("'") && formula.test(cell.slice(1, 2)) ? cell.slice(1) : cell;

/** Writes the entries, one a row, in the order given. */
export function registerToCsv(entries: readonly Entry[]): string {
  const rows = entries.map(({ kind, value, below, except, standing, since, why }) =>
    [
      kind,
      value,
      kind === 'domain' ? (below === false ? 'no' : 'yes') : '',
      (except ?? []).join(' '),
      standing,
      since ? new Date(since).toISOString() : '',
      why,
    ].map(guarded),
  );
  return [columns, ...rows].map((row) => `${csvFormatRow([...row])}\r\n`).join('');
}

/** A row that could not be taken: its number in the file, from 1, what stood there, and why. */
export interface WrongRow {
  row: number;
  text: string;
  reason: string;
}

export interface CsvEntries {
  entries: Omit<Entry, 'id'>[];
  /** The row of each entry, from 1. */
  rows: number[];
  /** The first {@link mostWrong} rows that could not be taken, and how many there are. */
  wrong: WrongRow[];
  wrongCount: number;
  /** The first row named the columns: those that are understood, in their order, and those that are not. */
  head: { known: Column[]; unknown: string[] } | null;
}

type Column = (typeof columns)[number];
type Cells = Partial<Record<Column, string>>;

const kindList = entryKinds.join(', ');
const neverClosed = 'A quotation mark is opened here and never closed: nothing from here on can be read.';

/** The largest file that is read, in characters. */
export const mostCsv = 5_000_000;
/** Stands behind the last row: where it comes in no row of its own, a quotation mark is still open. */
const last = '\0 no row';
/** So many wrong rows are listed; all are counted. */
export const mostWrong = 500;

/** What other lists call our columns; none of them could be a value (common practice, no source). */
const columnNames = new Map<string, Column>([
  ...columns.map((name): [string, Column] => [name, name]),
  ...['address', 'email', 'e-mail', 'mail', 'domain', 'sender', 'from', 'host'].map((name): [string, Column] => [
    name,
    'value',
  ]),
  ['type', 'kind'],
  ['status', 'standing'],
  ['reason', 'why'],
  ['note', 'why'],
  ['comment', 'why'],
  ['date', 'since'],
  ['added', 'since'],
]);

/**
 * Reads entries from CSV or from a plain list, one address or domain a line. With a header row its columns may stand in
 * any order and be left out, but for the value; without one the first column is the value, the second the standing, the
 * third the reason. `standing` and `now` go for rows that say none. Wrong rows are listed; the others are taken.
 */
export function registerFromCsv(text: string, standing: Standing, now: number): CsvEntries {
  const lines = text.slice(0, mostCsv).replace(/^\ufeff/, '');
  const out: CsvEntries = { entries: [], rows: [], wrong: [], wrongCount: 0, head: null };
  const seen = new Map<string, number>();
  let cellsOf: ReturnType<typeof cellReader> | null = null;
  let number = 0;
  // Row by row: a file may be nothing but rows of one letter, and none of them need be kept.
  const take = (cells: string[], at: number): null => {
    number = at + 1;
    if (cells.length !== 1 || cells[0] !== last) takeRow(cells);
    return null;
  };
  const takeRow = (cells: string[]) => {
    if (cells.every((cell) => cell === '')) return;
    const row = cells.map((cell) => unguarded(cell.trim()));
    if (row.every((cell) => cell === '')) return;
    if (!cellsOf) {
      out.head = headOf(row);
      cellsOf = cellReader(
        out.head ? row.map((name) => columnNames.get(name.toLowerCase())) : ['value', 'standing', 'why'],
      );
      if (out.head) return;
    }
    // All that comes after a quotation mark that is never closed is one cell (RFC 4180, section 2): no entry of anybody's.
    const unclosed = cells[cells.length - 1].endsWith(last);
    const read = unclosed ? neverClosed : entryFrom(cellsOf(row), standing, now);
    if (typeof read === 'string') return wrong(row, read);
    const key = `${read.kind} ${read.value}`;
    const before = seen.get(key);
    if (before !== undefined) return wrong(row, `“${read.value}” stands in row ${before} already.`);
    seen.set(key, number);
    out.entries.push(read);
    out.rows.push(number);
  };
  const wrong = (row: readonly string[], reason: string) => {
    if (out.wrongCount++ < mostWrong) out.wrong.push({ row: number, text: row.join(', ').slice(0, 200), reason });
  };
  dsvFormat(separatorOf(lines)).parseRows(`${lines}\n${last}`, take);
  return out;
}

/** What parts the cells: of the signs that are common for it, the one that stands most in the first row (common practice, no source). */
function separatorOf(text: string): string {
  const first = /^\s*([^\r\n]*)/.exec(text.slice(0, 10_000))?.[1] ?? '';
  const often = (sign: string) => first.split(sign).length;
  return [',', ';', '\t', '|'].reduce((best, sign) => (often(sign) > often(best) ? sign : best));
}

/** The columns, where a row names them: one that can be the value is among them. */
function headOf(row: readonly string[]): CsvEntries['head'] {
  const names = row.map((cell) => columnNames.get(cell.toLowerCase()));
  if (!names.includes('value')) return null;
  const used = columns.map((name) => names.lastIndexOf(name));
  return {
    known: names.filter((name, at): name is Column => name !== undefined && used.includes(at)),
    unknown: row.filter((cell, at) => cell !== '' && !used.includes(at)),
  };
}

/** Takes the cells out of rows by the names of their columns; of a column that stands twice the last. */
function cellReader(names: readonly (Column | undefined)[]): (row: readonly string[]) => Cells {
  const [kind, value, subdomains, except, standing, since, why] = columns.map((name) => names.lastIndexOf(name));
  // A position that a list does not have is looked for as a name would be, which takes longer than all else.
  const cell = (row: readonly string[], at: number) => (at >= 0 && at < row.length ? row[at] : undefined);
  return (row) => ({
    kind: cell(row, kind),
    value: cell(row, value),
    subdomains: cell(row, subdomains),
    except: cell(row, except),
    standing: cell(row, standing),
    since: cell(row, since),
    why: cell(row, why),
  });
}

/** An entry from the cells of a row; what is wrong with them, where they are none. */
function entryFrom(cells: Cells, standing: Standing, now: number): Omit<Entry, 'id'> | string {
  const value = cells.value ?? '';
  const kind = cells.kind?.trim().toLowerCase();
  if (kind && !entryKinds.includes(kind as EntryKind)) return `“${kind}” is no kind: ${kindList} are.`;
  const read = kind ? parseEntryOf(kind as EntryKind, value) : parseEntry(value);
  if (!read.ok) return read.error;
  const says = (cells.standing ?? '').trim().toLowerCase();
  if (says && says !== 'safe' && says !== 'blocked') return `“${says}” is no standing: it is safe or blocked.`;
  const below = (cells.subdomains ?? '').trim().toLowerCase();
  if (below && !['yes', 'no'].includes(below)) return `“${below}” in subdomains: it is yes or no.`;
  const since = cells.since?.trim() ? Date.parse(cells.since) : now;
  if (Number.isNaN(since)) return `“${cells.since}” is no date.`;
  const why = cells.why ?? '';
  if (why.length > 500) return 'Its reason is longer than 500 characters.';
  const entry: Omit<Entry, 'id'> = {
    kind: read.kind,
    value: read.value,
    standing: (says || standing) as Standing,
    since,
    why,
  };
  if (read.kind === 'domain' && below === 'no') entry.below = false;
  const except = (cells.except ?? '').split(/[\s;]+/).filter(Boolean);
  if (except.length && read.value !== everything) return 'Only an entry for * can have exceptions.';
  if (except.length) {
    const values: string[] = [];
    for (const one of except) {
      const each = parseEntryOf(read.kind, one);
      if (!each.ok) return each.error;
      values.push(each.value);
    }
    entry.except = values;
  }
  return entry;
}

/** What taking a row up does to the Register. */
export type Taking = 'new' | 'changes' | 'same';

/**
 * What taking some entries up would do: the entries as they are to be, what each of `incoming` does, and how many are
 * new, changed, or there already. A reason that stands in the Register stays where the row gives none.
 */
export function mergeEntries(
  register: readonly Entry[],
  incoming: readonly Omit<Entry, 'id'>[],
  newId: () => string,
): { edits: Entry[]; takings: Taking[]; added: number; changed: number; same: number } {
  const out = { edits: [] as Entry[], takings: [] as Taking[], added: 0, changed: 0, same: 0 };
  const here = new Map(register.map((entry) => [`${entry.kind} ${entry.value}`, entry]));
  for (const entry of incoming) {
    const twin = here.get(`${entry.kind} ${entry.value}`);
    const why = entry.why || (twin?.why ?? '');
    if (!twin) out.added++;
    else if (
      twin.standing === entry.standing &&
      twin.below === entry.below &&
      String(twin.except) === String(entry.except) &&
      twin.why === why
    ) {
      out.same++;
      out.takings.push('same');
      continue;
    } else out.changed++;
    out.takings.push(twin ? 'changes' : 'new');
    out.edits.push({ ...entry, why, id: twin?.id ?? newId() });
  }
  return out;
}
