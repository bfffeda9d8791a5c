// What the person is doing at the desk: what is ticked, what was just done.
import { create } from 'zustand';
import type { Outcome } from '../../mailroom/border/outcome';
import { everyRow, type Only } from '../../mailroom/border/held';
import type { Row } from '../../mailroom/border/rows';
import type { Act, Grouping, Selection, View } from '../../mailroom/border/views';
import type { Habit } from '../../mailroom/border/rules';
import { mailroom } from '../../mailroom/client';
import { forgetDone, lastDone, noteDone } from './undoing';
import { InTurn } from '../../core/data/inTurn';
import { reasonOf, sentence } from '../../core/text/sentences';
import { bothTicked, noTicks, stillTicked, tickedMessages, ticksOf, withRow, type Ticks } from './ticks';
import { noteMarked, noteOpened } from './opened';
import { noteAct } from '../stamps/recentActs';
import { prefer, restorePreferences, usePreferences } from './preferences';

/** What an act goes to where a message of a conversation is open. */
export type Reach = 'message' | 'conversation';

/** Something said to the person: what was done, or why it could not be. */
export interface Notice {
  text: string;
  tone: 'done' | 'trouble';
}

interface DeskState {
  ticked: Ticks;
  /** The last message ticked, from which a range goes. */
  anchor: number | null;
  /** What was ticked before the range that goes from there. */
  beforeRange: Ticks;
  /** Whether an act goes to the open message or to all of its conversation here, where the person said so of that message. */
  reach: { open: number; of: Reach } | null;
  notice: Notice | null;
  /** The position of the lane in which the person is. */
  lane: number;
  /** A move that was made again and again by hand, while a rule is offered for it. */
  habit: Habit | null;
  /** “Why here” is open, for whichever message is. */
  whyOpen: boolean;
}

export const useDesk = create<DeskState>(() => ({
  ticked: noTicks,
  anchor: null,
  beforeRange: noTicks,
  reach: null,
  notice: null,
  lane: 0,
  habit: null,
  whyOpen: false,
}));

/** What acts on the desk went to last: on other pages a stamp is tried on it. Apart, since the desk itself does not go by it. */
export const useChosen = create<{ ids: readonly number[] }>(() => ({ ids: [] }));

export const clearTicks = () => useDesk.setState({ ticked: noTicks, anchor: null, beforeRange: noTicks });

/** Ticks a row or unticks it; what else is ticked stays. */
export function tick(row: Row, on: boolean): void {
  const ticked = withRow(useDesk.getState().ticked, row, on);
  useDesk.setState({ ticked, anchor: row.id, beforeRange: ticked });
}

let ticking: Promise<unknown> | null = null;

/** Ticks what the mailroom tells, one question after another: acts wait for it. */
function tickBy(work: () => Promise<void>): void {
  const run = (ticking ?? Promise.resolve()).then(work).catch((error: unknown) => {
    say({ text: `Nothing more was ticked: ${reasonOf(error)}`, tone: 'trouble' });
  });
  ticking = run;
  void run.then(() => {
    if (ticking === run) ticking = null;
  });
}

/** Settled once everything is ticked that was asked for; null where nothing is under way. */
export const ticksUnderWay = (): Promise<unknown> | null => ticking;

/** Ticks what a view holds at this moment: all of it, or only some. */
export function tickOnly(view: View, grouping: Grouping, only: Only): void {
  tickBy(async () => {
    const ticked = ticksOf(await mailroom.held(view, grouping, only, 0, everyRow));
    useDesk.setState({ ticked, anchor: null, beforeRange: ticked });
  });
}

/**
 * Ticks the rows from the last one ticked, or else from the open one, to the one that was pressed: by what it shows, since
 * it may stand elsewhere by now; by its `index` where that is not known.
 */
export function tickRange(
  view: View,
  grouping: Grouping,
  pressed: { index: number; id: number | null | Promise<number | null> },
  open: number | null | Promise<number | null>,
): void {
  tickBy(async () => {
    const { beforeRange } = useDesk.getState();
    const anchor = useDesk.getState().anchor ?? (await open);
    const positionOf = async (id: number | null) => (id === null ? -1 : mailroom.position(view, grouping, id));
    const [at, stands] = await Promise.all([positionOf(anchor), Promise.resolve(pressed.id).then(positionOf)]);
    const to = stands < 0 ? pressed.index : stands;
    const from = at < 0 ? to : at;
    const held = await mailroom.held(view, grouping, 'all', Math.min(from, to), Math.max(from, to) + 1);
    useDesk.setState({ ticked: bothTicked(beforeRange, ticksOf(held)), anchor });
  });
}

/** Unticks what a view does not hold any more. */
export function untickGone(view: View): void {
  if (useDesk.getState().ticked.size === 0) return;
  tickBy(async () => {
    const ids = tickedMessages(useDesk.getState().ticked);
    const there = new Set(await mailroom.stillHeld(view, Int32Array.from(ids)));
    if (there.size === ids.length) return;
    const { ticked, beforeRange } = useDesk.getState();
    useDesk.setState({ ticked: stillTicked(ticked, there), beforeRange: stillTicked(beforeRange, there) });
  });
}

export const say = (notice: Notice | null) => useDesk.setState({ notice });

export const setReach = (open: number, of: Reach) => useDesk.setState({ reach: { open, of } });

export const goToLane = (lane: number) => useDesk.setState({ lane });

/** Keeps in mind what acts on the desk go to. */
export const setChosen = (ids: readonly number[]) => useChosen.setState({ ids });

/** Forgets what the person was doing: what was ticked and open was of a mailbox that is gone. */
export function forgetDesk(): void {
  useDesk.setState(useDesk.getInitialState(), true);
  useChosen.setState(useChosen.getInitialState(), true);
  noteOpened(null);
}

export const toggleWhy = () => useDesk.setState(({ whyOpen }) => ({ whyOpen: !whyOpen }));

/** A new id for a command. */
export const commandId = (): string => crypto.randomUUID();

/** Tells what a command came to; true where it went well. `undoable`: it is what Undo takes back next. */
export function tellOutcome(outcome: Outcome, undoable = true): boolean {
  if (!outcome.ok) say({ text: outcome.error, tone: 'trouble' });
  else {
    const { seq, says } = outcome.receipt;
    say({ text: sentence(says), tone: 'done' });
    if (undoable && seq !== null) noteDone({ seq, says });
  }
  return outcome.ok;
}

type MoveAway = (selection: Selection, act: Act) => Promise<void>;
let moveAway: MoveAway | null = null;

/** Carries out acts on the desk while it is there, so that it can go on from what leaves. */
export function attendActs(attend: MoveAway): () => void {
  moveAway = attend;
  return () => {
    if (moveAway === attend) moveAway = null;
  };
}

/** Carries out an act on behalf of whatever is on the screen: by the desk where it is there. */
export async function act(selection: Selection, what: Act): Promise<void> {
  if (moveAway) await moveAway(selection, what);
  else await runAct(selection, what);
}

/** Carries out an act and tells of it. */
export async function runAct(selection: Selection, act: Act): Promise<boolean> {
  if (act.do === 'read') noteMarked(selection);
  const done = tellOutcome(await mailroom.act(commandId(), selection, act));
  if (done) noteAct(selection, act);
  if (done && act.do === 'move' && act.place.startsWith('folder:')) void offerRule(selection, act);
  return done;
}

export const leaveHabit = () => useDesk.setState({ habit: null });

/** Offers a rule for a move that has become a habit: once for each, and not where the person wants no offers. */
async function offerRule(selection: Selection, { place }: Extract<Act, { do: 'move' }>): Promise<void> {
  const ids = 'ids' in selection ? selection.ids : [];
  if (!usePreferences.getState().offers || ids.length === 0) return;
  const habit = await mailroom.habit([...ids], place);
  if (!habit) return;
  const key = `${habit.of} ${habit.place}`;
  const { offered } = usePreferences.getState();
  if (offered.includes(key)) return;
  prefer({ offered: [...offered.slice(-500), key] });
  useDesk.setState({ habit });
}

/** Takes an entry of the Logbook back and tells of it. */
export async function undoEntry(seq: number): Promise<boolean> {
  const undone = tellOutcome(await mailroom.undo(commandId(), seq), false);
  if (undone) restorePreferences(seq);
  return undone;
}

/** Brings back what was thrown away: set by who keeps drafts (drafts.ts), which stands above this. */
let bringBack: (thrown: string) => Promise<void> = () => Promise.resolve();

export function attendThrown(attend: (thrown: string) => Promise<void>): void {
  bringBack = attend;
}

const undoing = new InTurn();

/** Takes back what was done here last; pressed again at once, what was done before that. */
export function undoLast(): void {
  const undone = undoing.do(async () => {
    const last = await lastDone();
    if (!last)
      return say({ text: 'Nothing that was done here is left to undo. The Logbook has the rest.', tone: 'done' });
    if ('thrown' in last) {
      await bringBack(last.thrown);
      forgetDone(last);
    } else if (await undoEntry(last.seq)) forgetDone(last);
  });
  undone.catch((error: unknown) => say({ text: reasonOf(error), tone: 'trouble' }));
}

/** Settled once everything is taken back that was asked for. */
export const undoSettled = (): Promise<unknown> => undoing.settled;
