// Gatherings: which messages are meant, by conditions as rules have them or by a label that they bear. A tray gathers so,
// and so does what is let through a hold.
import { z } from 'zod';
import { idSchema } from '../data/id';
import { groupSchema, isGroup, mostConditions, type Condition, type Group, type Rule } from '../rules/rule';

export const gatheringSchema = z.object({
  /** Null: by labels alone. */
  when: groupSchema.nullable(),
  /** Ids of labels of which one is enough. */
  labels: z.array(idSchema).max(200),
});
export type Gathering = z.infer<typeof gatheringSchema>;

export const nothingGathered: Gathering = { when: null, labels: [] };

/** A gathering’s conditions as a rule that does nothing, so that they are asked as rules are; null where it has none. */
export const askedAsRule = (id: string, { when }: Gathering): Rule | null =>
  when && { id, name: '', on: true, when, unless: null, then: [{ do: 'read' }] };

/** Whether a gathering means a message that bears some labels; `matches`: whether its conditions do. */
export const gathers = ({ labels }: Gathering, matches: boolean, bears: readonly string[]): boolean =>
  matches || (labels.length > 0 && bears.some((label) => labels.includes(label)));

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Conditions and one more of which any is enough; null where they are nested too deep or too many for that. */
export function withCondition(when: Group | null, condition: Condition): Group | null {
  if (when === null) return { match: 'any', of: [condition] };
  const any = when.match === 'any' || (when.of.length === 1 && when.match === 'all');
  if (any) {
    if (when.of.some((part) => same(part, condition))) return when;
    return when.of.length < mostConditions ? { match: 'any', of: [...when.of, condition] } : null;
  }
  const conditions = when.of.filter((part) => !isGroup(part)) as Condition[];
  return conditions.length === when.of.length
    ? { match: 'any', of: [{ match: when.match, of: conditions }, condition] }
    : null;
}
