// Commands: what a person can have done to the mail and the setup. Their undoing is in undo.ts.
import { placeName, type Place } from '../core/mail/place';
import { checkSetup, type Setup } from '../core/line/setup';
import { dryRun, type Candidate, type DryRunChange } from '../core/line/dryRun';
import type { Act, Receipt, Selection, SetupEdit } from './api';
import { bit } from './columns';
import type { Mailbox } from './mailbox';
import type { Columns } from './records';
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
export async function doneBefore(mailbox: Mailbox, command: string): Promise<Receipt | null> {
  // A call that is sent again after a crash may be the first that this mailbox hears: the journal knows it.
  await mailbox.journalReady();
  if (!mailbox.commands.has(command)) return null;
  const head = mailbox.heads.findLast((h) => h.command === command);
  return head ? { seq: head.seq, count: head.count, says: head.says } : nothing('Done.');
}

/** Carries out an act on messages. */
export async function act(mailbox: Mailbox, command: string, selection: Selection, what: Act): Promise<Receipt> {
  const before = await doneBefore(mailbox, command);
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

/** All messages as the dry run takes them. Only after `mailbox.ready()`. */
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
  const before = await doneBefore(mailbox, command);
  if (before) return { ok: true, receipt: before };
  const next = edited(mailbox.setup, edits);
  if (!next.ok) return { ok: false, error: next.error };
  if (runHere) await mailbox.ready();
  const changes = runHere ? dryRun(candidates(mailbox), mailbox.setup, next.setup) : [];
  const words = changes.length ? `${says}, and sorted ${messages(changes.length)} here by it` : says;
  const change = changes.length ? changeColumns(mailbox, changes) : {};
  const seq = await mailbox.commit({ command, by: 'you', says: words, setup: edits, ...change });
  return { ok: true, receipt: { seq, count: changes.length, says: words } };
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
