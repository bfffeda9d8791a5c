// The messages here as the line and its rules are asked about them, all at once: for dry runs and for running them.
import { dryRun, type Candidate, type DryRunChange } from '../core/line/dryRun';
import { Line } from '../core/line/decide';
import type { Setup } from '../core/line/setup';
import type { Envelope } from '../core/mail/envelope';
import { inks } from '../core/mail/place';
import { Bits } from '../core/rules/bits';
import { conditionTest } from '../core/rules/match';
import { isDeep, type Condition, type DeepCondition, type Rule } from '../core/rules/rule';
import { TableMatcher } from '../core/rules/table';
import { bit } from './columns';
import { answersOwn } from './incoming';
import type { Mailbox } from './mailbox';
import { gone } from './tables';

/** A message as the dry run takes it: most of it is asked for by few. */
class MailboxCandidate implements Candidate {
  constructor(
    private readonly mailbox: Mailbox,
    readonly id: number,
    readonly envelope: Envelope,
    readonly now: number,
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

  get score() {
    return this.mailbox.junk.score(this.id);
  }

  get writtenTo() {
    return this.mailbox.people.wroteTo(this.envelope.from.address);
  }

  get answersOwn() {
    return answersOwn(this.mailbox, this.id);
  }

  deep(condition: DeepCondition) {
    return this.mailbox.deep.bits(condition).has(this.id);
  }
}

/** All messages as the dry run takes them, at a moment. Only after `mailbox.readyToSort()`. */
export function* candidates(mailbox: Mailbox, now = mailbox.now()): Generator<Candidate> {
  const { columns, envelopes } = mailbox;
  for (let id = 0; id < columns.count; id++)
    if (columns.place[id] !== gone) yield new MailboxCandidate(mailbox, id, envelopes.get(id), now);
}

/**
 * The conditions of rules, asked of all messages here at once, at a moment and under a setup. Only after
 * `mailbox.readyToSort()` with these rules.
 */
export class Asked {
  private readonly line: Line;
  private readonly byMessage = new Map<string, Bits>();
  private readonly count: number;

  constructor(
    private readonly mailbox: Mailbox,
    setup: Setup,
    private readonly now = mailbox.now(),
  ) {
    this.line = new Line(setup);
    this.count = mailbox.columns.count;
  }

  /** Which messages a condition holds for, also those that are gone. */
  readonly ask = (condition: Condition): Bits => {
    if (isDeep(condition)) return this.mailbox.deep.bits(condition);
    return this.mailbox.envelopeTable().ask(condition) ?? this.askEach(condition);
  };

  /** How many of the messages that are here are among some. */
  here(bits: Bits): number {
    const { place } = this.mailbox.columns;
    let n = 0;
    for (let id = 0; id < this.count; id++) if (place[id] !== gone && bits.has(id)) n++;
    return n;
  }

  /** Rules as what they were found to match. */
  matcher(rules: readonly Rule[]): TableMatcher {
    return new TableMatcher(rules, this.ask);
  }

  /** What goes by more than texts is asked message by message: most of it is a comparison of two numbers. */
  private askEach(condition: Condition): Bits {
    const key = JSON.stringify(condition);
    let bits = this.byMessage.get(key);
    const test = conditionTest(condition);
    if (bits || test.by !== 'message') return bits ?? new Bits(this.count);
    bits = new Bits(this.count);
    for (const candidate of candidates(this.mailbox, this.now))
      if (test.holds(this.line.ruleMessage(candidate.envelope, candidate))) bits.set(candidate.id);
    this.byMessage.set(key, bits);
    return bits;
  }
}

/**
 * What becomes of the messages here, or of some of them, when one setup stands where another stood. Only after
 * `mailbox.readyToSort()` with both.
 */
export function changesBetween(
  mailbox: Mailbox,
  before: Setup,
  after: Setup,
  some: Iterable<Candidate> = candidates(mailbox),
  now?: number,
): DryRunChange[] {
  const asked = new Map<Setup, Asked>();
  // What a condition holds for goes by the Register and the accounts, too.
  const alike = before.register === after.register && before.accounts === after.accounts;
  const askedOf = (setup: Setup) => {
    const key = alike ? after : setup;
    let its = asked.get(key);
    if (!its) asked.set(key, (its = new Asked(mailbox, key, now)));
    return its;
  };
  return dryRun(some, before, after, (rules, setup) => askedOf(setup).matcher(rules));
}
