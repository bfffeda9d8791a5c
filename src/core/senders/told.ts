// Being told of new mail: only of what the person chose, by sender or by label.
import { idSchema } from '../data/id';
import { z } from 'zod';
import { addressKey, domainOf, withinDomain } from '../mail/address';

/** One thing to be told of: a sender's address or domain (with what lies below it), or a label. */
export const toldSchema = z.object({
  id: idSchema,
  by: z.enum(['sender', 'label']),
  /** The address or domain in lower case, or the label's id. */
  value: z.string().min(1).max(320),
});
export type Told = z.infer<typeof toldSchema>;

/** Whether the person wants to be told of a message from that address with those labels (ids). */
export function isTold(told: readonly Told[], from: string, labels: readonly string[]): boolean {
  const address = addressKey(from);
  const domain = domainOf(from);
  return told.some(({ by, value }) =>
    by === 'label' ? labels.includes(value) : value === address || withinDomain(domain, value),
  );
}
