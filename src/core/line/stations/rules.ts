// The rules: the first that moves a message takes it; those that only label or mark let it go on.
import { carryOut } from '../../effects/effects';
import { heldBy, type RuleMessage } from '../../rules/match';
import type { Rule } from '../../rules/rule';
import { conditionWords, ruleName, type RuleNames } from '../../rules/ruleWords';
import type { Station } from './station';

/** That no rule matches, in words. */
function noneOf(asked: number): string {
  if (asked === 0) return 'There are no rules.';
  return asked === 1 ? 'The one rule does not match.' : `None of the ${asked} rules matches.`;
}

function ruleSays(rule: Rule, message: RuleMessage, done: readonly string[], names: RuleNames): string {
  const held = heldBy(rule, message).map((condition) => conditionWords(condition, names));
  const why = held.length ? ` (${held.join(', ')})` : '';
  return `“${ruleName(rule, names)}” ${done.join(', ') || 'matched'}${why}.`;
}

export const rules: Station<'rules'> = {
  id: 'rules',
  name: 'Rules',
  page: '/rules',
  pass(ride, { setup, rules, ruleMessage }) {
    const message = ruleMessage(ride.envelope, ride.knowledge, ride.safe !== '');
    const matching = rules.matching(message);
    if (matching.length === 0) {
      ride.say(() => ({ by: null, says: noneOf(rules.size) }));
      return false;
    }
    let taken = false;
    for (const rule of matching) {
      const done: string[] = [];
      for (const action of rule.then) {
        const { did, takes } = carryOut(action, ride.decided, setup, message.now);
        if (did !== null) done.push(did);
        if (takes) taken = true;
      }
      ride.say(() => ({ by: `rule:${rule.id}`, says: ruleSays(rule, message, done, setup) }));
    }
    return taken;
  },
};
