// What is let through a hold, as it is asked for.
import type { Rule } from '../rules/rule';
import { askedAsRule } from './gathering';
import type { Delivering } from './delivery';

/** The id under which it is asked; no tray has it. */
export const throughId = 'let through';

const asked = new WeakMap<Delivering['trays'], { letThrough: object; rules: readonly Rule[] }>();

/** All that trays and what is let through ask of messages, as rules that do nothing: by the ids of the trays, and {@link throughId}. */
export function gatheringRules({ trays, delivery: { letThrough } }: Delivering): readonly Rule[] {
  const known = asked.get(trays);
  if (known?.letThrough === letThrough) return known.rules;
  const rules = [
    ...trays.flatMap((tray) => askedAsRule(tray.id, tray) ?? []),
    ...[askedAsRule(throughId, letThrough)].flatMap((rule) => rule ?? []),
  ];
  asked.set(trays, { letThrough, rules });
  return rules;
}
