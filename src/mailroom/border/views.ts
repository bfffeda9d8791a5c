// Views, selections and acts: what the page may ask for and act on, as it crosses the border to the mailroom.
import { z } from 'zod';
import { placeSchema } from '../../core/mail/place';
import { clearOutSchema } from '../../core/clearout/clearOut';
import { laneWhatSchema } from '../../core/search/lane';
import { longestQuery } from '../../core/search/query';
import { withinSchema } from '../../core/search/saved';

/** What to see of a view: `alone` is what came to the person alone. */
export const filters = ['unread', 'read', 'flagged', 'alone', 'attachments'] as const;
export type Filter = (typeof filters)[number];

/** A stretch of a view by kind; `rest` is what none of the lanes holds, so that nothing is out of sight. */
const laneOfViewSchema = z.union([laneWhatSchema, z.object({ by: z.literal('rest'), lanes: z.array(laneWhatSchema) })]);
export type Lane = z.infer<typeof laneOfViewSchema>;

/** Stands for what is found under none of the accounts; no account has it for its id. */
export const noAccount = '';

const narrowing = {
  /**
   * `applied` names one application of the filter, by the page's choice: what fitted then stays in sight, also when it
   * is read meanwhile. Null: only what fits now.
   */
  filter: z.object({ by: z.enum(filters), applied: z.string().nullable() }).optional(),
  /** The id of an account, or {@link noAccount}. */
  account: z.string().optional(),
  lane: laneOfViewSchema.optional(),
  /** The id of a tray: what of it stands in the view. */
  tray: z.string().optional(),
};

/** What a list of rows shows: a place, a label, what is damaged, silenced or found wherever it is; perhaps narrowed. */
export const viewSchema = z.discriminatedUnion('kind', [
  /**
   * What a query finds in all places and folders, or within one or a label. A query that can’t be read finds nothing.
   * `applied` as for filters: what was found under that name stays found, also when it is read meanwhile.
   */
  z.object({
    kind: z.literal('found'),
    query: z.string().max(longestQuery),
    within: withinSchema.nullable(),
    applied: z.string().optional(),
    ...narrowing,
  }),
  z.object({ kind: z.literal('place'), place: placeSchema, ...narrowing }),
  z.object({ kind: z.literal('label'), label: z.string(), ...narrowing }),
  z.object({ kind: z.literal('damaged'), ...narrowing }),
  /** What belongs to conversations that are silenced, wherever it is. */
  z.object({ kind: z.literal('silenced'), ...narrowing }),
]);
export type View = z.infer<typeof viewSchema>;

/** By what rows are ordered: newest, A, largest, highest score first; `turned`: last. */
export const orderSchema = z.object({
  by: z.enum(['date', 'sender', 'subject', 'size', 'score']),
  turned: z.boolean(),
});
export type Order = z.infer<typeof orderSchema>;

/**
 * How rows are shown: one for each conversation or each message, whether what stands elsewhere is counted, and in which
 * order, the newest first where none is given.
 */
export const groupingSchema = z.object({ grouped: z.boolean(), elsewhere: z.boolean(), order: orderSchema.optional() });
export type Grouping = z.infer<typeof groupingSchema>;

const idsSchema = z.array(z.number().int().nonnegative());
/**
 * Messages to act on: by id; all that a view holds, also those that were never in sight; whatever of some
 * conversations stands in a view; or what a clear-out chooses.
 */
export const selectionSchema = z.union([
  z.object({ ids: idsSchema }),
  z.object({ view: viewSchema }),
  z.object({ conversationsOf: idsSchema, within: viewSchema }),
  // What a clear-out chooses of a view; null: of all places but Junk, the Bin, Sent and Drafts.
  z.object({ clearOut: clearOutSchema, of: viewSchema.nullable() }),
]);
export type Selection = z.infer<typeof selectionSchema>;

/** An act on messages. */
export const actSchema = z.discriminatedUnion('do', [
  z.object({ do: z.literal('move'), place: placeSchema }),
  // Out of the Inbox until a moment, milliseconds since 1970, or until somebody answers.
  z.object({ do: z.literal('putOff'), until: z.number().positive() }),
  // Into a tray, where it waits for its round, or out of the one in which it is (null).
  z.object({ do: z.literal('tray'), tray: z.string().nullable() }),
  // `opened`: read because it was opened, so it is not the person's own act, and not what Undo takes back.
  z.object({ do: z.literal('read'), value: z.boolean(), opened: z.boolean().optional() }),
  // `due`: milliseconds since 1970; absent for a flag without a date.
  z.object({ do: z.literal('flag'), value: z.boolean(), due: z.number().positive().optional() }),
  // The flag comes off because what it was for is done.
  z.object({ do: z.literal('done') }),
  z.object({ do: z.literal('label'), label: z.string(), value: z.boolean() }),
  // What the messages are to the junk filter, which learns from it; they stay where they are.
  z.object({ do: z.literal('mark'), junk: z.boolean() }),
  // Goes to whole conversations: what of them is in the Inbox goes to `place`, and later answers pass the Inbox by.
  z.object({ do: z.literal('silence'), value: z.boolean(), place: z.enum(['archive', 'bin']) }),
]);
export type Act = z.infer<typeof actSchema>;
