// Acts on messages: what a person can have done to the mail. Their undoing is in undo.ts.
import { filled, kept } from '../../core/data/rows';
import { placedNow } from '../state/retention';
import { placeCalled, isFixedPlace, fixedPlace, type Place } from '../../core/mail/place';
import type { Receipt } from '../border/outcome';
import type { Act, Selection } from '../border/views';
import { bit } from '../state/columns';
import type { MailState, Loading, Logged } from '../state/mailState';
import type { Correspondents } from '../state/correspondents';
import type { Stored } from '../storage/stored';
import type { Viewing, Searching } from '../search/searching';
import type { Committing } from '../storage/committing';
import type { Columns } from '../storage/stateRecords';
import { expunged } from '../state/internedTables';
import { count, didTo } from '../../core/text/sentences';
import { selected } from '../search/selection';
import { nothing, doneBefore, Refused } from './once';
import { trayPlan } from './delivering';
import { putOffPlan } from './puttingOff';
import { dayOfYear, isMoment } from '../../core/text/time';

/** What an act comes to: which messages get what, and what was done in words. */
export interface Plan {
  ids: Int32Array;
  after: Columns;
  done: string;
  where: string;
}

/** A move of more than this many at once teaches the junk filter by the newest of them alone. */
export const mostMarked = 1_000;

/** The bits of messages that the person moves: into Junk they are junk, out of it to where mail is kept they are good. */
function markedBits(
  { columns, tables }: Pick<MailState, 'columns' | 'tables'>,
  ids: Int32Array,
  to: Place,
): Uint8Array {
  const junk = tables.placeIndex('junk');
  const teaches = ids.length - mostMarked;
  return filled(Uint8Array, ids, (id, i) => {
    const bits = columns.bits[id] | bit.byHand;
    if (i < teaches) return bits;
    if (to === 'junk') return (bits | bit.markedJunk) & ~bit.markedGood;
    return columns.place[id] === junk && to !== 'bin' ? (bits | bit.markedGood) & ~bit.markedJunk : bits;
  });
}

/** Says what messages are to the junk filter, without moving them. */
function markPlan({ columns }: Pick<MailState, 'columns'>, ids: Int32Array, junk: boolean): Plan {
  const [on, off] = junk ? [bit.markedJunk, bit.markedGood] : [bit.markedGood, bit.markedJunk];
  const touched = kept(ids, (id) => (columns.bits[id] & (on | off)) !== on).slice(-mostMarked);
  const bits = filled(Uint8Array, touched, (id) => (columns.bits[id] | on) & ~off);
  return { ids: touched, after: { bits }, done: 'Marked', where: junk ? ' as junk' : ' as not junk' };
}

/** What of the mailbox acts go by. */
type Acted = Pick<MailState, 'columns' | 'tables' | 'derived' | 'setup' | 'now' | 'daysSeen'>;

function movePlan(mailbox: Acted, ids: Int32Array, { place }: Extract<Act, { do: 'move' }>): Plan {
  const { columns, tables, setup } = mailbox;
  const index = tables.placeIndex(place);
  const touched = kept(ids, (id) => columns.place[id] !== index);
  const bits = markedBits(mailbox, touched, place);
  const moved = isFixedPlace(place) ? fixedPlace(place).moved : undefined;
  return {
    ids: touched,
    after: { place: index, placedAt: placedNow(mailbox), bits },
    done: moved ?? 'Moved',
    where: moved ? '' : ` to ${placeCalled(place, setup.folders)}`,
  };
}

function labelPlan({ columns, tables, setup }: Acted, ids: Int32Array, act: Extract<Act, { do: 'label' }>): Plan {
  const name = setup.labels.find((l) => l.id === act.label)?.name ?? act.label;
  const has = tables.labelSets.items.map((set) => set.includes(act.label));
  const touched = kept(ids, (id) => (has[columns.labels[id]] ?? false) !== act.value);
  const labels = filled(Uint16Array, touched, (id) => {
    const set = tables.labelSets.items[columns.labels[id]];
    return tables.labelSetIndex(act.value ? [...set, act.label] : set.filter((l) => l !== act.label));
  });
  return act.value
    ? { ids: touched, after: { labels }, done: 'Labelled', where: ` ${name}` }
    : { ids: touched, after: { labels }, done: `Took the label ${name} off`, where: '' };
}

function readPlan(mailbox: Acted, ids: Int32Array, { value }: Extract<Act, { do: 'read' }>): Plan {
  const touched = kept(ids, (id) => Boolean(mailbox.columns.bits[id] & bit.read) !== value);
  const bits = withBit(mailbox, touched, bit.read, value);
  return { ids: touched, after: { bits }, done: 'Marked', where: value ? ' as read' : ' as unread' };
}

const withBit = ({ columns }: Pick<MailState, 'columns'>, ids: Int32Array, which: number, on: boolean): Uint8Array =>
  filled(Uint8Array, ids, (id) => (on ? columns.bits[id] | which : columns.bits[id] & ~which));

function flagPlan(
  mailbox: Pick<MailState, 'columns'>,
  ids: Int32Array,
  { value, due = 0 }: Extract<Act, { do: 'flag' }>,
): Plan {
  const { columns } = mailbox;
  const touched = kept(ids, (id) => Boolean(columns.bits[id] & bit.flagged) !== value || columns.due[id] !== due);
  const bits = withBit(mailbox, touched, bit.flagged, value).map((its) => (value ? its & ~bit.done : its));
  // Without any date in it, a flag is a bit and no more: Undo then goes by that bit alone.
  const dated = due > 0 || touched.some((id) => columns.due[id] > 0);
  const by = due > 0 ? ` for ${dayOfYear(due)}` : '';
  return {
    ids: touched,
    after: dated ? { bits, due } : { bits },
    done: value ? 'Flagged' : 'Cleared the flag of',
    where: value ? by : '',
  };
}

/** What was flagged is done: the flag goes, and that it was done stays. */
function donePlan({ columns }: Pick<MailState, 'columns'>, ids: Int32Array): Plan {
  const touched = kept(ids, (id) => (columns.bits[id] & bit.flagged) !== 0);
  const bits = filled(Uint8Array, touched, (id) => (columns.bits[id] & ~bit.flagged) | bit.done);
  const dated = touched.some((id) => columns.due[id] > 0);
  return { ids: touched, after: dated ? { bits, due: 0 } : { bits }, done: 'Done:', where: '' };
}

/** Silencing goes to whole conversations: their messages in all places, so that whatever answers one is known. */
function silencePlan(mailbox: MailState, ids: Int32Array, act: Extract<Act, { do: 'silence' }>): Plan {
  const { columns, tables, derived } = mailbox;
  const whole = new Set([...ids].flatMap((id) => [...derived.membersOf(id)]));
  const [inbox, to] = [tables.placeIndex('inbox'), act.value ? tables.placeIndex(act.place) : 0];
  const held = tables.placeIndex('held');
  const moves = (id: number) => act.value && (columns.place[id] === inbox || columns.place[id] === held);
  const touched = Int32Array.from(whole)
    .filter((id) => columns.place[id] !== expunged && Boolean(columns.bits[id] & bit.silenced) !== act.value)
    .sort();
  const now = placedNow(mailbox);
  const bits = withBit(mailbox, touched, bit.silenced, act.value);
  if (!act.value) return { ids: touched, after: { bits }, done: 'No longer silenced:', where: '' };
  const moved = touched.filter(moves).length;
  for (const [i, id] of touched.entries()) if (moves(id)) bits[i] |= bit.byHand;
  return {
    ids: touched,
    after: {
      bits,
      place: filled(Uint16Array, touched, (id) => (moves(id) ? to : columns.place[id])),
      placedAt: filled(Float64Array, touched, (id) => (moves(id) ? now : columns.placedAt[id])),
    },
    done: 'Silenced',
    // Of a conversation only what is in the Inbox, or would come back to it, leaves for another place.
    where:
      moved === 0
        ? ''
        : `, ${moved < touched.length ? `${count(moved)} of them ` : ''}to ${fixedPlace(act.place).called}`,
  };
}

/** What each act comes to. */
const plans: { [D in Act['do']]: (mailbox: Acted, ids: Int32Array, act: Extract<Act, { do: D }>) => Plan } = {
  move: movePlan,
  putOff: putOffPlan,
  tray: (mailbox, ids, { tray }) => trayPlan(mailbox, ids, tray),
  label: labelPlan,
  read: readPlan,
  flag: flagPlan,
  done: donePlan,
  mark: (mailbox, ids, { junk }) => markPlan(mailbox, ids, junk),
  silence: silencePlan,
};

/** What an act speaks of that is not there, in words; null where all is there. */
export function whyNotAct({ setup, now }: Acted, act: Act): string | null {
  if (act.do === 'move' && act.place === 'held')
    return 'Held takes only what is put off until a moment, or put into a tray.';
  if (act.do === 'putOff' && (act.until <= now() || !isMoment(act.until))) return 'That moment is past.';
  if (act.do === 'tray' && act.tray !== null && !setup.trays.some(({ id }) => id === act.tray))
    return 'That tray is not there any more.';
  if (act.do === 'move' && act.place.startsWith('folder:'))
    return setup.folders.some(({ id }) => act.place === `folder:${id}`) ? null : 'That folder is not there any more.';
  if (act.do === 'label' && act.value)
    return setup.labels.some(({ id }) => id === act.label) ? null : 'That label is not there any more.';
  return null;
}

/** What an act on messages comes to. */
export const planOf = (mailbox: Acted, ids: Int32Array, act: Act): Plan =>
  (plans[act.do] as (mailbox: Acted, ids: Int32Array, act: Act) => Plan)(mailbox, ids, act);

/** Carries out an act on messages. */
export async function act(
  mailbox: MailState &
    Pick<Stored, 'envelopes'> &
    Pick<Loading, 'journalReady' | 'ready'> &
    Pick<Logged, 'heads' | 'commands'> &
    Correspondents &
    Viewing &
    Pick<Searching, 'finding' | 'redundancy'> &
    Committing,
  command: string,
  selection: Selection,
  what: Act,
): Promise<Receipt> {
  const before = await doneBefore(mailbox, command);
  if (before) return before;
  const gone = whyNotAct(mailbox, what);
  if (gone !== null) throw new Refused(`${gone} Nothing was changed.`);
  const { ids, after, done, where } = planOf(mailbox, await selected(mailbox, selection), what);
  if (ids.length === 0) return nothing('Nothing to change.');
  if (ids.length === 1) await mailbox.envelopes.ensure(ids, mailbox.columns.count);
  const subject = ids.length === 1 ? mailbox.envelopes.get(ids[0]).subject : null;
  const opened = what.do === 'read' && what.opened === true;
  const says = `${didTo(done, ids.length, subject, where)}${opened ? ', as you opened it' : ''}`;
  const seq = await mailbox.commit({ command, by: opened ? 'Wide Sort' : 'you', says, ids, after });
  return { seq, count: ids.length, says };
}
