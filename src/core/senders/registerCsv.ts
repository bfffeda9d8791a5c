// The Register as CSV (RFC 4180), out and in. What comes in is checked row by row; what goes out is safe to open in a
// spreadsheet: a cell that such a program would take for a formula begins with an apostrophe.
import Papa from 'papaparse';
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
  return `${Papa.unparse({ fields: [...columns], data: rows }, { newline: '\r\n' })}\r\n`;
}

/** A row that could not be taken: its line in the file, from 1, what stood there, and why. */
export interface WrongRow {
  row: number;
  text: string;
  reason: string;
}

export interface CsvEntries {
  entries: Omit<Entry, 'id'>[];
  wrong: WrongRow[];
}

type Cells = Partial<Record<(typeof columns)[number], string>>;

const kindList = entryKinds.join(', ');
const neverClosed = 'A quotation mark is opened here and never closed: nothing from here on can be read.';

/** The largest file that is read, in characters. */
export const mostCsv = 5_000_000;

/**
 * Reads entries from CSV or from a plain list, one address or domain a line. With a header row its columns may stand in
 * any order and be left out, but for `value`; without one the first column is the value, the second may be the standing.
 * `standing` and `now` go for rows that say none. Wrong rows are listed; the others are taken.
 */
export function registerFromCsv(text: string, standing: Standing, now: number): CsvEntries {
  const parsed = Papa.parse<string[]>(text.slice(0, mostCsv).replace(/^\ufeff/, ''), { skipEmptyLines: false });
  const rows = parsed.data;
  // All that comes after a quotation mark that is never closed is one cell (RFC 4180, section 2): no entry of anybody's.
  const unclosed = parsed.errors.find(({ code }) => code === 'MissingQuotes')?.row;
  const head = rows.findIndex((row) => row.some((cell) => cell.trim() !== ''));
  const names = (rows[head] ?? []).map((cell) => cell.trim().toLowerCase());
  const hasHead = names.includes('value');
  const cellsOf = cellReader(hasHead ? names : ['value', 'standing']);
  const out: CsvEntries = { entries: [], wrong: [] };
  const seen = new Map<string, number>();
  for (let i = hasHead ? head + 1 : Math.max(head, 0); i < rows.length; i++) {
    const row = rows[i].map((cell) => unguarded(cell.trim()));
    if (row.every((cell) => cell === '')) continue;
    const read = i === unclosed ? neverClosed : entryFrom(cellsOf(row), standing, now);
    const before = typeof read === 'string' ? undefined : seen.get(`${read.kind} ${read.value}`);
    const reason =
      typeof read === 'string'
        ? read
        : before !== undefined
          ? `“${read.value}” stands in row ${before} already.`
          : null;
    if (reason !== null) out.wrong.push({ row: i + 1, text: row.join(', ').slice(0, 200), reason });
    else if (typeof read !== 'string') {
      seen.set(`${read.kind} ${read.value}`, i + 1);
      out.entries.push(read);
    }
  }
  return out;
}

/** Takes the cells out of rows by the names of their columns; of a column that stands twice the last. */
function cellReader(names: readonly string[]): (row: readonly string[]) => Cells {
  const [kind, value, subdomains, except, standing, since, why] = columns.map((name) => names.lastIndexOf(name));
  return (row) => ({
    kind: row[kind],
    value: row[value],
    subdomains: row[subdomains],
    except: row[except],
    standing: row[standing],
    since: row[since],
    why: row[why],
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

/** What taking some entries up would do: the entries as they are to be, and how many are new, changed, or there already. */
export function mergeEntries(
  register: readonly Entry[],
  incoming: readonly Omit<Entry, 'id'>[],
  newId: () => string,
): { edits: Entry[]; added: number; changed: number; same: number } {
  const out = { edits: [] as Entry[], added: 0, changed: 0, same: 0 };
  const here = new Map(register.map((entry) => [`${entry.kind} ${entry.value}`, entry]));
  for (const entry of incoming) {
    const twin = here.get(`${entry.kind} ${entry.value}`);
    if (!twin) out.added++;
    else if (
      twin.standing === entry.standing &&
      twin.below === entry.below &&
      String(twin.except) === String(entry.except)
    ) {
      out.same++;
      continue;
    } else out.changed++;
    out.edits.push({ ...entry, id: twin?.id ?? newId() });
  }
  return out;
}
