// The dry run: what a changed setup would do to the mail that is here, before it counts.
import type { Envelope } from '../mail/envelopeSchema';
import { placeTraits, type Place } from '../mail/place';
import { RuleSet, type Matcher } from '../rules/match';
import type { Rule } from '../rules/rule';
import { rulesRun } from '../rules/stampsRun';
import type { Present } from '../effects/effect';
import { changesOf, type Changes } from '../effects/effects';
import { Line, type TraceLine } from './decide';
import type { Knowledge } from './stations/station';
import type { Setup } from './setup';

/** A message as the dry run needs it, with what the line is told of it beyond itself. */
export interface Candidate extends Knowledge, Present {
  id: number;
  envelope: Envelope;
}

/** What would become of one message. */
export interface DryRunChange {
  id: number;
  from: Place;
  to: Place;
  /** What changes about it, effect by effect. */
  changes: Changes;
  /** Why, line by line: told only where it is asked for, since it takes longer than the rest. */
  trace: () => TraceLine[];
}

/**
 * The rules in which two setups differ, each as it is in either, where they differ in nothing else: only what one of
 * these matches can be decided otherwise. Null where more differs.
 */
function changedRules(before: Setup, after: Setup): Rule[] | null {
  for (const list of ['register', 'folders', 'labels', 'accounts', 'contacts', 'junk', 'trays', 'delivery'] as const)
    if (before[list] !== after[list]) return null;
  const [old, next] = [rulesRun(before), rulesRun(after)];
  const was = new Map(old.map((rule) => [rule.id, rule]));
  const is = new Map(next.map((rule) => [rule.id, rule]));
  const changed = [
    ...old.filter((rule) => is.get(rule.id) !== rule),
    ...next.filter((rule) => was.get(rule.id) !== rule),
  ];
  // Of the rules that stay, those that changed their order: all from the first to the last that stands elsewhere.
  const [kept, now] = [old, next].map((rules) =>
    rules.filter((rule) => was.get(rule.id) === rule && is.get(rule.id) === rule),
  );
  const from = kept.findIndex((rule, i) => rule !== now[i]);
  const to = kept.findLastIndex((rule, i) => rule !== now[i]);
  return [...changed, ...(from < 0 ? [] : kept.slice(from, to + 1))];
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
  const old = new Line(before, (rules) => matcherOf(rules, before));
  const next = new Line(after, (rules) => matcherOf(rules, after));
  const changes: DryRunChange[] = [];
  for (const candidate of candidates) {
    if (!placeTraits(candidate.place).sorted) continue;
    const { envelope } = candidate;
    if (touched && !touched.any(next.ruleMessage(envelope, candidate))) continue;
    const changed = changesOf(candidate, old.decided(envelope, candidate), next.decided(envelope, candidate));
    if (!changed) continue;
    const { id, place: from } = candidate;
    const to = changed.move?.to ?? from;
    changes.push({ id, from, to, changes: changed, trace: () => next.decide(envelope, candidate).trace });
  }
  return changes;
}
