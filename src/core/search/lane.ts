// Lanes: a place seen by kind, side by side. Each lane is a sender kind, a label, or a saved query.
import { idSchema } from '../data/id';
import { z } from 'zod';
import { kindNames, senderKinds } from '../senders/kind';
import { longestQuery, parseQuery } from './query';

export const laneWhatSchema = z.discriminatedUnion('by', [
  z.object({ by: z.literal('kind'), kind: z.enum(senderKinds) }),
  z.object({ by: z.literal('label'), label: idSchema }),
  /** The id of a saved search: the lane follows what that asks for. */
  z.object({ by: z.literal('search'), search: idSchema }),
  z.object({ by: z.literal('query'), query: z.string().max(longestQuery) }),
]);
export type LaneWhat = z.infer<typeof laneWhatSchema>;

/** A lane that the person made: of which view (its address, as `/inbox`), in the order of the list that it stands in. */
export const laneSchema = z.object({
  id: idSchema,
  of: z.string().min(1).max(300),
  name: z.string().min(1).max(100),
  what: laneWhatSchema.refine((what) => what.by !== 'query' || parseQuery(what.query).ok, {
    error: 'its query can’t be read',
  }),
});
export type Lane = z.infer<typeof laneSchema>;

/** The lanes of a view: the person's own, or the ready ones, one for each sender kind, where they made none. */
export function lanesOf(lanes: readonly Lane[], of: string): Lane[] {
  const own = lanes.filter((lane) => lane.of === of);
  return own.length
    ? own
    : senderKinds.map((kind) => ({ id: `ready-${kind}`, of, name: kindNames[kind], what: { by: 'kind', kind } }));
}

/** What is wrong with a lane as it is filled in, in words; null where it can be saved. */
export function laneTrouble({ name, what }: Lane): string | null {
  if (name.trim() === '') return 'Give the lane a name.';
  const read = what.by === 'query' ? parseQuery(what.query) : null;
  if (read && !read.ok) return `${read.error} (at character ${read.at + 1})`;
  if (what.by === 'label' && what.label === '') return 'Choose a label.';
  return what.by === 'search' && what.search === '' ? 'Choose a saved search.' : null;
}
