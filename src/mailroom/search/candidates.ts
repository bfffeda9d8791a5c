// The messages here as the line and its rules are asked about them, all at once: for dry runs and for running them.
import { dryRun, type Candidate, type DryRunChange } from '../../core/line/dryRun';
import { Line } from '../../core/line/decide';
import type { Setup } from '../../core/line/setup';
import type { Envelope } from '../../core/mail/envelopeSchema';
import { inks } from '../../core/mail/label';
import { Bits } from '../../core/data/bits';
import { conditionTest } from '../../core/rules/match';
import { isDeep, type Condition, type DeepCondition, type Rule } from '../../core/rules/rule';
import { askRule, TableMatcher } from '../../core/rules/messageTable';
import { bit } from '../state/columns';
import { deepConditionsOf } from './deepConditions';
import type { MailState, Loading } from '../state/mailState';
import type { Correspondents } from '../state/correspondents';
import type { Stored } from '../storage/stored';
import type { Judging } from '../junk/junkFilter';
import type { Asking, Viewing } from './searching';
import { expunged } from '../state/internedTables';
import type { Tabled } from './indexed';

/** What of the mailbox is sent down the line again. */
export type SortedMail = MailState &
  Pick<Stored, 'envelopes'> &
  Pick<Correspondents, 'people'> &
  Judging &
  Asking &
  Tabled;

/** A message as the dry run takes it: most of it is asked for by few. */
class MailboxCandidate implements Candidate {
  constructor(
    private readonly mailbox: Pick<MailState, 'columns' | 'tables' | 'derived'> &
      Pick<Correspondents, 'people'> &
      Judging &
      Asking &
      Tabled,
    readonly id: number,
    readonly envelope: Envelope,
    readonly now: number,
    readonly arrives?: number,
  ) {}

  private has(which: number): boolean {
    return (this.mailbox.columns.bits[this.id] & which) !== 0;
  }

  get place() {
    return this.mailbox.tables.place(this.mailbox.columns.place[this.id]);
  }

  get labels() {
    return this.mailbox.tables.labelSets.items[this.mailbox.columns.labels[this.id]];
  }

  get read() {
    return this.has(bit.read);
  }

  get flagged() {
    return this.has(bit.flagged);
  }

  get byHand() {
    return this.has(bit.byHand);
  }

  get silenced() {
    return this.has(bit.silenced);
  }

  get ink() {
    return inks[this.mailbox.columns.ink[this.id] - 1] ?? null;
  }

  get tray() {
    return this.mailbox.tables.trays.items[this.mailbox.columns.tray[this.id]] || null;
  }

  get score() {
    return this.mailbox.junk.score(this.id);
  }

  get writtenTo() {
    return this.mailbox.people.wroteTo(this.envelope.from.address);
  }

  get answersOwn() {
    return this.mailbox.derived.answersOwn(this.id);
  }

  deep(condition: DeepCondition) {
    return this.mailbox.deep.bits(condition).has(this.id);
  }
}

/** All messages as the dry run takes them, at a moment. Only after `mailbox.readyToSort()`. */
export function* candidates(mailbox: SortedMail, now = mailbox.now()): Generator<Candidate> {
  const { columns, envelopes } = mailbox;
  for (let id = 0; id < columns.count; id++)
    if (columns.place[id] !== expunged) yield new MailboxCandidate(mailbox, id, envelopes.get(id), now);
}

/** The messages dated from a moment on, each as if it came in at its own date, the newest first. */
export function* arrivals(mailbox: SortedMail & Viewing, from: number): Generator<Candidate> {
  const { columns, envelopes } = mailbox;
  for (const id of mailbox.views.since(from))
    if (columns.place[id] !== expunged)
      yield new MailboxCandidate(mailbox, id, envelopes.get(id), columns.date[id], columns.date[id]);
}

/** The messages here about which the line decides: not what the person put where it is, nor what they wrote themselves. */
function* decidedByLine({
  columns,
  tables,
  derived,
}: Pick<MailState, 'columns' | 'tables' | 'derived'>): Generator<number> {
  const out = tables.places.items.map((place) => ['sent', 'drafts', 'bin'].includes(place));
  for (let id = 0; id < columns.count; id++) {
    const place = columns.place[id];
    if (place !== expunged && !out[place] && !(columns.bits[id] & bit.byHand) && !derived.isOwn(id)) yield id;
  }
}

/** As `mailbox.readyToSort()` says. */
export async function readyToSort(
  mailbox: Pick<MailState, 'columns' | 'tables' | 'derived' | 'setup'> & Pick<Loading, 'ready'> & Judging & Asking,
  setup: Setup,
  wanted?: () => boolean,
): Promise<void> {
  const { junk, deep } = mailbox;
  await Promise.all([mailbox.ready(), junk.settle()]);
  // Where the junk filter is to decide otherwise, all that it may decide about is judged: a part would be no answer.
  if (setup.junk.strictness > 0 && setup.junk !== mailbox.setup.junk)
    await junk.judge(decidedByLine(mailbox), () => undefined, wanted);
  const conditions = [setup, ...(setup === mailbox.setup ? [] : [mailbox.setup])].flatMap(deepConditionsOf);
  if (conditions.length) await deep.ready(conditions, wanted);
}

/**
 * The conditions of rules, asked of all messages here at once, at a moment and under a setup. Only after
 * `mailbox.readyToSort()` with these rules.
 */
export class Asked {
  private readonly line: Line;
  private readonly count: number;
  /** The messages that are here. */
  private readonly present: Bits;
  private readonly conditions = new Map<string, Bits>();
  private readonly rules = new Map<Rule, Bits>();

  constructor(
    private readonly mailbox: SortedMail,
    private readonly setup: Setup,
    private readonly now = mailbox.now(),
  ) {
    this.line = new Line(setup);
    this.count = mailbox.columns.count;
    this.present = new Bits(this.count);
    for (let id = 0; id < this.count; id++) if (mailbox.columns.place[id] !== expunged) this.present.set(id);
  }

  /** Which messages a condition holds for, also those that are gone. */
  readonly ask = (condition: Condition): Bits => {
    if (isDeep(condition)) return this.mailbox.deep.bits(condition);
    return this.remembered(
      condition,
      () => this.mailbox.envelopeTable().ask(condition, this.now) ?? this.askEach(condition),
    );
  };

  /** How many of the messages that are here are among some. */
  readonly here = (bits: Bits): number => bits.and(this.present).count;

  /** Rules as what they were found to match. */
  matcher(rules: readonly Rule[]): TableMatcher {
    return new TableMatcher(rules, this.askRule);
  }

  /** Which messages a rule matches, on or off. Two setups have most of their rules in common. */
  readonly askRule = (rule: Rule): Bits => {
    let bits = this.rules.get(rule);
    if (!bits) this.rules.set(rule, (bits = askRule(rule, this.ask)));
    return bits;
  };

  private remembered(condition: Condition, ask: () => Bits): Bits {
    const kept = this.keptFor(condition);
    const key = JSON.stringify(condition);
    let bits = kept.get(key);
    if (bits?.length !== this.count) kept.set(key, (bits = ask()));
    return bits;
  }

  /** What goes by more than an envelope says is asked message by message. */
  private askEach(condition: Condition): Bits {
    const bits = new Bits(this.count);
    const test = conditionTest(condition);
    for (const candidate of candidates(this.mailbox, this.now))
      if (test.by === 'message' && test.holds(this.line.ruleMessage(candidate.envelope, candidate)))
        bits.set(candidate.id);
    return bits;
  }

  /** What goes by the accounts or the Register alone stays true while these stay the same, for longer than one dry run. */
  private keptFor({ field }: Condition): Map<string, Bits> {
    const { accounts, register } = this.setup;
    const lasting = { account: accounts, addressed: accounts, standing: register } as Partial<Record<string, object>>;
    const of = lasting[field];
    if (!of) return this.conditions;
    let its = this.mailbox.asked.get(of);
    if (!its) this.mailbox.asked.set(of, (its = new Map()));
    return its;
  }
}

/** What conditions hold for under either of two setups: they go by the Register and the accounts, too. */
export function askedOf(mailbox: SortedMail, before: Setup, after: Setup, now?: number): (setup: Setup) => Asked {
  const next = new Asked(mailbox, after, now);
  const alike = before.register === after.register && before.accounts === after.accounts;
  const old = alike ? next : new Asked(mailbox, before, now);
  return (setup) => (setup === before ? old : next);
}

/**
 * What becomes of the messages here, or of some of them, when one setup stands where another stood. Only after
 * `mailbox.readyToSort()` with both.
 */
export function changesBetween(
  mailbox: SortedMail,
  before: Setup,
  after: Setup,
  some: Iterable<Candidate> = candidates(mailbox),
  asked = askedOf(mailbox, before, after),
): DryRunChange[] {
  return dryRun(some, before, after, (rules, setup) => asked(setup).matcher(rules));
}
