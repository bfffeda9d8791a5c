// Stamps carried out: one command, whole or not at all, with the mail that follows from it; and what one would do, before.
import { noBlock } from '../../core/effects/answer';
import { forwardedTo } from '../../core/effects/forward';
import type { Setup } from '../../core/line/setup';
import { lastingOf, type Stamp } from '../../core/stamps/stamp';
import { messages, short } from '../../core/text/sentences';
import type { Going } from '../border/agenda';
import type { Receipt } from '../border/outcome';
import type { StampReport } from '../border/stamps';
import type { Selection } from '../border/views';
import { doneBefore, nothing, Refused } from '../commands/once';
import { stampPlan, stepsWords, type StampPlan, type Stamping } from '../commands/stampPlan';
import { selected } from '../search/selection';
import type { Searching, Viewing } from '../search/searching';
import type { Correspondents } from '../state/correspondents';
import type { Loading, Logged } from '../state/mailState';
import type { Committing } from '../storage/committing';
import { rowOf } from '../questions/row';
import type { Drafting } from './drafts';
import { withMail, type Following, type ToGo } from './following';

type Choosing = Stamping &
  Drafting &
  Pick<Loading, 'ready'> &
  Correspondents &
  Viewing &
  Pick<Searching, 'finding' | 'redundancy'>;
type Carrying = Choosing & Pick<Loading, 'journalReady'> & Pick<Logged, 'heads' | 'commands'> & Committing & Following;

/** So many messages one press sends at most, so that a slip does not write to all the world. */
const mostSent = 50;
/** So many of the messages are shown. */
const mostShown = 8;

/** The mail that a stamp sends: of each message that was chosen one for each act that sends. */
function mailOf(setup: Setup, { sends }: StampPlan, ids: Int32Array): ToGo[] {
  const out: ToGo[] = [];
  for (const act of sends)
    for (const id of ids) {
      const begin = {
        how:
          act.do === 'answer'
            ? act.all
              ? ('reply all' as const)
              : ('reply' as const)
            : act.form === 'file'
              ? ('attach' as const)
              : ('forward' as const),
        answers: [id],
      };
      if (act.do === 'forward') out.push({ begin, to: forwardedTo(act, setup).join(', '), html: null });
      else out.push({ begin, to: null, html: blockHtml(setup, act.block) });
    }
  if (out.length > mostSent)
    throw new Refused(`It would send ${messages(out.length)}: ${mostSent} at once is the most. Nothing was changed.`);
  return out;
}

const blockHtml = ({ blocks }: Setup, id: string): string | null =>
  id === noBlock ? null : (blocks.find((block) => block.id === id)?.html ?? null);

/** Carries a stamp out on messages. `sure`: the person was asked where it sends or deletes for good. */
export async function applyStamp(
  mailbox: Carrying,
  command: string,
  stamp: Stamp,
  selection: Selection,
  sure: boolean,
  going: Going,
  shared: ReadonlySet<string>,
): Promise<Receipt> {
  const before = await doneBefore(mailbox, command);
  if (before) return before;
  const ids = await selected(mailbox, selection);
  if (ids.length === 0) return nothing('Nothing is chosen.');
  const lasting = lastingOf(stamp);
  if (lasting.size > 0 && ids.length > 1 && !sure)
    throw new Refused('It was not asked whether you are sure. Nothing was changed.');
  const plan = await stampPlan(mailbox, stamp, ids, command, shared);
  const mail = mailOf(mailbox.setup, plan, ids);
  const { steps, setup, items, final } = plan;
  if (plan.ids.length + setup.length + items.length + mail.length === 0)
    return nothing(`“${stamp.name}” has nothing to change here.`);
  const lasts = mail.length > 0 && !final ? '; what is sent no Undo takes back' : '';
  const says = short(`Stamp “${stamp.name}”: ${stepsWords(steps)}${lasts}`, 1_900);
  const seq = await withMail(mailbox, command, mail, going, () =>
    mailbox.commit({
      command,
      by: 'you',
      says,
      ...(final ? { final } : {}),
      ...(plan.ids.length ? { ids: plan.ids, after: plan.after } : {}),
      ...(setup.length ? { setup } : {}),
      ...(items.length ? { items } : {}),
    }),
  );
  return { seq, count: Math.max(plan.ids.length, items.length ? ids.length : 0, mail.length), says };
}

/** What a stamp would do to messages, act by act, before it is pressed; or why it can’t be carried out. */
export async function stampReport(
  mailbox: Choosing,
  stamp: Stamp,
  selection: Selection,
  shared: ReadonlySet<string>,
): Promise<StampReport> {
  const ids = await selected(mailbox, selection);
  const empty = { of: ids.length, steps: [], touched: 0, beyond: 0, sends: 0, to: [], rows: [], whyNot: null };
  if (ids.length === 0) return { ...empty, whyNot: 'Nothing is chosen.' };
  try {
    const plan = await stampPlan(mailbox, stamp, ids, 'dry-run', shared);
    const mail = mailOf(mailbox.setup, plan, ids);
    const among = new Set(ids);
    const shown = [...plan.ids].slice(-mostShown);
    await mailbox.envelopes.ensure(shown, mailbox.columns.count);
    return {
      ...empty,
      steps: plan.steps,
      touched: plan.ids.length,
      beyond: plan.ids.filter((id) => !among.has(id)).length,
      sends: mail.length,
      to: [...new Set(mail.flatMap(({ to }) => to ?? []))].slice(0, 5),
      rows: shown.reverse().map((id) => rowOf(mailbox, id)),
    };
  } catch (error) {
    if (error instanceof Refused) return { ...empty, whyNot: error.message.replace(/ Nothing was changed\.$/, '') };
    throw error;
  }
}
