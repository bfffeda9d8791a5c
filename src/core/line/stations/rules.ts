// The rules: the first that moves a message takes it; those that only label or mark let it go on.
import { putOffTo } from '../../delivery/putOff';
import { carryOut } from '../../effects/effects';
import { heldBy, type RuleMessage } from '../../rules/match';
import type { Rule } from '../../rules/rule';
import { conditionWords, ruleName, type RuleNames } from '../../rules/ruleWords';
import type { LineIndex, Ride, Station } from './station';

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

/** Has a message that comes in wait as a rule says; whether it does. What is here already is left where it is. */
function putOff({ decided, knowledge, envelope }: Ride, { setup, deliveries }: LineIndex): boolean {
  if (decided.putOff === null || knowledge.arrives === undefined || knowledge.silenced) return false;
  const now = knowledge.now ?? envelope.date ?? 0;
  // “Later today” is over in the evening.
  const until = putOffTo(decided.putOff, now, setup.delivery.morning, deliveries.zone);
  if (until === null) return false;
  decided.place = 'held';
  decided.tray = null;
  decided.until = until;
  return true;
}

export const rules: Station<'rules'> = {
  id: 'rules',
  name: 'Rules',
  page: '/rules',
  pass(ride, index) {
    const { setup, rules, ruleMessage } = index;
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
    return taken || putOff(ride, index);
  },
};
