// Commands: what a person can have done to the mail and the setup. Their undoing is in undo.ts.
import { binKeeps, placeName, type Place } from '../core/mail/place';
import { checkSetup, type Setup } from '../core/line/setup';
import type { DryRunChange } from '../core/line/dryRun';
import type { Receipt, SetupEdit } from './api';
import type { Act, Selection } from './viewsApi';
import { chosen, readyToChoose } from './clearOuts';
import { changesBetween } from './candidates';
import { bit } from './columns';
import { thinning } from './conversations';
import { inkNumber } from './incoming';
import type { Mailbox } from './mailbox';
import type { Columns } from './records';
import { editSetup } from './setupEdits';
import { gone } from './tables';
import { didTo, messages } from './words';

const nothing = (says: string): Receipt => ({ seq: null, count: 0, says });

function idsOf(mailbox: Mailbox, selection: Selection): Int32Array {
  const { columns, derived, views } = mailbox;
  if ('view' in selection) return views.list(selection.view).slice();
  if ('clearOut' in selection) return chosen(mailbox, selection.clearOut, selection.of).ids;
  if ('ids' in selection) return Int32Array.from(selection.ids);
  const holds = views.holding(selection.within);
  const some = selection.conversationsOf.filter((id) => id < columns.count);
  return Int32Array.from(some.flatMap((id) => [...derived.membersOf(id)].filter(holds)));
}

/** The messages of a selection that are still here: each once, in the order of their ids. */
export async function selected(mailbox: Mailbox, selection: Selection): Promise<Int32Array> {
  if ('view' in selection) await mailbox.views.ready(selection.view);
  else if ('clearOut' in selection) await readyToChoose(mailbox, selection.clearOut, selection.of);
  else if ('within' in selection) await mailbox.views.ready(selection.within);
  const { place, count } = mailbox.columns;
  const ids = idsOf(mailbox, selection).sort();
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

/** A move of more than this many at once teaches the junk filter by the newest of them alone. */
export const mostMarked = 1_000;

/** The bits of messages that the person moves: into Junk they are junk, out of it to where mail is kept they are good. */
function markedBits({ columns, tables }: Mailbox, ids: Int32Array, to: Place): Uint8Array {
  const junk = tables.placeIndex('junk');
  const teaches = ids.length - mostMarked;
  return Uint8Array.from(ids, (id, i) => {
    const bits = columns.bits[id] | bit.byHand;
    if (i < teaches) return bits;
    if (to === 'junk') return (bits | bit.markedJunk) & ~bit.markedGood;
    return columns.place[id] === junk && to !== 'bin' ? (bits | bit.markedGood) & ~bit.markedJunk : bits;
  });
}

/** Says what messages are to the junk filter, without moving them. */
function markPlan({ columns }: Mailbox, ids: Int32Array, junk: boolean): Plan {
  const [on, off] = junk ? [bit.markedJunk, bit.markedGood] : [bit.markedGood, bit.markedJunk];
  const touched = ids.filter((id) => (columns.bits[id] & (on | off)) !== on).slice(-mostMarked);
  const bits = Uint8Array.from(touched, (id) => (columns.bits[id] | on) & ~off);
  return { ids: touched, after: { bits }, done: 'Marked', where: junk ? ' as junk' : ' as not junk' };
}

function plan(mailbox: Mailbox, ids: Int32Array, act: Act): Plan {
  const { columns, tables } = mailbox;
  if (act.do === 'move') {
    const index = tables.placeIndex(act.place);
    const touched = ids.filter((id) => columns.place[id] !== index);
    const bits = markedBits(mailbox, touched, act.place);
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
  if (act.do === 'silence') return silencePlan(mailbox, ids, act);
  if (act.do === 'flag') return flagPlan(mailbox, ids, act);
  if (act.do === 'done') return donePlan(mailbox, ids);
  if (act.do === 'mark') return markPlan(mailbox, ids, act.junk);
  const touched = ids.filter((id) => Boolean(columns.bits[id] & bit.read) !== act.value);
  const bits = withBit(mailbox, touched, bit.read, act.value);
  return { ids: touched, after: { bits }, done: 'Marked', where: act.value ? ' as read' : ' as unread' };
}

const withBit = ({ columns }: Mailbox, ids: Int32Array, which: number, on: boolean): Uint8Array =>
  Uint8Array.from(ids, (id) => (on ? columns.bits[id] | which : columns.bits[id] & ~which));

function flagPlan(mailbox: Mailbox, ids: Int32Array, { value, due = 0 }: Extract<Act, { do: 'flag' }>): Plan {
  const { columns } = mailbox;
  const touched = ids.filter((id) => Boolean(columns.bits[id] & bit.flagged) !== value || columns.due[id] !== due);
  const bits = withBit(mailbox, touched, bit.flagged, value).map((its) => (value ? its & ~bit.done : its));
  // Without any date in it, a flag is a bit and no more: Undo then goes by that bit alone.
  const dated = due > 0 || touched.some((id) => columns.due[id] > 0);
  const by = due > 0 ? ` for ${new Date(due).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })}` : '';
  return {
    ids: touched,
    after: dated ? { bits, due } : { bits },
    done: value ? 'Flagged' : 'Cleared the flag of',
    where: value ? by : '',
  };
}

/** What was flagged is done: the flag goes, and that it was done stays. */
function donePlan({ columns }: Mailbox, ids: Int32Array): Plan {
  const touched = ids.filter((id) => (columns.bits[id] & bit.flagged) !== 0);
  const bits = Uint8Array.from(touched, (id) => (columns.bits[id] & ~bit.flagged) | bit.done);
  const dated = touched.some((id) => columns.due[id] > 0);
  return { ids: touched, after: dated ? { bits, due: 0 } : { bits }, done: 'Done:', where: '' };
}

/** Silencing goes to whole conversations: their messages in all places, so that whatever answers one is known. */
function silencePlan(mailbox: Mailbox, ids: Int32Array, act: Extract<Act, { do: 'silence' }>): Plan {
  const { columns, tables, derived } = mailbox;
  const whole = new Set([...ids].flatMap((id) => [...derived.membersOf(id)]));
  const [inbox, to] = [tables.placeIndex('inbox'), act.value ? tables.placeIndex(act.place) : 0];
  const moves = (id: number) => act.value && columns.place[id] === inbox;
  const touched = Int32Array.from(whole)
    .filter((id) => columns.place[id] !== gone && Boolean(columns.bits[id] & bit.silenced) !== act.value)
    .sort();
  const now = mailbox.now();
  const bits = withBit(mailbox, touched, bit.silenced, act.value);
  if (!act.value) return { ids: touched, after: { bits }, done: 'No longer silenced:', where: '' };
  for (const [i, id] of touched.entries()) if (moves(id)) bits[i] |= bit.byHand;
  return {
    ids: touched,
    after: {
      bits,
      place: Uint16Array.from(touched, (id) => (moves(id) ? to : columns.place[id])),
      placedAt: Float64Array.from(touched, (id) => (moves(id) ? now : columns.placedAt[id])),
    },
    done: 'Silenced',
    where: act.place === 'archive' ? ', to the Archive' : ', to the Bin',
  };
}

/** Bins what stands whole in a later message of the same conversation. */
export async function thinOut(mailbox: Mailbox, command: string, id: number): Promise<Receipt> {
  const before = await doneBefore(mailbox, command);
  if (before) return before;
  const lines = await thinning(mailbox, id);
  const ids = Int32Array.from(lines.filter((line) => line.goes).map((line) => line.row.id)).sort();
  if (ids.length === 0) return nothing('Nothing to thin out: every message says something of its own.');
  const { columns, tables } = mailbox;
  const bits = Uint8Array.from(ids, (one) => columns.bits[one] | bit.byHand);
  const says = `Thinned out “${lines[0].row.subject}”: ${messages(ids.length)} to the Bin`;
  const after: Columns = { place: tables.placeIndex('bin'), placedAt: mailbox.now(), bits };
  const seq = await mailbox.commit({ command, by: 'you', says, ids, after });
  return { seq, count: ids.length, says };
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
  const { ids, after, done, where } = plan(mailbox, await selected(mailbox, selection), what);
  if (ids.length === 0) return nothing('Nothing to change.');
  if (ids.length === 1) await mailbox.envelopes.ensure(ids, mailbox.columns.count);
  const subject = ids.length === 1 ? mailbox.envelopes.get(ids[0]).subject : null;
  const opened = what.do === 'read' && what.opened === true;
  const says = `${didTo(done, ids.length, subject, where)}${opened ? ', as you opened it' : ''}`;
  const seq = await mailbox.commit({ command, by: opened ? 'Wide Sort' : 'you', says, ids, after });
  return { seq, count: ids.length, says };
}

/** The setup after some edits; the error where it would contradict itself. What is not edited stays the same object. */
export function edited(setup: Setup, edits: readonly SetupEdit[]): ReturnType<typeof checkSetup> {
  const next = edits.reduce(editSetup, setup);
  const checked = checkSetup(next);
  return checked.ok ? { ok: true, setup: next } : checked;
}

/** The columns that some changes of a dry run come to. */
export function changeColumns(mailbox: Mailbox, changes: readonly DryRunChange[]): { ids: Int32Array; after: Columns } {
  const { columns, tables } = mailbox;
  const ids = Int32Array.from(changes, (c) => c.id);
  const now = mailbox.now();
  return {
    ids,
    after: {
      place: Uint16Array.from(changes, (c) => tables.placeIndex(c.to)),
      placedAt: Float64Array.from(changes, (c) => (c.from === c.to ? columns.placedAt[c.id] : now)),
      bits: Uint8Array.from(
        changes,
        (c) => columns.bits[c.id] | (c.markRead ? bit.read : 0) | (c.flag ? bit.flagged : 0),
      ),
      ...(changes.some((c) => c.flag?.due)
        ? { due: Float64Array.from(changes, (c) => (c.flag ? (c.flag.due ?? 0) : columns.due[c.id])) }
        : {}),
      ...(changes.some((c) => c.ink !== undefined)
        ? { ink: Uint8Array.from(changes, (c) => (c.ink === undefined ? columns.ink[c.id] : inkNumber(c.ink))) }
        : {}),
      labels: Uint16Array.from(changes, (c) =>
        tables.labelSetIndex([...tables.labelSets.items[columns.labels[c.id]], ...c.addLabels]),
      ),
      trace: Uint32Array.from(changes, (c) => tables.traces.add(c.trace())),
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
  if (runHere) await mailbox.readyToSort(next.setup);
  const changes = runHere ? changesBetween(mailbox, mailbox.setup, next.setup) : [];
  const words = changes.length ? `${says}, and sorted ${messages(changes.length)} here by it` : says;
  const change = changes.length ? changeColumns(mailbox, changes) : {};
  const seq = await mailbox.commit({ command, by: 'you', says: words, setup: edits, ...change });
  return { ok: true, receipt: { seq, count: changes.length, says: words } };
}

/** When a message is deleted for good, milliseconds since 1970; null where it is kept. */
export function deletedOn({ columns, tables, setup }: Mailbox, id: number): number | null {
  const place = tables.place(columns.place[id]);
  if (place === 'bin') return columns.placedAt[id] + binKeeps;
  const { keepDays, keepFrom } = setup.junk;
  if (place !== 'junk' || keepFrom === 0) return null;
  return Math.max(columns.placedAt[id], keepFrom) + keepDays * 86_400_000;
}

/** Deletes for good what has been in the Bin, or in Junk, for its time, and says so in the Logbook. */
export async function tidy(mailbox: Mailbox): Promise<number> {
  const { keepDays } = mailbox.setup.junk;
  return (
    (await tidyPlace(mailbox, 'bin', 'after 30 days in the Bin')) +
    (await tidyPlace(mailbox, 'junk', `after ${keepDays} ${keepDays === 1 ? 'day' : 'days'} in Junk`))
  );
}

async function tidyPlace(mailbox: Mailbox, place: Place, why: string): Promise<number> {
  const { columns, tables } = mailbox;
  const index = tables.placeIndex(place);
  const now = mailbox.now();
  const due = Int32Array.from({ length: columns.count }, (_, id) => id).filter(
    (id) => columns.place[id] === index && (deletedOn(mailbox, id) ?? Infinity) <= now,
  );
  if (due.length === 0) return 0;
  await mailbox.commit({
    command: `tidy-${mailbox.seq + 1}`,
    by: 'Wide Sort',
    says: `Deleted ${messages(due.length)} for good, ${why}`,
    final: true,
    ids: due,
    after: { place: gone, placedAt: now },
  });
  await mailbox.raws.drop(due);
  return due.length;
}
