// What a stamp comes to: its acts one after another on a copy of the state, each by the same plan as if it were done alone.
// What they leave behind is one change.
import { filled } from '../../core/data/rows';
import { dueOn } from '../../core/agenda/due';
import { bareSubject } from '../../core/conversations/bareSubject';
import { newItem } from '../../core/agenda/item';
import type { ItemEdit } from '../../core/agenda/itemEdit';
import { dayIn } from '../../core/agenda/wallTime';
import { deliveriesOf } from '../../core/delivery/delivery';
import { putOffTo } from '../../core/delivery/putOff';
import type { StandingOf, TaskDue } from '../../core/effects/effect';
import { actionWords, type Action } from '../../core/effects/effects';
import type { SetupEdit } from '../../core/line/setupEdit';
import { domainOf } from '../../core/mail/address';
import { inks } from '../../core/mail/label';
import { guardsOf } from '../../core/senders/guards';
import { normalAddress } from '../../core/senders/normal';
import { sameEntry, type Entry } from '../../core/senders/register';
import { missingTarget, opensFirst, type Stamp } from '../../core/stamps/stamp';
import { count, didTo, messages, short } from '../../core/text/sentences';
import type { Act } from '../border/views';
import { thinVerdicts } from '../search/thinning';
import { bit, columnNames, StateColumns } from '../state/columns';
import type { Correspondents } from '../state/correspondents';
import { expunged } from '../state/internedTables';
import type { MailState } from '../state/mailState';
import { placedNow } from '../state/retention';
import type { Readable } from '../reading/reader';
import type { Columns } from '../storage/stateRecords';
import type { Stored } from '../storage/stored';
import { planOf, whyNotAct, type Plan } from './acts';
import { Refused } from './once';

/** One act of a stamp: what it did, or would do, and to how many messages. */
export interface StampStep {
  /** `Flagged 3 messages for 4 Dec`. */
  did: string;
  count: number;
  /** It goes beyond the messages that were chosen. */
  beyond: boolean;
}

export interface StampPlan {
  steps: StampStep[];
  ids: Int32Array;
  after: Columns;
  setup: SetupEdit[];
  items: ItemEdit[];
  /** What is to be sent, in the order of the acts. */
  sends: Extract<Action, { do: 'forward' | 'answer' }>[];
  /** It deletes for good: no Undo brings back what it did. */
  final: boolean;
}

export type Stamping = MailState & Stored & Readable & Pick<Correspondents, 'people'>;

/** So many conversations are thinned out by one press, since their texts are read; so many tasks are made. */
const mostThinned = 100;
const mostTasks = 500;

/** The act that an act of a stamp is, where it is one of those on messages; null for the others. */
function actOf(act: Action, { setup, now }: Pick<MailState, 'setup' | 'now'>): Act | null {
  switch (act.do) {
    case 'move':
      return { do: 'move', place: act.place };
    case 'tray':
      return { do: 'tray', tray: act.tray };
    case 'label':
      return { do: 'label', label: act.label, value: true };
    case 'unlabel':
      return { do: 'label', label: act.label, value: false };
    case 'flag':
      return { do: 'flag', value: true, ...(act.due === 'none' ? {} : { due: dueOn(act.due, now()) }) };
    case 'done':
      return { do: 'done' };
    case 'read':
      return { do: 'read', value: true };
    case 'unread':
      return { do: 'read', value: false };
    case 'silence':
      return { do: 'silence', value: true, place: act.place };
    case 'putOff': {
      const until = putOffTo(act.until, now(), setup.delivery.morning, deliveriesOf(setup).zone);
      if (until === null) throw new Refused('“Later today” is over for today. Nothing was changed.');
      return { do: 'putOff', until };
    }
    default:
      return null;
  }
}

/** The state with a copy of its columns, on which acts can be tried. */
class Scratch {
  readonly state: MailState;
  readonly columns = new StateColumns();

  constructor(mailbox: MailState) {
    this.columns.copy(mailbox.columns);
    const { tables, derived, setup, daysSeen } = mailbox;
    this.state = { columns: this.columns, tables, derived, setup, daysSeen, now: () => mailbox.now() };
  }

  done({ ids, after }: Pick<Plan, 'ids' | 'after'>): void {
    this.columns.apply(ids, after);
  }

  /** All in which the copy differs from the state, as one change. */
  change({ columns: was }: MailState, touched: ReadonlySet<number>): { ids: Int32Array; after: Columns } {
    const names = columnNames.filter((name) => [...touched].some((id) => was[name][id] !== this.columns[name][id]));
    const ids = Int32Array.from(touched)
      .filter((id) => names.some((name) => was[name][id] !== this.columns[name][id]))
      .sort();
    const after: Columns = {};
    for (const name of names) after[name] = this.columns.pick(name, ids);
    return { ids, after };
  }
}

/** The entry of the Register for the sender of a message, its domain or its list; null where it has none. */
function valueOf(of: StandingOf, { from, listId }: { from: { address: string }; listId: string }): string | null {
  const address = normalAddress(from.address);
  return { address, domain: domainOf(address), list: listId }[of] || null;
}

/** The entries that hold those who sent some messages Safe or Blocked; refuses what the Register would ask about first. */
function standingEdits(
  {
    setup,
    envelopes,
    people,
    now,
  }: Pick<MailState, 'setup' | 'now'> & Pick<Stored, 'envelopes'> & Pick<Correspondents, 'people'>,
  ids: Iterable<number>,
  { of, standing }: { of: StandingOf; standing: 'safe' | 'blocked' },
  name: string,
  why: string,
  shared: ReadonlySet<string>,
): { edits: SetupEdit[]; values: string[]; of: number } {
  const entries = new Map<string, Entry>();
  let meant = 0;
  for (const id of ids) {
    const value = valueOf(of, envelopes.get(id));
    if (value === null) continue;
    meant++;
    if (entries.has(value)) continue;
    const old = sameEntry(setup.register, of, value);
    if (old?.standing === standing) continue;
    entries.set(value, { id: old?.id ?? `${name}-${entries.size}`, kind: of, value, standing, since: now(), why });
  }
  const list = [...entries.values()];
  const [guard] = standing === 'blocked' ? guardsOf(list, people.own, people.writtenTo, list, shared) : [];
  if (guard) throw new Refused(`${guard.says} Block it in the Register, which asks first. Nothing was changed.`);
  return {
    edits: list.map((item) => ({ list: 'register', id: item.id, item })),
    values: list.map(({ value }) => value),
    of: meant,
  };
}

/** One task for each conversation of some messages, with those messages kept with it. */
function taskEdits(
  {
    columns,
    derived,
    envelopes,
    setup,
    now,
  }: Pick<MailState, 'columns' | 'derived' | 'setup' | 'now'> & Pick<Stored, 'envelopes'>,
  ids: Iterable<number>,
  due: Exclude<TaskDue, 'ask'>,
  name: string,
): ItemEdit[] {
  const byConversation = new Map<number, number[]>();
  for (const id of ids) {
    const list = byConversation.get(derived.conversation[id]);
    if (list) list.push(id);
    else byConversation.set(derived.conversation[id], [id]);
  }
  if (byConversation.size > mostTasks)
    throw new Refused(
      `It would make ${count(byConversation.size)} tasks: ${mostTasks} at once is the most. Nothing was changed.`,
    );
  const { zone } = deliveriesOf(setup);
  return [...byConversation.values()].map((list, n) => {
    const newest = list.reduce((a, b) => (columns.date[b] > columns.date[a] ? b : a));
    const uid = `${name}-task-${n}`;
    const kept = list.flatMap((id) => envelopes.get(id).messageId || []);
    return {
      uid,
      item: {
        ...newItem(uid, 'task', now()),
        title: short(bareSubject(envelopes.get(newest).subject), 1_000),
        end: due === 'none' ? null : dayIn(dueOn(due, now()), zone),
        messages: [...new Set(kept)].slice(0, 1_000),
      },
    };
  });
}

/** What carrying out a stamp on messages would come to. Throws Refused where it can’t be finished. */
export async function stampPlan(
  mailbox: Stamping,
  stamp: Pick<Stamp, 'acts' | 'name'>,
  chosen: Int32Array,
  command: string,
  shared: ReadonlySet<string>,
): Promise<StampPlan> {
  const missing = missingTarget(stamp, mailbox.setup);
  if (missing) throw new Refused(`“${stamp.name}” can’t be carried out: ${missing.says} Nothing was changed.`);
  const scratch = new Scratch(mailbox);
  const touched = new Set<number>();
  const among = new Set(chosen);
  const plan: Omit<StampPlan, 'ids' | 'after'> = { steps: [], setup: [], items: [], sends: [], final: false };
  const step = (its: Plan) => {
    scratch.done(its);
    let beyond = false;
    for (const id of its.ids) {
      touched.add(id);
      beyond ||= !among.has(id);
    }
    plan.steps.push({ did: didTo(its.done, its.ids.length, null, its.where), count: its.ids.length, beyond });
  };
  await mailbox.envelopes.ensure(chosen, mailbox.columns.count);
  for (const [n, act] of stamp.acts.entries()) {
    if (opensFirst(act)) continue;
    const its = actOf(act, mailbox);
    if (its) {
      const whyNot = whyNotAct(scratch.state, its);
      if (whyNot !== null) throw new Refused(`“${stamp.name}” can’t be carried out: ${whyNot} Nothing was changed.`);
      step(planOf(scratch.state, chosen, its));
    } else await other(act, `${command}-${n}`);
  }
  return { ...plan, ...scratch.change(mailbox, touched) };

  async function other(act: Action, name: string): Promise<void> {
    switch (act.do) {
      case 'ink': {
        const ink = inks.indexOf(act.ink) + 1;
        const ids = chosen.filter((id) => scratch.columns.ink[id] !== ink);
        return step({ ids, after: { ink }, done: 'Inked', where: ` in ${act.ink}` });
      }
      case 'delete':
        plan.final = true;
        return step({
          ids: chosen,
          after: { place: expunged, placedAt: placedNow(mailbox) },
          done: 'Deleted',
          where: ' for good',
        });
      case 'thinOut':
        return step(await thinPlan(mailbox, scratch, chosen));
      case 'standing': {
        const { edits, values, of } = standingEdits(mailbox, chosen, act, name, `Stamp “${stamp.name}”`, shared);
        plan.setup.push(...edits);
        const held = values.length ? `${values.slice(0, 3).join(', ')}${values.length > 3 ? ' …' : ''}` : 'nobody more';
        plan.steps.push({
          did: `Held ${held} ${act.standing === 'safe' ? 'Safe' : 'Blocked'} from now on`,
          count: of,
          beyond: false,
        });
        return;
      }
      case 'task': {
        if (act.due === 'ask') return;
        const items = taskEdits(mailbox, chosen, act.due, name);
        plan.items.push(...items);
        plan.steps.push({
          did: `Made ${items.length === 1 ? 'one task' : `${count(items.length)} tasks`}`,
          count: chosen.length,
          beyond: false,
        });
        return;
      }
      case 'forward':
      case 'answer':
        plan.sends.push(act);
        plan.steps.push({
          did: `Sent: ${actionWords(act, mailbox.setup)}, of ${messages(chosen.length)}`,
          count: chosen.length,
          beyond: false,
        });
        return;
      default:
        throw new Error(`No stamp does “${act.do}”.`);
    }
  }
}

/** What thinning out the conversations of some messages comes to. */
async function thinPlan(mailbox: Stamping, { state, columns }: Scratch, chosen: Int32Array): Promise<Plan> {
  const first = new Map<number, number>();
  for (const id of chosen) first.set(mailbox.derived.conversation[id], id);
  if (first.size > mostThinned)
    throw new Refused(
      `It would thin ${count(first.size)} conversations out: ${mostThinned} at once is the most. Nothing was changed.`,
    );
  const goes: number[] = [];
  for (const id of first.values()) {
    const { envelopes, raws, reader } = mailbox;
    const verdicts = await thinVerdicts({ ...state, envelopes, raws, reader }, id);
    goes.push(...verdicts.filter((verdict) => verdict.goes).map((verdict) => verdict.id));
  }
  const bin = state.tables.placeIndex('bin');
  const ids = Int32Array.from(new Set(goes))
    .filter((id) => columns.place[id] !== bin)
    .sort();
  const bits = filled(Uint8Array, ids, (id) => columns.bits[id] | bit.byHand);
  return { ids, after: { place: bin, placedAt: placedNow(mailbox), bits }, done: 'Thinned out', where: ' to the Bin' };
}

/** What a stamp did, or would do, in words: `Flagged 3 messages; archived 3 messages`. */
export const stepsWords = (steps: readonly StampStep[]): string =>
  steps.map(({ did }, n) => (n === 0 ? did : `${did[0].toLowerCase()}${did.slice(1)}`)).join('; ');
