// Commands: what a person can have done to the mail and the setup, and its undoing.
import { placeName, type Place } from '../core/mail/place';
import { checkSetup, type Setup } from '../core/line/setup';
import { dryRun, type Candidate, type DryRunChange } from '../core/line/dryRun';
import type { Act, Receipt, Selection, SetupEdit } from './api';
import { bit, valueAt, type ColumnName } from './columns';
import type { JournalHead, Mailbox } from './mailbox';
import type { Columns, JournalRecord } from './records';
import { editSetup } from './setupEdits';
import { gone } from './tables';
import { didTo, messages } from './words';

const nothing = (says: string): Receipt => ({ seq: null, count: 0, says });

/** The messages of a selection that are still here: each once, in the order of their ids. */
export function selected(mailbox: Mailbox, selection: Selection): Int32Array {
  const { place, count } = mailbox.columns;
  const ids = 'view' in selection ? mailbox.views.list(selection.view).slice() : Int32Array.from(selection.ids);
  ids.sort();
  return ids.filter((id, i) => id < count && place[id] !== gone && (i === 0 || ids[i - 1] !== id));
}

interface Plan {
  ids: Int32Array;
  after: Columns;
  done: string;
  where: string;
}

const moveWords: Partial<Record<Place, [done: string, where: string]>> = {
  archive: ['Archived', ''],
  bin: ['Binned', ''],
  inbox: ['Moved', ' to the Inbox'],
};

function plan(mailbox: Mailbox, ids: Int32Array, act: Act): Plan {
  const { columns, tables } = mailbox;
  if (act.do === 'move') {
    const index = tables.placeIndex(act.place);
    const touched = ids.filter((id) => columns.place[id] !== index);
    const bits = Uint8Array.from(touched, (id) => columns.bits[id] | bit.byHand);
    const name = placeName(act.place, mailbox.setup.folders);
    const [done, where] = moveWords[act.place] ?? ['Moved', ` to ${name}`];
    return { ids: touched, after: { place: index, placedAt: mailbox.now(), bits }, done, where };
  }
  if (act.do === 'label') {
    const name = mailbox.setup.labels.find((l) => l.id === act.label)?.name ?? act.label;
    const has = tables.labelSets.items.map((set) => set.includes(act.label));
    const touched = ids.filter((id) => (has[columns.labels[id]] ?? false) !== act.value);
    const labels = Uint16Array.from(touched, (id) => {
      const set = tables.labelSets.items[columns.labels[id]];
      return tables.labelSetIndex(act.value ? [...set, act.label] : set.filter((l) => l !== act.label));
    });
    return act.value
      ? { ids: touched, after: { labels }, done: 'Labelled', where: ` ${name}` }
      : { ids: touched, after: { labels }, done: `Took the label ${name} off`, where: '' };
  }
  const which = act.do === 'read' ? bit.read : bit.flagged;
  const touched = ids.filter((id) => Boolean(columns.bits[id] & which) !== act.value);
  const bits = Uint8Array.from(touched, (id) => (act.value ? columns.bits[id] | which : columns.bits[id] & ~which));
  const words =
    act.do === 'read'
      ? ['Marked', act.value ? ' as read' : ' as unread']
      : act.value
        ? ['Flagged', '']
        : ['Cleared the flag of', ''];
  return { ids: touched, after: { bits }, done: words[0], where: words[1] };
}

/** The receipt of a command that was done before under the same id: it is not done again. */
function doneBefore(mailbox: Mailbox, command: string): Receipt | null {
  if (!mailbox.commands.has(command)) return null;
  const head = mailbox.heads.findLast((h) => h.command === command);
  return head ? { seq: head.seq, count: head.count, says: head.says } : nothing('Done.');
}

/** Carries out an act on messages. */
export async function act(mailbox: Mailbox, command: string, selection: Selection, what: Act): Promise<Receipt> {
  const before = doneBefore(mailbox, command);
  if (before) return before;
  const { ids, after, done, where } = plan(mailbox, selected(mailbox, selection), what);
  if (ids.length === 0) return nothing('Nothing to change.');
  if (ids.length === 1) await mailbox.envelopes.ensure(ids, mailbox.columns.count);
  const subject = ids.length === 1 ? mailbox.envelopes.get(ids[0]).subject : null;
  const opened = what.do === 'read' && what.opened === true;
  const says = `${didTo(done, ids.length, subject, where)}${opened ? ', as you opened it' : ''}`;
  const seq = await mailbox.commit({ command, by: opened ? 'Wide Sort' : 'you', says, ids, after });
  return { seq, count: ids.length, says };
}

/** All messages as the dry run takes them. Only after `mailbox.ready`. */
export function* candidates(mailbox: Mailbox): Generator<Candidate> {
  const { columns, tables, envelopes } = mailbox;
  for (let id = 0; id < columns.count; id++) {
    if (columns.place[id] === gone) continue;
    yield {
      id,
      envelope: envelopes.get(id),
      place: tables.place(columns.place[id]),
      labels: tables.labelSets.items[columns.labels[id]],
      read: (columns.bits[id] & bit.read) !== 0,
      byHand: (columns.bits[id] & bit.byHand) !== 0,
    };
  }
}

/** The setup after some edits; the error where it would contradict itself. */
export function edited(setup: Setup, edits: readonly SetupEdit[]): ReturnType<typeof checkSetup> {
  return checkSetup(edits.reduce(editSetup, setup));
}

function changeColumns(mailbox: Mailbox, changes: readonly DryRunChange[]): { ids: Int32Array; after: Columns } {
  const { columns, tables } = mailbox;
  const ids = Int32Array.from(changes, (c) => c.id);
  const now = mailbox.now();
  return {
    ids,
    after: {
      place: Uint16Array.from(changes, (c) => tables.placeIndex(c.to)),
      placedAt: Float64Array.from(changes, (c) => (c.from === c.to ? columns.placedAt[c.id] : now)),
      bits: Uint8Array.from(changes, (c) => columns.bits[c.id] | (c.markRead ? bit.read : 0)),
      labels: Uint16Array.from(changes, (c) =>
        tables.labelSetIndex([...tables.labelSets.items[columns.labels[c.id]], ...c.addLabels]),
      ),
      trace: Uint32Array.from(changes, (c) => tables.traces.add(c.decision.trace)),
    },
  };
}

export type EditResult = { ok: true; receipt: Receipt } | { ok: false; error: string };

/** Changes the setup and, where asked, sends the mail here down the changed line: one command, undone as one. */
export async function changeSetup(
  mailbox: Mailbox,
  command: string,
  edits: SetupEdit[],
  says: string,
  runHere: boolean,
): Promise<EditResult> {
  const before = doneBefore(mailbox, command);
  if (before) return { ok: true, receipt: before };
  const next = edited(mailbox.setup, edits);
  if (!next.ok) return { ok: false, error: next.error };
  if (runHere) await mailbox.ready;
  const changes = runHere ? dryRun(candidates(mailbox), mailbox.setup, next.setup) : [];
  const words = changes.length ? `${says}, and sorted ${messages(changes.length)} here by it` : says;
  const change = changes.length ? changeColumns(mailbox, changes) : {};
  const seq = await mailbox.commit({ command, by: 'you', says: words, setup: edits, ...change });
  return { ok: true, receipt: { seq, count: changes.length, says: words } };
}

/** Whether an entry is of a kind that can be undone: not what arrived, not what was deleted for good. */
export const canUndo = (head: JournalHead): boolean => !head.final && head.by !== 'post office';

/** The heads of one job: an import's parts are one entry. A command of its own is a job of one. */
export const jobOf = (command: string): string => command.replace(/\/\d+$/, '');

/** The last entry that undid this one, unless that was undone in turn. */
export function undoneBy(heads: readonly JournalHead[], seq: number): number | null {
  const by = heads.findLast((h) => h.undoes === seq);
  if (!by) return null;
  return undoneBy(heads, by.seq) === null ? by.seq : null;
}

/** What of a change still stands, and can be set back: the messages whose value no later command touched. */
function setBack(mailbox: Mailbox, record: JournalRecord, name: ColumnName, into: Map<number, number>): void {
  const { change } = record;
  const before = change?.before[name];
  const after = change?.after[name];
  if (!change || before === undefined || after === undefined) return;
  const now = mailbox.columns[name];
  for (let i = 0; i < change.ids.length; i++) {
    const id = change.ids[i];
    const was = valueAt(before, i);
    const became = valueAt(after, i);
    if (name === 'bits') {
      // Each bit by itself: a message archived, then flagged, can be unarchived and stays flagged.
      const standing = (was ^ became) & ~(now[id] ^ became);
      if (standing) into.set(id, (now[id] & ~standing) | (was & standing));
    } else if (now[id] === became) into.set(id, was);
  }
}

const arrays = {
  place: Uint16Array,
  placedAt: Float64Array,
  bits: Uint8Array,
  labels: Uint16Array,
  trace: Uint32Array,
  date: Float64Array,
} as const;

/**
 * Undoes a Logbook entry as a new command. Messages that later commands changed again keep what those did; the receipt
 * says how many. Undoing an undo does the thing again.
 */
export async function undo(mailbox: Mailbox, command: string, seq: number): Promise<EditResult> {
  const done = doneBefore(mailbox, command);
  if (done) return { ok: true, receipt: done };
  await mailbox.ready;
  const entry = mailbox.heads.find((h) => h.seq === seq);
  if (!entry) return { ok: false, error: `The Logbook has no entry ${seq}.` };
  if (entry.final) return { ok: false, error: 'What was deleted for good cannot be brought back.' };
  if (!canUndo(entry)) return { ok: false, error: 'Mail that arrived stays: move it to the Bin instead.' };
  if (undoneBy(mailbox.heads, seq) !== null) return { ok: false, error: 'That was undone already.' };
  const job = jobOf(entry.command);
  const parts = mailbox.heads.filter((h) => jobOf(h.command) === job);
  const columns: Columns = {};
  const values = new Map<ColumnName, Map<number, number>>();
  const touched = new Set<number>();
  const edits: SetupEdit[] = [];
  let kept = 0;
  let all = 0;
  for (const part of parts) {
    const record = await mailbox.journalRecord(part.seq);
    all += record.change?.ids.length ?? 0;
    for (const name of Object.keys(record.change?.after ?? {}) as ColumnName[]) {
      if (name === 'date') continue;
      const map = values.get(name) ?? new Map<number, number>();
      values.set(name, map);
      setBack(mailbox, record, name, map);
    }
    for (const { before, after } of record.setup ?? []) {
      const list: readonly { id: string }[] = mailbox.setup[after.list];
      const now = list.find((item) => item.id === after.id) ?? null;
      if (JSON.stringify(now) === JSON.stringify(after.item)) edits.push(before);
      else kept++;
    }
  }
  // A message counts as set back when the column that made the entry is; places come before all else.
  const leading = values.get('place') ?? values.get('bits') ?? values.get('labels');
  for (const id of leading?.keys() ?? []) touched.add(id);
  const ids = Int32Array.from(touched).sort();
  for (const [name, map] of values) {
    const current = mailbox.columns[name];
    const column = new arrays[name](ids.length);
    for (let i = 0; i < ids.length; i++) column[i] = map.get(ids[i]) ?? current[ids[i]];
    columns[name] = column;
  }
  if (edits.length) {
    const next = edited(mailbox.setup, edits.toReversed());
    if (!next.ok) return { ok: false, error: `It can’t be undone now: ${next.error}.` };
  }
  if (ids.length === 0 && edits.length === 0)
    return { ok: false, error: 'Nothing of it is left to undo: later commands changed all of it.' };
  const left = all - ids.length + kept;
  const says = `Undid: ${entry.says}${left > 0 ? ` (${left === 1 ? 'one thing' : `${left.toLocaleString('en')} things`} changed since and stayed)` : ''}`;
  const newSeq = await mailbox.commit({
    command,
    by: 'you',
    says,
    undoes: seq,
    ...(ids.length ? { ids, after: columns } : {}),
    ...(edits.length ? { setup: edits.toReversed() } : {}),
  });
  return { ok: true, receipt: { seq: newSeq, count: ids.length, says } };
}

/** How long the Bin keeps a message before it is deleted for good, in milliseconds. */
export const binKeeps = 30 * 86_400_000;

/** Deletes for good what has been in the Bin for its time, and says so in the Logbook. */
export async function tidyBin(mailbox: Mailbox): Promise<number> {
  const { columns, tables } = mailbox;
  const bin = tables.placeIndex('bin');
  const now = mailbox.now();
  const due = Int32Array.from({ length: columns.count }, (_, id) => id).filter(
    (id) => columns.place[id] === bin && columns.placedAt[id] + binKeeps <= now,
  );
  if (due.length === 0) return 0;
  await mailbox.commit({
    command: `tidy-${mailbox.seq + 1}`,
    by: 'Wide Sort',
    says: `Deleted ${messages(due.length)} for good, after 30 days in the Bin`,
    final: true,
    ids: due,
    after: { place: gone, placedAt: now },
  });
  await mailbox.raws.drop(due);
  return due.length;
}
