// Saved searches: a query with a name, asked everywhere or within a place or label. Each stands on the left with its count.
import { idSchema } from '../data/id';
import { z } from 'zod';
import { placeSchema } from '../mail/place';
import { longestQuery, parseQuery } from './query';

/** Where a query is asked: in a place or a label. */
export const withinSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('place'), place: placeSchema }),
  z.object({ kind: z.literal('label'), label: idSchema }),
]);
export type Within = z.infer<typeof withinSchema>;

export const savedSearchSchema = z.object({
  id: idSchema,
  name: z.string().min(1).max(100),
  query: z
    .string()
    .max(longestQuery)
    .refine((query) => parseQuery(query).ok, { error: 'it can’t be read' }),
  /** Null: in all places and folders. */
  within: withinSchema.nullable(),
});
export type SavedSearch = z.infer<typeof savedSearchSchema>;
