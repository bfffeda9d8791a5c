// What the person is doing at the desk: what is ticked, what was just done.
import { create } from 'zustand';
import type { Act, Outcome, Selection, View } from '../../mailroom/api';
import { mailroom } from '../../mailroom/client';

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
  /** “Why here” is open, for whichever message is. */
  whyOpen: boolean;
}

export const useDesk = create<DeskState>(() => ({
  ticked: new Set(),
  allOf: null,
  anchor: null,
  notice: null,
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

export const toggleWhy = () => useDesk.setState(({ whyOpen }) => ({ whyOpen: !whyOpen }));

/** A new id for a command. */
export const commandId = (): string => crypto.randomUUID();

/** Tells what a command came to; true where it went well. */
export function tellOutcome(outcome: Outcome, undoable = true): boolean {
  if (!outcome.ok) say({ text: outcome.error, tone: 'trouble', undo: null });
  else say({ text: `${outcome.receipt.says}.`, tone: 'done', undo: undoable ? outcome.receipt.seq : null });
  return outcome.ok;
}

/** Carries out an act and tells of it. */
export async function runAct(selection: Selection, act: Act): Promise<boolean> {
  return tellOutcome(await mailroom.act(commandId(), selection, act));
}

/** Takes an entry of the Logbook back and tells of it. */
export async function undoEntry(seq: number | 'last'): Promise<boolean> {
  return tellOutcome(await mailroom.undo(commandId(), seq), false);
}
