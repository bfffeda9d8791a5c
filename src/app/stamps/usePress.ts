// Pressing a stamp: what it lacks is asked first and kept, what it sends or deletes is asked once, then it is carried out, and
// what it opens opens.
import { useState } from 'react';
import { noBlock } from '../../core/effects/answer';
import type { Setup } from '../../core/line/setup';
import { addressesOfWhom } from '../../core/effects/whom';
import { forwardedTo } from '../../core/effects/forward';
import type { Action } from '../../core/effects/effects';
import { lastingOf, missingTarget, opensFirst, stampTrouble, type Stamp } from '../../core/stamps/stamp';
import { messages } from '../../core/text/sentences';
import type { Selection } from '../../mailroom/border/views';
import { mailroom } from '../../mailroom/client';
import { openItem } from '../agenda/itemDraft';
import { beginWith, writeNew } from '../state/drafts';
import { commandId, say, tellOutcome } from '../state/desk';
import { usePreferences } from '../state/preferences';

/** What is asked before a stamp is carried out. */
export interface StampQuestion {
  of: 'target' | 'sure' | 'look';
  stamp: Stamp;
  ids: number[];
  /** The setup as it was then: with what was made for it just now. */
  setup: Setup;
}

/** When what follows from an act goes. */
export const goingSoon = () => ({
  due: Date.now() + usePreferences.getState().sendWait * 1_000,
  zone: -new Date().getTimezoneOffset(),
});

/** Why a stamp can’t be carried out on so many messages, in words; null where it can. What it only lacks is asked. */
export function whyNotStamp(stamp: Stamp, ids: readonly number[], conversations: number): string | null {
  if (ids.length === 0) return 'Tick messages first, or open one.';
  const trouble = stampTrouble(stamp);
  if (trouble) return trouble;
  if (stamp.acts.some((act) => act.do === 'answer' && act.open) && conversations > 1)
    return 'It opens an answer: that goes for one conversation at a time.';
  return null;
}

/** Opens what a stamp opens. The newest of its messages is answered. */
function open(act: Action, ids: readonly number[], setup: Setup): void {
  const html = (id: string) => (id === noBlock ? undefined : setup.blocks.find((block) => block.id === id)?.html);
  switch (act.do) {
    case 'answer': {
      const block = html(act.block);
      return beginWith(act.all ? 'reply all' : 'reply', ids.slice(-1), block === undefined ? {} : { html: block });
    }
    case 'forward':
      return beginWith(act.form === 'file' ? 'attach' : 'forward', [...ids], {
        to: forwardedTo(act, setup).filter(Boolean).join(', '),
      });
    case 'write': {
      const block = html(act.block);
      return writeNew({
        to: addressesOfWhom(act.whom, setup).join(', '),
        subject: act.subject,
        ...(block === undefined ? {} : { html: block }),
      });
    }
    case 'task':
    case 'appointment':
      return void openItem(act.do === 'task' ? 'task' : 'appointment', [...ids]);
    default:
      return undefined;
  }
}

/** Whether messages leave where they are. */
const leaves = ({ acts }: Stamp): boolean =>
  acts.some(({ do: kind }) => ['move', 'tray', 'putOff', 'silence', 'delete'].includes(kind));

/** `moveAway`: moves messages on the desk, which goes on from what leaves. */
export function usePress(
  setup: Setup | undefined,
  moveAway: (selection: Selection, move: () => Promise<boolean>) => Promise<void>,
) {
  const [question, setQuestion] = useState<StampQuestion | null>(null);
  const carryOut = async (stamp: Stamp, ids: number[], now: Setup, sure: boolean) => {
    const opens = stamp.acts.find(opensFirst);
    const run = async (): Promise<boolean> => {
      // What only opens something changes nothing, and is no command.
      if (stamp.acts.every(opensFirst)) return true;
      const outcome = await mailroom.stamp(commandId(), stamp, { ids }, sure, goingSoon());
      return tellOutcome(outcome);
    };
    let done = false;
    if (leaves(stamp)) await moveAway({ ids }, async () => (done = await run()));
    else done = await run();
    if (done && opens) open(opens, ids, now);
  };
  const go = (stamp: Stamp, ids: number[], now: Setup | undefined = setup, sure = false) => {
    if (!now) return;
    if (missingTarget(stamp, now)) return setQuestion({ of: 'target', stamp, ids, setup: now });
    if (!sure && ids.length > 1 && lastingOf(stamp).size > 0)
      return setQuestion({ of: 'sure', stamp, ids, setup: now });
    setQuestion(null);
    void carryOut(stamp, ids, now, sure);
  };
  const press = (stamp: Stamp, ids: number[], conversations: number) => {
    const whyNot = whyNotStamp(stamp, ids, conversations);
    if (whyNot !== null) return say({ text: `“${stamp.name}”: ${whyNot}`, tone: 'trouble' });
    go(stamp, ids);
  };
  /** A stamp with the target that was asked for; kept, then carried out. */
  const chosen = async (stamp: Stamp, ids: number[]) => {
    const says = `Set up the stamp “${stamp.name}”`;
    setQuestion(null);
    if (
      tellOutcome(await mailroom.editSetup(commandId(), [{ list: 'stamps', id: stamp.id, item: stamp }], says, false))
    )
      // What was made for it just now is there, too.
      go(stamp, ids, (await mailroom.overview()).setup);
  };
  return {
    question,
    press,
    look: (stamp: Stamp, ids: number[]) => setup && setQuestion({ of: 'look', stamp, ids, setup }),
    chosen,
    surely: ({ stamp, ids, setup: then }: StampQuestion) => go(stamp, ids, then, true),
    close: () => setQuestion(null),
    words: ({ stamp, ids }: StampQuestion) => `Carry out “${stamp.name}” on ${messages(ids.length)}`,
  };
}

export type Press = ReturnType<typeof usePress>;
