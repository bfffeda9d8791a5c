// The acts of the desk on what is ticked or open, and what they ask first.
import { useEffect, useRef, useState } from 'react';
import type { Row } from '../../mailroom/border/rows';
import type { Act, Selection } from '../../mailroom/border/views';
import { mailroom } from '../../mailroom/client';
import { attendActs, clearTicks, runAct, say, setChosen, ticksUnderWay, useDesk } from '../state/desk';
import { isAmong } from '../state/ticks';
import { useMailbox } from '../state/overview';
import type { Rescued } from '../junk/RescueDialog';
import { saveExport } from '../ui/exported';
import { target as targetOf, type DeskAct, type Target } from './deskActs';
import { type Question } from './DeskDialogs';
import { usePress } from '../stamps/usePress';
import { lastingOf, lastingWords, type Stamp } from '../../core/stamps/stamp';
import { useAtPress } from '../ui/press';
import { type DeskView } from './useDeskView';

/** More messages than this are not moved by a key without a question. */
const mostUnasked = 1_000;
/** Nothing that acts go to: the same each time. */
export const noneChosen: readonly number[] = [];

/** The acts of the desk on what is ticked or open, and what they ask first. */
export function useDeskActs(desk: DeskView, openRow: Row | undefined) {
  const { where, go, goOn, justCame, leave } = desk;
  const { ticked, reach } = useDesk();
  const [asking, setAsking] = useState<Question | null>(null);
  const [rescuing, setRescuing] = useState<Rescued | null>(null);
  const open = where.message;
  const target = targetOf(ticked, open, openRow, reach);
  const pressed = useAtPress(target);
  // What was moved last is told of by then.
  const moving = useRef<Promise<unknown>>(Promise.resolve());

  /**
   * Moves messages. The next one is opened before, not after, the move is done: a key that follows quickly must never
   * fall on the message that has just left.
   */
  const moveAway = async (selection: Selection, move: () => Promise<boolean>) => {
    const ids = new Set('ids' in selection ? selection.ids : []);
    const left = leave((row) => isAmong(row, ids));
    // A tray’s row is open under its own number: it leaves with all that it holds.
    const opened = open !== null && (ids.has(open) || (openRow?.tray && isAmong(openRow, ids)));
    if (opened) goOn((row) => isAmong(row, ids), ids);
    clearTicks();
    const moved = move();
    moving.current = moved.catch(() => undefined);
    const done = await moved;
    left.settled();
    if (!done && open !== null) go({ message: open });
  };
  const perform = async (selection: Selection, act: Act, sure = false) => {
    const run = () => runAct(selection, act);
    if (!sure && act.do === 'move' && 'ids' in selection && selection.ids.length > mostUnasked)
      return setAsking({ of: 'many', act, selection });
    // Silencing takes the conversation out of the Inbox, as a move does.
    if (act.do === 'move' || act.do === 'tray' || (act.do === 'silence' && act.value)) await moveAway(selection, run);
    else await run();
  };
  useEffect(() => attendActs(perform));
  /** What an act goes to once everything is ticked that was asked for; at once where that is so. */
  const withTarget = (then: (target: Target) => void) => {
    const waiting = ticksUnderWay();
    const its = pressed();
    if (!waiting) return its && then(its);
    void waiting.then(() => {
      const now = useDesk.getState();
      const its = targetOf(now.ticked, open, openRow, now.reach);
      if (its) then(its);
    });
  };
  const exportTarget = async (format: 'mbox' | 'eml') => {
    const its = pressed();
    if (its) saveExport(await mailroom.exportMail(its.selection, format));
  };
  /** Not junk: the message moves once the one question is answered. */
  const askRescue = async ({ selection }: Target) => {
    const only = selection.ids.length === 1 ? selection.ids[0] : null;
    const message = only === null ? null : await mailroom.open(only, true);
    setRescuing({ selection, address: message?.row.from.address ?? null, listId: message?.listId ?? null });
  };
  /** An act by key or from the bar. */
  const press = (item: DeskAct) =>
    withTarget((its) => void (item.id === 'not-junk' ? askRescue(its) : perform(its.selection, item.act)));
  const ask = (of: 'move' | 'label' | 'due' | 'put off' | 'tray') =>
    withTarget(({ selection }) => setAsking({ of, selection }));
  const surely = ({ selection, act }: Extract<Question, { of: 'many' }>) => {
    setAsking(null);
    void perform(selection, act, true);
  };
  const answered = () => {
    setAsking(null);
    setRescuing(null);
  };
  const setup = useMailbox((s) => s.overview?.setup);
  const stamps = usePress(setup, moveAway);
  const pressStamp = (stamp: Stamp, look: boolean) =>
    withTarget((its) => {
      if (look) return stamps.look(stamp, its.selection.ids);
      // What can’t be undone falls on nobody who stood there before anyone could have seen it.
      if (its.open !== null && justCame() && lastingOf(stamp).size > 0)
        return void moving.current.then(() =>
          say({
            text: `“${stamp.name}” was not carried out: it ${lastingWords(stamp)}, and this message came only now. Look at it first, then press again.`,
            tone: 'trouble',
          }),
        );
      stamps.press(stamp, its.selection.ids, conversationsOf(its));
    });
  useEffect(() => setChosen(target?.selection.ids ?? noneChosen));
  return { target, asking, rescuing, answered, moveAway, exportTarget, press, ask, surely, stamps, pressStamp };
}

export type DeskActs = ReturnType<typeof useDeskActs>;

/** Of how many conversations, as far as the desk knows. */
export const conversationsOf = ({ rows, open }: Target): number => (open === null ? rows : 1);
