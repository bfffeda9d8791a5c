// Undo: what a Logbook entry did is set back, as a command of its own.
import type { Setup } from '../../core/line/setup';
import { count, messages } from '../../core/text/sentences';
import { type SetupEdit, edited, itemNow } from '../../core/line/setupEdit';
import { columnArrays, type ColumnName, type StateColumns } from '../state/columns';
import { type JournalRecord, readJournal } from '../storage/journal';
import { valueAt, type Columns } from '../storage/stateRecords';
import type { EditResult } from './changeSetup';
import { doneBefore } from './once';
import type { MailState, Loading, Logged } from '../state/mailState';
import type { Keeping } from '../storage/stored';
import type { Committing } from '../storage/committing';
import { canUndo, jobOf, undoneBy } from '../state/journalHead';

/** The columns that can be set back. The first that a change has is the one that it was made for. */
const names = ['place', 'due', 'bits', 'labels', 'ink', 'trace', 'placedAt'] as const satisfies readonly ColumnName[];

type Name = (typeof names)[number];

/** The value that a message gets back in one column; null where a later command has changed it since. */
function setBack(name: Name, now: number, was: number, became: number): number | null {
  if (name !== 'bits') return now === became ? was : null;
  // Each bit by itself: a message archived, then flagged, can be unarchived and stays flagged.
  const standing = (was ^ became) & ~(now ^ became);
  return standing ? (now & ~standing) | (was & standing) : null;
}

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
    for (const name of present)
      if (!this.values.has(name)) this.values.set(name, new columnArrays[name](this.ids.length));
    for (let i = 0; i < ids.length; i++) {
      for (const [at, name] of present.entries()) {
        const now = this.columns[name][ids[i]];
        const back = setBack(name, now, valueAt(before[name] ?? 0, i), valueAt(after[name] ?? 0, i));
        if (at === 0 && back === null) break;
        if (at === 0) this.ids[this.count++] = ids[i];
        this.values.get(name)?.fill(home(name, back ?? now), this.count - 1, this.count);
      }
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

/**
 * Undoes a Logbook entry as a new command. Messages that later commands changed again keep what those did; the receipt
 * says how many. Undoing an undo does the thing again.
 */
export async function undo(
  mailbox: Pick<MailState, 'columns' | 'setup' | 'tables'> &
    Pick<Keeping, 'records'> &
    Pick<Loading, 'journalReady'> &
    Pick<Logged, 'heads' | 'commands'> &
    Committing,
  command: string,
  seq: number,
): Promise<EditResult> {
  const done = await doneBefore(mailbox, command);
  if (done) return { ok: true, receipt: done };
  const entry = mailbox.heads.find((h) => h.seq === seq);
  if (!entry) return { ok: false, error: `The Logbook has no entry ${seq}.` };
  if (entry.final)
    return {
      ok: false,
      error: entry.kinds.includes('deleted')
        ? 'What was deleted for good cannot be brought back.'
        : 'That can’t be undone.',
    };
  if (!canUndo(entry)) return { ok: false, error: 'Mail that arrived stays: move it to the Bin instead.' };
  if (undoneBy(mailbox.heads, seq) !== null) return { ok: false, error: 'That was undone already.' };
  const parts = mailbox.heads.filter((h) => jobOf(h.command) === jobOf(entry.command));
  const all = parts.reduce((n, part) => n + part.count, 0);
  const back = new SettingBack(mailbox.columns, all);
  const edits: SetupEdit[] = [];
  let kept = 0;
  const records = await Promise.all(parts.map((part) => readJournal(mailbox.records, part.seq)));
  for (const record of records) {
    for (const { before, after } of record.setup ?? []) {
      const now = itemNow(mailbox.setup, after)?.item ?? null;
      if (JSON.stringify(now) === JSON.stringify(after.item)) edits.unshift(before);
      else kept++;
    }
  }
  const next = edited(mailbox.setup, edits);
  if (!next.ok) return { ok: false, error: `It can’t be undone now: ${next.error}.` };
  const homes = new Homes(mailbox.tables, next.setup);
  for (const { change } of records) if (change) back.take(change, homes.of);
  if (back.count === 0 && edits.length === 0)
    return { ok: false, error: 'Nothing of it is left to undo: later commands changed all of it.' };
  const left = all - back.count + kept;
  const things = left === 1 ? 'one thing' : `${count(left)} things`;
  const aside = [
    ...(left > 0 ? [`${things} changed since and stayed`] : []),
    ...(homes.homeless > 0 ? [`${messages(homes.homeless)} to the Inbox, because their folder is gone`] : []),
  ];
  const says = `Undid: ${entry.says}${aside.length ? ` (${aside.join('; ')})` : ''}`;
  const newSeq = await mailbox.commit({
    command,
    by: 'you',
    says,
    undoes: seq,
    ...(back.count ? back.change() : {}),
    ...(edits.length ? { setup: edits } : {}),
  });
  return { ok: true, receipt: { seq: newSeq, count: back.count, says } };
}
