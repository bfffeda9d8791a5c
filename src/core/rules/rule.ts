// Rules: when … unless … then …, as the person writes them.
import { idSchema } from '../data/id';
import { z } from 'zod';
import { actionSchema, effectOf } from '../effects/effects';

/** How long a text of a condition may be, in UTF-16 units. */
export const longestText = 500;
const text = z.string().min(1, 'needs a text to look for').max(longestText);
/** A day as ISO 8601 writes it; it begins at midnight in UTC. */
const day = z
  .string()
  .refine((value) => /^\d{4}-\d{2}-\d{2}$/.test(value) && new Date(`${value}T00:00Z`).toJSON()?.startsWith(value), {
    error: 'must be a day, like 2026-09-01',
  });

/**
 * Conditions on people. `contains` looks into the field as it is written, names and addresses; the others look at each
 * address: `is` the whole of it, `domain` what stands after the @, `like` a pattern in which * is any text and ? any one
 * character.
 */
export const peopleFields = ['from', 'to', 'cc', 'recipient'] as const;
export const peopleHows = ['contains', 'is', 'domain', 'like'] as const;
/** `there`: the message has such a field, whatever it says. */
export const headerHows = ['contains', 'is', 'begins', 'ends', 'like', 'there'] as const;
export const textHows = ['contains', 'is', 'begins', 'ends', 'like'] as const;

/** Addressed to the person alone, to them among others, or not by name at all. */
export const addressings = ['alone', 'among', 'not'] as const;
export type Addressing = (typeof addressings)[number];

/** Names of header fields are printable US-ASCII but the colon (RFC 5322, section 2.2). */
const fieldName = z
  .string()
  .regex(/^[!-9;-~]{1,100}$/, { error: 'must be the name of a header field, like X-Priority' });

export const conditionSchema = z.discriminatedUnion('field', [
  z.object({ field: z.enum(peopleFields), how: z.enum(peopleHows), text }),
  z.object({ field: z.literal('subject'), how: z.enum(textHows), text }),
  /** The text of the message, runs of blanks taken as one. */
  z.object({ field: z.literal('body'), how: z.literal('contains'), text }),
  z.object({
    field: z.literal('header'),
    name: fieldName,
    how: z.enum(headerHows),
    text: z.string().max(longestText),
  }),
  /** The identifier of List-Id (RFC 2919). */
  z.object({ field: z.literal('list'), how: z.enum(['contains', 'is']), text }),
  z.object({ field: z.literal('size'), how: z.enum(['over', 'under']), bytes: z.number().int().nonnegative() }),
  /** `any` attachment, or one whose name contains the text. */
  z.object({ field: z.literal('attachment'), how: z.enum(['any', 'contains']), text: z.string().max(longestText) }),
  z.object({ field: z.literal('date'), how: z.enum(['before', 'on', 'since']), day }),
  z.object({ field: z.literal('age'), how: z.enum(['over', 'under']), days: z.number().int().min(1).max(36_500) }),
  z.object({ field: z.literal('account'), account: idSchema }),
  /** Whether the Register holds it Safe. What is Blocked never comes to the rules. */
  z.object({ field: z.literal('standing'), is: z.enum(['safe', 'none']) }),
  z.object({ field: z.literal('score'), how: z.enum(['over', 'under']), score: z.number().int().min(0).max(100) }),
  z.object({ field: z.literal('addressed'), is: z.enum(addressings) }),
  /** It answers a message of the person's own. */
  z.object({ field: z.literal('answer') }),
  /** Every message. */
  z.object({ field: z.literal('every') }),
]);
export type Condition = z.infer<typeof conditionSchema>;
export type ConditionField = Condition['field'];
/** Conditions that look into what an envelope does not hold. */
export type DeepCondition = Extract<Condition, { field: 'body' | 'header' }>;

export const isDeep = (condition: Condition): condition is DeepCondition =>
  condition.field === 'body' || condition.field === 'header';

/** So many conditions, or groups of them, one group may have. */
export const mostConditions = 200;
const innerGroup = z.object({
  match: z.enum(['all', 'any', 'none']),
  of: z.array(conditionSchema).min(1, 'needs at least one condition').max(mostConditions),
});

/** Conditions and how many of them must hold; within it, groups of conditions, but no deeper. */
export const groupSchema = z.object({
  match: z.enum(['all', 'any', 'none']),
  of: z
    .array(z.union([conditionSchema, innerGroup]))
    .min(1, 'needs at least one condition')
    .max(mostConditions),
});
export type Group = z.infer<typeof groupSchema>;
export type InnerGroup = z.infer<typeof innerGroup>;
export type Part = Group['of'][number];

export const isGroup = (part: Part | Group): part is Group => 'match' in part;

/** Rules of the first version had a list of conditions “field contains text” and no “unless”. */
function upgraded(value: unknown): unknown {
  if (typeof value !== 'object' || value === null || !('when' in value) || !Array.isArray(value.when)) return value;
  const { match, when, ...rest } = value as Record<string, unknown> & { when: unknown[] };
  const of = when.map((old) => {
    if (typeof old !== 'object' || old === null || !('contains' in old)) return old;
    const { field, contains } = old as { field: unknown; contains: unknown };
    return { field: field === 'to' ? 'recipient' : field, how: 'contains', text: contains };
  });
  return { ...rest, when: { match: match ?? 'all', of } };
}

/** A rule. A rule that moves a message ends the station for it: the rules below are not asked. */
export const ruleSchema = z.preprocess(
  upgraded,
  z.object({
    id: idSchema,
    /** Empty: the rule is called by what it does, see ruleName. */
    name: z.string().max(200),
    on: z.boolean(),
    when: groupSchema,
    unless: groupSchema.nullable().default(null),
    then: z.array(actionSchema).min(1, 'needs at least one action').max(20),
  }),
);
export type Rule = z.infer<typeof ruleSchema>;

/** Whether a rule ends the station for what it matches. */
export const endsStation = (rule: Pick<Rule, 'then'>): boolean =>
  rule.then.some((action) => effectOf(action.do).ends === true);

/** All conditions of a rule, wherever they stand in it. */
export function* conditionsOf({ when, unless }: Pick<Rule, 'when' | 'unless'>): Generator<Condition> {
  for (const group of unless ? [when, unless] : [when])
    for (const part of group.of)
      if (isGroup(part)) yield* part.of as Condition[];
      else yield part;
}
