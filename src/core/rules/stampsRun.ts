// Rules that run stamps: the acts of the stamp stand in the rule's place for it, so that reach, contradictions, dry runs and
// scripts see what is done. A stamp holds no stamps: there is no circle.
import type { Action } from '../effects/effects';
import type { Stamp } from '../stamps/stamp';
import type { Rule } from './rule';

const run = new WeakMap<Rule, { stamps: readonly (Stamp | undefined)[]; rule: Rule }>();

/** A rule with the acts of the stamps that it runs. A rule without stamps is the same object. */
export function ruleRun(rule: Rule, stamps: readonly Stamp[]): Rule {
  if (!rule.then.some(({ do: kind }) => kind === 'stamp')) return rule;
  const named = rule.then.flatMap((action) =>
    action.do === 'stamp' ? [stamps.find(({ id }) => id === action.stamp)] : [],
  );
  const before = run.get(rule);
  // The same object for the same stamps: by that it is known what changed between two setups.
  if (before && before.stamps.length === named.length && before.stamps.every((one, i) => one === named[i]))
    return before.rule;
  const then = rule.then.flatMap((action): Action[] =>
    action.do === 'stamp' ? (stamps.find(({ id }) => id === action.stamp)?.acts ?? []) : [action],
  );
  const expanded = { ...rule, then };
  run.set(rule, { stamps: named, rule: expanded });
  return expanded;
}

const lists = new WeakMap<readonly Rule[], { stamps: readonly Stamp[]; rules: readonly Rule[] }>();

/** The rules of a setup as they are carried out. */
export function rulesRun({
  rules,
  stamps = [],
}: {
  rules: readonly Rule[];
  stamps?: readonly Stamp[];
}): readonly Rule[] {
  const before = lists.get(rules);
  if (before?.stamps === stamps) return before.rules;
  const out = rules.map((rule) => ruleRun(rule, stamps));
  const same = out.every((rule, i) => rule === rules[i]) ? rules : out;
  lists.set(rules, { stamps, rules: same });
  return same;
}

/** The rules that run a stamp. */
export const rulesRunning = (rules: readonly Rule[], stamp: string): Rule[] =>
  rules.filter(({ then }) => then.some((action) => action.do === 'stamp' && action.stamp === stamp));
