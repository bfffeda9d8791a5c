// Rules: when … then …, as the person writes them.
import { z } from 'zod';
import { placeSchema } from '../mail/place';

/** What a condition looks at. `list` is the identifier of List-Id (RFC 2919). */
export const conditionFields = ['from', 'to', 'subject', 'list'] as const;
export type ConditionField = (typeof conditionFields)[number];

/** One condition: the field contains the text, upper and lower case alike. */
export const conditionSchema = z.object({
  field: z.enum(conditionFields),
  contains: z.string().min(1, 'needs a text to look for').max(500),
});
export type Condition = z.infer<typeof conditionSchema>;

export const actionSchema = z.discriminatedUnion('do', [
  z.object({ do: z.literal('move'), place: placeSchema }),
  z.object({ do: z.literal('label'), label: z.string().min(1) }),
  z.object({ do: z.literal('read') }),
]);
export type Action = z.infer<typeof actionSchema>;

/** A rule. A rule that moves a message ends the station for it: the rules below are not asked. */
export const ruleSchema = z.object({
  id: z.string().min(1),
  /** Empty: the rule is called by what it does, see {@link ruleName}. */
  name: z.string().max(200),
  on: z.boolean(),
  match: z.enum(['all', 'any']),
  when: z.array(conditionSchema).min(1, 'needs at least one condition').max(50),
  then: z.array(actionSchema).min(1, 'needs at least one action').max(20),
});
export type Rule = z.infer<typeof ruleSchema>;

/** The words for a condition's field, as they begin a sentence. */
export const fieldWords: Record<ConditionField, string> = {
  from: 'From',
  to: 'To or Cc',
  subject: 'Subject',
  list: 'Mailing list',
};

/** A condition in words: `Subject contains “fuel”`. */
export function conditionWords({ field, contains }: Condition): string {
  return `${fieldWords[field]} contains “${contains}”`;
}

/** A rule's name: the person's, or its conditions in words. */
export function ruleName(rule: Pick<Rule, 'name' | 'when' | 'match'>): string {
  if (rule.name.trim()) return rule.name.trim();
  return rule.when.map(conditionWords).join(rule.match === 'all' ? ' and ' : ' or ') || 'Rule without a condition';
}
