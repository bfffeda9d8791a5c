// The dry run: what a changed setup would do to the mail that is here, before it counts.
import type { Envelope } from '../mail/envelopeSchema';
import type { Ink, Place } from '../mail/place';
import { RuleSet, type Matcher } from '../rules/match';
import type { Rule } from '../rules/rule';
import { Line, type Decision, type Knowledge, type TraceLine } from './decide';
import type { Setup } from './setup';

/** A message as the dry run needs it, with what the line is told of it beyond itself. */
export interface Candidate extends Knowledge {
  id: number;
  envelope: Envelope;
  place: Place;
  /** Label ids that it bears. */
  labels: readonly string[];
  read: boolean;
  flagged?: boolean;
  /** The ink of its row by a rule. */
  ink?: Ink | null;
  /** Whether the person, not the line, put it where it is. Such a message stays where it is. */
  byHand: boolean;
}

/** What would become of one message. */
export interface DryRunChange {
  id: number;
  from: Place;
  to: Place;
  addLabels: string[];
  markRead: boolean;
  /** The flag that it gets, or null. */
  flag: Decision['flag'];
  /** The ink that its row gets, null for none; undefined where that stays as it is. */
  ink: Ink | null | undefined;
  /** Why, line by line: told only where it is asked for, since it takes longer than the rest. */
  trace: () => TraceLine[];
}

/** Places whose mail the line did not sort: what the person wrote, and what is thrown away. */
const outsideTheLine: ReadonlySet<Place> = new Set<Place>(['sent', 'drafts', 'bin']);

/**
 * The rules in which two setups differ, each as it is in either, where they differ in nothing else: only what one of
 * these matches can be decided otherwise. Null where more differs.
 */
function changedRules(before: Setup, after: Setup): Rule[] | null {
  for (const list of ['register', 'folders', 'labels', 'accounts', 'contacts', 'junk'] as const)
    if (before[list] !== after[list]) return null;
  const was = new Map(before.rules.map((rule) => [rule.id, rule]));
  const is = new Map(after.rules.map((rule) => [rule.id, rule]));
  const changed = [
    ...before.rules.filter((rule) => is.get(rule.id) !== rule),
    ...after.rules.filter((rule) => was.get(rule.id) !== rule),
  ];
  // Of the rules that stay, those that changed their order: all from the first to the last that stands elsewhere.
  const [kept, now] = [before, after].map(({ rules }) =>
    rules.filter((rule) => was.get(rule.id) === rule && is.get(rule.id) === rule),
  );
  const from = kept.findIndex((rule, i) => rule !== now[i]);
  const to = kept.findLastIndex((rule, i) => rule !== now[i]);
  return [...changed, ...(from < 0 ? [] : kept.slice(from, to + 1))];
}

/** What changes about one message when another decision stands where one stood before; null where nothing does. */
function difference(candidate: Candidate, was: Decision, decision: Decision): Omit<DryRunChange, 'trace'> | null {
  const { id, place } = candidate;
  const mayMove = !candidate.byHand && decision.place !== place && decision.place !== was.place;
  const to = mayMove ? decision.place : place;
  const addLabels = decision.labels.filter((l) => !candidate.labels.includes(l) && !was.labels.includes(l));
  const markRead = decision.read && !was.read && !candidate.read;
  const flag = decision.flag && !was.flag && !candidate.flagged ? decision.flag : null;
  // Only the ink that the line gave does the line take off again.
  const inked = candidate.ink ?? null;
  const ink = decision.ink !== was.ink && decision.ink !== inked && (decision.ink ?? was.ink) !== null;
  const newInk = ink && (decision.ink !== null || inked === was.ink) ? decision.ink : undefined;
  if (to === place && addLabels.length === 0 && !markRead && !flag && newInk === undefined) return null;
  return { id, from: place, to, addLabels, markRead, flag, ink: newInk };
}

/**
 * Compares two setups over the mail here. A message changes when the new setup decides otherwise than the old one;
 * labels, flags and read marks are only ever added. Mail that the person put somewhere by hand keeps its place, and so
 * does mail that the old setup would not have put where it is: only what the line decided does the line decide again.
 * `matcherOf`: who says which rules of a setup match; absent, they are asked one message after another.
 */
export function dryRun(
  candidates: Iterable<Candidate>,
  before: Setup,
  after: Setup,
  matcherOf: (rules: readonly Rule[], setup: Setup) => Matcher = (rules) => new RuleSet(rules),
): DryRunChange[] {
  const rules = changedRules(before, after);
  const touched =
    rules &&
    matcherOf(
      rules.map((rule) => ({ ...rule, on: true })),
      after,
    );
  const old = new Line(before, matcherOf(before.rules, before));
  const next = new Line(after, matcherOf(after.rules, after));
  const changes: DryRunChange[] = [];
  for (const candidate of candidates) {
    if (outsideTheLine.has(candidate.place)) continue;
    const { envelope } = candidate;
    if (touched && !touched.any(next.ruleMessage(envelope, candidate))) continue;
    const changed = difference(
      candidate,
      old.decide(envelope, candidate, false),
      next.decide(envelope, candidate, false),
    );
    if (changed) changes.push({ ...changed, trace: () => next.decide(envelope, candidate).trace });
  }
  return changes;
}
