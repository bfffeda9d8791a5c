// Putting into a tray from a message: this one alone, or whatever comes from its sender, domain or mailing list from now on.
import { addressKey, domainOf } from '../../core/mail/address';
import type { Envelope } from '../../core/mail/envelopeSchema';
import { withCondition } from '../../core/delivery/gathering';
import { roundSince, type Tray } from '../../core/delivery/tray';
import { nameClash } from '../../core/line/nameClash';
import { edited, type SetupEdit } from '../../core/line/setupEdit';
import type { Condition } from '../../core/rules/rule';
import { count, didTo } from '../../core/text/sentences';
import type { Receipt } from '../border/outcome';
import type { GatherChoice, Gathered, Gathering } from '../border/trays';
import type { Selection } from '../border/views';
import type { Correspondents } from '../state/correspondents';
import type { Loading, Logged, MailState } from '../state/mailState';
import type { Searching, Viewing } from '../search/searching';
import { selected } from '../search/selection';
import type { Committing } from '../storage/committing';
import type { Stored } from '../storage/stored';
import { trayPlan } from './delivering';
import { doneBefore, nothing, Refused } from './once';

type Source = MailState &
  Pick<Stored, 'envelopes'> &
  Pick<Loading, 'ready'> &
  Correspondents &
  Viewing &
  Pick<Searching, 'finding' | 'redundancy'>;

/** So many different senders, domains or lists one selection can name. */
const mostNamed = 100;

const keyOf: Record<Exclude<Gathered, 'this'>, (envelope: Envelope) => string> = {
  sender: ({ from }) => addressKey(from.address),
  domain: ({ from }) => domainOf(addressKey(from.address)),
  list: ({ listId }) => listId.toLowerCase(),
};

const conditionOf: Record<Exclude<Gathered, 'this'>, (text: string) => Condition> = {
  sender: (text) => ({ field: 'from', how: 'is', text }),
  domain: (text) => ({ field: 'from', how: 'domain', text }),
  list: (text) => ({ field: 'list', how: 'is', text }),
};

/** The senders, domains or lists of some messages, and what else of them is in the Inbox, in no tray. */
function alike(mailbox: Source, ids: Int32Array, of: Exclude<Gathered, 'this'>) {
  const { columns, tables, envelopes, derived } = mailbox;
  const keys = new Set(Array.from(ids, (id) => keyOf[of](envelopes.get(id))).filter((key) => key !== ''));
  const inbox = tables.placeIndex('inbox');
  const chosen = new Set(ids);
  const more: number[] = [];
  for (let id = 0; id < columns.count; id++)
    if (
      columns.place[id] === inbox &&
      columns.tray[id] === 0 &&
      !derived.isOwn(id) &&
      !chosen.has(id) &&
      keys.has(keyOf[of](envelopes.get(id)))
    )
      more.push(id);
  return { keys: [...keys], more };
}

/** What can be gathered from now on by some messages, and how much of each is in the Inbox besides. */
export async function gatherChoices(mailbox: Source, selection: Selection): Promise<GatherChoice[]> {
  await mailbox.ready();
  const ids = await selected(mailbox, selection);
  return (['sender', 'domain', 'list'] as const).flatMap((of) => {
    const { keys, more } = alike(mailbox, ids, of);
    return keys.length === 0 || keys.length > mostNamed ? [] : [{ of, names: keys, more: more.length }];
  });
}

/** The tray with what it gathers besides. Throws Refused where it can’t be said so. */
function gathering(tray: Tray, keys: readonly string[], of: Exclude<Gathered, 'this'>): Tray {
  let { when } = tray;
  for (const key of keys) {
    when = withCondition(when, conditionOf[of](key));
    if (when === null)
      throw new Refused(`What ${tray.name} gathers is nested or has too many conditions: change it on its page.`);
  }
  return { ...tray, when };
}

/** Puts messages into a tray, one that is there or a new one, and has it gather their like: one command, undone as one. */
export async function gather(
  mailbox: Source & Pick<Loading, 'journalReady'> & Pick<Logged, 'heads' | 'commands'> & Committing,
  command: string,
  selection: Selection,
  { tray: wanted, of, more: withMore }: Gathering,
): Promise<Receipt> {
  const before = await doneBefore(mailbox, command);
  if (before) return before;
  await mailbox.ready();
  const { setup } = mailbox;
  const old = setup.trays.find(({ id }) => id === wanted.id);
  const chosen = await selected(mailbox, selection);
  const its = of === 'this' ? null : alike(mailbox, chosen, of);
  const known = old ?? roundSince(wanted, undefined, mailbox.now());
  const tray = its && of !== 'this' ? gathering(known, its.keys, of) : known;
  const edits: SetupEdit[] = tray === old ? [] : [{ list: 'trays', id: tray.id, item: tray }];
  const next = edited(setup, edits);
  const clash = next.ok ? nameClash(setup, next.setup) : next.error;
  if (clash !== null || !next.ok) throw new Refused(`${clash ?? ''} Nothing was changed.`);
  const ids = Int32Array.from([...chosen, ...(its && withMore ? its.more : [])]).sort();
  const plan = trayPlan({ ...stateOf(mailbox), setup: next.setup }, ids, tray.id);
  if (plan.ids.length === 0 && edits.length === 0) return nothing('Nothing to change.');
  const subject = plan.ids.length === 1 ? mailbox.envelopes.get(plan.ids[0]).subject : null;
  const put = plan.ids.length > 0 ? didTo(plan.done, plan.ids.length, subject, plan.where) : `Changed ${tray.name}`;
  const says = its ? `${put}, and from now on what comes from ${namesOf(its.keys)}` : put;
  const change = plan.ids.length > 0 ? { ids: plan.ids, after: plan.after } : {};
  const seq = await mailbox.commit({ command, by: 'you', says, ...(edits.length ? { setup: edits } : {}), ...change });
  return { seq, count: plan.ids.length, says };
}

const stateOf = ({ columns, tables, now, daysSeen }: MailState) => ({ columns, tables, now, daysSeen });

const namesOf = (keys: readonly string[]): string =>
  keys.length === 1 ? keys[0] : `${count(keys.length)} of their kind`;
