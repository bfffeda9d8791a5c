// What rules do because of what comes in, beyond the message itself: they leave its conversation, make a task of it, decide
// about its sender. Each is a command of its own, behind the one by which the message came, and can be undone.
import type { Follow } from '../../core/effects/effect';
import type { Stamp } from '../../core/stamps/stamp';
import type { Loading, Logged } from '../state/mailState';
import type { Committing, Exclusive } from '../storage/committing';
import { Refused } from './once';
import { stampPlan, stepsWords, type Stamping } from './stampPlan';

/** A message that came in, and what rules do because of it. */
export interface ToFollow {
  id: number;
  follows: readonly Follow[];
}

/** Carries out what follows. What can’t be carried out is told, and stops nothing else. */
export async function followRules(
  mailbox: Stamping &
    Exclusive &
    Committing &
    Pick<Loading, 'journalReady'> &
    Pick<Logged, 'heads'> & { tell(says: string): void },
  list: readonly ToFollow[],
  shared: () => Promise<ReadonlySet<string>>,
): Promise<void> {
  const groups = new Map<string, { act: Follow; ids: number[] }>();
  for (const { id, follows } of list)
    for (const act of follows) {
      const key = JSON.stringify(act);
      const group = groups.get(key);
      if (group) group.ids.push(id);
      else groups.set(key, { act, ids: [id] });
    }
  for (const { act, ids } of groups.values()) {
    const stamp: Pick<Stamp, 'name' | 'acts'> = { name: 'a rule', acts: [act] };
    await mailbox.exclusive(async () => {
      const command = `rule-follows-${mailbox.seq + 1}`;
      try {
        const plan = await stampPlan(mailbox, stamp, Int32Array.from(ids).sort(), command, await shared());
        if (plan.ids.length + plan.setup.length + plan.items.length === 0) return;
        await mailbox.commit({
          command,
          by: 'Wide Sort',
          says: `By a rule: ${stepsWords(plan.steps)}`,
          ...(plan.ids.length ? { ids: plan.ids, after: plan.after } : {}),
          ...(plan.setup.length ? { setup: plan.setup } : {}),
          ...(plan.items.length ? { items: plan.items } : {}),
        });
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        mailbox.tell(`A rule could not do all that it was to: ${error.message}`);
      }
    });
  }
}
