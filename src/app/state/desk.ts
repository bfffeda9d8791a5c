// What the person is doing at the desk: what is ticked, what was just done.
import { create } from 'zustand';
import type { Outcome } from '../../mailroom/border/outcome';
import type { Act, Selection, View } from '../../mailroom/border/views';
import type { Habit } from '../../mailroom/border/rules';
import { mailroom } from '../../mailroom/client';
import { prefer, usePreferences } from './preferences';

/** Something said to the person: what was done, or why it could not be. */
export interface Notice {
  text: string;
  tone: 'done' | 'trouble';
  /** The Logbook entry that its Undo takes back, or null. */
  undo: number | null;
}

interface DeskState {
  ticked: ReadonlySet<number>;
  /** All of a view is ticked, also what is not loaded; null where single messages are. */
  allOf: View | null;
  /** The last message ticked, from which a range goes. */
  anchor: number | null;
  notice: Notice | null;
  /** The position of the lane in which the person is. */
  lane: number;
  /** The message that is being answered, and whether to all; null where none is. */
  answering: { id: number; all: boolean } | null;
  /** A move that was made again and again by hand, while a rule is offered for it. */
  habit: Habit | null;
  /** “Why here” is open, for whichever message is. */
  whyOpen: boolean;
}

export const useDesk = create<DeskState>(() => ({
  ticked: new Set(),
  allOf: null,
  anchor: null,
  notice: null,
  lane: 0,
  answering: null,
  habit: null,
  whyOpen: false,
}));

export const clearTicks = () => useDesk.setState({ ticked: new Set(), allOf: null, anchor: null });

export function tick(id: number, on: boolean): void {
  const ticked = new Set(useDesk.getState().ticked);
  if (on) ticked.add(id);
  else ticked.delete(id);
  useDesk.setState({ ticked, allOf: null, anchor: id });
}

export function tickMany(ids: readonly number[]): void {
  useDesk.setState({ ticked: new Set([...useDesk.getState().ticked, ...ids]), allOf: null });
}

export const tickAll = (view: View) => useDesk.setState({ allOf: view, ticked: new Set() });

export const say = (notice: Notice | null) => useDesk.setState({ notice });

export const goToLane = (lane: number) => useDesk.setState({ lane });

export const startAnswering = (answering: DeskState['answering']) => useDesk.setState({ answering });

export const toggleWhy = () => useDesk.setState(({ whyOpen }) => ({ whyOpen: !whyOpen }));

/** A new id for a command. */
export const commandId = (): string => crypto.randomUUID();

/** Tells what a command came to; true where it went well. */
export function tellOutcome(outcome: Outcome, undoable = true): boolean {
  if (!outcome.ok) say({ text: outcome.error, tone: 'trouble', undo: null });
  else say({ text: `${outcome.receipt.says}.`, tone: 'done', undo: undoable ? outcome.receipt.seq : null });
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
  const done = tellOutcome(await mailroom.act(commandId(), selection, act));
  if (done && act.do === 'move' && act.place.startsWith('folder:')) void offerRule(selection, act);
  return done;
}

export const leaveHabit = () => useDesk.setState({ habit: null });

/** Offers a rule for a move that has become a habit: once for each, and not where the person wants no offers. */
async function offerRule(selection: Selection, { place }: Extract<Act, { do: 'move' }>): Promise<void> {
  const ids = 'ids' in selection ? selection.ids : 'conversationsOf' in selection ? selection.conversationsOf : [];
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
export async function undoEntry(seq: number | 'last'): Promise<boolean> {
  return tellOutcome(await mailroom.undo(commandId(), seq), false);
}
