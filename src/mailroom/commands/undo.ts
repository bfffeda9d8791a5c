// Undo: what a Logbook entry did is set back, as a command of its own.
import { undoneWords } from '../../core/line/undoWords';
import type { Setup } from '../../core/line/setup';
import { itemsTakenBack, type ItemEdit } from '../../core/agenda/itemEdit';
import { count, messages } from '../../core/text/sentences';
import { type SetupEdit, edited, takenBack } from '../../core/line/setupEdit';
import { columnArrays, type ColumnName, type StateColumns } from '../state/columns';
import { type JournalRecord, readJournal } from '../storage/journal';
import { valueAt, type Column, type Columns } from '../storage/stateRecords';
import type { EditResult } from './changeSetup';
import { doneBefore } from './once';
import type { Dated, MailState, Loading, Logged } from '../state/mailState';
import type { Keeping } from '../storage/stored';
import type { Committing } from '../storage/committing';
import { expunged } from '../state/internedTables';
import type { UndoState } from '../border/log';
import { canUndo, jobOf, undoneBy, type JournalHead } from '../state/journalHead';

/** The columns that can be set back. The first in which a message changed is the one that it was made for. */
const names = [
  'place',
  'due',
  'bits',
  'labels',
  'ink',
  'trace',
  'placedAt',
  'until',
  'waitsFrom',
  'delivered',
  'tray',
] as const satisfies readonly ColumnName[];

type Name = (typeof names)[number];

/** The value that a message gets back in one column; null where a later command has changed it since. */
function setBack(name: Name, now: number, was: number, became: number): number | null {
  if (name !== 'bits') return now === became ? was : null;
  // Each bit by itself: a message archived, then flagged, can be unarchived and stays flagged.
  const standing = (was ^ became) & ~(now ^ became);
  return standing ? (now & ~standing) | (was & standing) : null;
}

/** Whether a message is set back: not said yet, it is, or it stays as it is. */
const unsaid = 0;
const goesBack = 1;
const stays = 2;

/** Gathers, over the records of a job, the messages that can be set back and what they get. */
class SettingBack {
  private readonly ids: Int32Array;
  private readonly values = new Map<Name, InstanceType<(typeof columnArrays)[Name]>>();
  count = 0;

  constructor(
    private readonly columns: StateColumns,
    most: number,
  ) {
    this.ids = new Int32Array(most);
  }

  /** `home`: what stands in the place of a value that names what is not there any more. */
  take(
    { ids, before, after }: NonNullable<JournalRecord['change']>,
    home: (name: Name, value: number) => number,
  ): void {
    const present = names.filter((name) => before[name] !== undefined && after[name] !== undefined);
    // Column by column, in plain loops: half a million messages are a few arrays.
    const back = new Uint8Array(ids.length);
    for (const name of present) this.look(name, ids, before[name] ?? 0, after[name] ?? 0, back);
    const first = this.count;
    for (let i = 0; i < ids.length; i++) if (back[i] !== stays) this.ids[this.count++] = ids[i];
    for (const name of present) {
      const row = this.values.get(name) ?? new columnArrays[name](this.ids.length);
      this.values.set(name, row);
      const [now, was, became] = [this.columns[name], before[name] ?? 0, after[name] ?? 0];
      let at = first;
      for (let i = 0; i < ids.length; i++) {
        if (back[i] === stays) continue;
        const its = now[ids[i]];
        row[at++] = home(name, setBack(name, its, valueAt(was, i), valueAt(became, i)) ?? its);
      }
    }
  }

  /**
   * Looks, for messages of which nothing is said yet, whether this column is the first in which they changed: of one that
   * something else was made of since nothing is set back, for it was made for the first that it changed.
   */
  private look(name: Name, ids: Int32Array, before: Column, after: Column, back: Uint8Array): void {
    const now = this.columns[name];
    for (let i = 0; i < ids.length; i++) {
      if (back[i] !== unsaid) continue;
      const [was, became] = [valueAt(before, i), valueAt(after, i)];
      if (was !== became) back[i] = setBack(name, now[ids[i]], was, became) === null ? stays : goesBack;
    }
  }

  change(): { ids: Int32Array; after: Columns } {
    const after: Columns = {};
    for (const [name, values] of this.values) after[name] = values.slice(0, this.count);
    return { ids: this.ids.slice(0, this.count), after };
  }
}

/** Where messages go back to whose folder was dissolved since, and without the labels that are gone. */
class Homes {
  /** How many came to the Inbox instead. */
  homeless = 0;
  private readonly folders: ReadonlySet<string>;
  private readonly labels: ReadonlySet<string>;

  constructor(
    private readonly tables: MailState['tables'],
    setup: Setup,
  ) {
    this.folders = new Set(setup.folders.map(({ id }) => `folder:${id}`));
    this.labels = new Set(setup.labels.map(({ id }) => id));
  }

  readonly of = (name: Name, value: number): number => {
    if (name === 'place') {
      const place = this.tables.place(value);
      if (!place.startsWith('folder:') || this.folders.has(place)) return value;
      this.homeless++;
      return this.tables.placeIndex('inbox');
    }
    if (name !== 'labels') return value;
    const set = this.tables.labelSets.items[value];
    return set.every((id) => this.labels.has(id))
      ? value
      : this.tables.labelSetIndex(set.filter((id) => this.labels.has(id)));
  };
}

type Undoable = Pick<MailState, 'columns' | 'setup' | 'tables'> &
  Dated &
  Pick<Keeping, 'records'> &
  Pick<Loading, 'journalReady'> &
  Pick<Logged, 'heads' | 'commands'>;

/** What undoing an entry would do. */
interface Undoing {
  entry: JournalHead;
  back: SettingBack;
  edits: SetupEdit[];
  items: ItemEdit[];
  /** How many things changed since, and would stay. */
  left: number;
  /** How many messages would come to the Inbox because their folder is gone. */
  homeless: number;
}

/** Why an entry is of a kind that nobody can undo; null where it is not. */
function finalReason(entry: JournalHead): string | null {
  if (entry.final)
    return entry.kinds.includes('deleted')
      ? 'What was deleted for good cannot be brought back.'
      : 'That can’t be undone.';
  return canUndo(entry) ? null : 'Mail that arrived stays: move it to the Bin instead.';
}

/** What undoing an entry would do now; why it can’t be done, in words. */
async function undoingOf(mailbox: Undoable, seq: number): Promise<Undoing | string> {
  const entry = mailbox.heads.find((h) => h.seq === seq);
  if (!entry) return `The Logbook has no entry ${seq}.`;
  const final = finalReason(entry);
  if (final !== null) return final;
  if (undoneBy(mailbox.heads, seq) !== null) return 'That was undone already.';
  const parts = mailbox.heads.filter((h) => jobOf(h.command) === jobOf(entry.command));
  const all = parts.reduce((n, part) => n + part.count, 0);
  const back = new SettingBack(mailbox.columns, all);
  const records = await Promise.all(parts.map((part) => readJournal(mailbox.records, part.seq)));
  const { edits, kept } = takenBack(
    mailbox.setup,
    records.flatMap(({ setup }) => setup ?? []),
  );
  const items = itemsTakenBack(
    mailbox.items.all,
    records.flatMap((record) => record.items ?? []),
  );
  const next = edited(mailbox.setup, edits);
  if (!next.ok) return `It can’t be undone now: ${next.error}.`;
  const homes = new Homes(mailbox.tables, next.setup);
  for (const { change } of records) if (change) back.take(change, homes.of);
  if (back.count === 0 && edits.length === 0 && items.edits.length === 0) return overtaken(mailbox, records);
  const left = all - back.count + kept + items.kept;
  return { entry, back, edits, items: items.edits, left, homeless: homes.homeless };
}

/** Why nothing is left to undo of some records. */
function overtaken({ columns }: Undoable, records: readonly JournalRecord[]): string {
  const ids = records.flatMap(({ change }) => (change ? [...change.ids] : []));
  return ids.length > 0 && ids.every((id) => columns.place[id] === expunged)
    ? 'Nothing of it is left to undo: its messages were deleted for good.'
    : 'Nothing of it is left to undo: what it did was changed again later.';
}

/** Whether an entry can be undone now, what it says, and why it can’t. */
export async function undoState(mailbox: Undoable, seq: number): Promise<UndoState> {
  await mailbox.journalReady();
  const undoing = await undoingOf(mailbox, seq);
  const says = mailbox.heads.find((h) => h.seq === seq)?.says ?? '';
  return { says, whyNot: typeof undoing === 'string' ? undoing : null };
}

/**
 * Undoes a Logbook entry as a new command. Messages that later commands changed again keep what those did; the receipt
 * says how many. Undoing an undo does the thing again.
 */
export async function undo(mailbox: Undoable & Committing, command: string, seq: number): Promise<EditResult> {
  const done = await doneBefore(mailbox, command);
  if (done) return { ok: true, receipt: done };
  const undoing = await undoingOf(mailbox, seq);
  if (typeof undoing === 'string') return { ok: false, error: undoing };
  const { entry, back, edits, items, left, homeless } = undoing;
  const things = left === 1 ? 'one thing' : `${count(left)} things`;
  const aside = [
    ...(left > 0 ? [`${things} changed since and stayed`] : []),
    ...(homeless > 0 ? [`${messages(homeless)} to the Inbox, because their folder is gone`] : []),
  ];
  const says = `${undoneWords(entry.says, entry.undoes !== null)}${aside.length ? ` (${aside.join('; ')})` : ''}`;
  const newSeq = await mailbox.commit({
    command,
    by: 'you',
    says,
    undoes: seq,
    ...(back.count ? back.change() : {}),
    ...(edits.length ? { setup: edits } : {}),
    ...(items.length ? { items } : {}),
  });
  return { ok: true, receipt: { seq: newSeq, count: back.count, says } };
}
