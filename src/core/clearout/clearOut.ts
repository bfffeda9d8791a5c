// Clear-out: which messages of a view go, by age, state, number, sender and size, and what stands out among them.
import { kept } from '../data/rows';
import { z } from 'zod';
import { sub } from 'date-fns';
import { senderKinds, type SenderKind } from '../senders/kind';

export const ageUnits = ['days', 'weeks', 'months', 'years'] as const;

/** What stands out: a person would want to see it before it goes, and may spare it. */
export const outstanding = ['flagged', 'unanswered', 'known', 'attachments'] as const;
export type Outstanding = (typeof outstanding)[number];

/** What a clear-out chooses by. All that is given must hold; what is kept is taken off at the end. */
export const clearOutSchema = z.object({
  /** Older than this, counted back from the beginning of today; null for any age. */
  older: z.object({ n: z.number().int().min(1).max(1_000), unit: z.enum(ageUnits) }).nullable(),
  state: z.enum(['any', 'read', 'unread']),
  /** An address, or a domain with all below it; null for anybody. In normal form. */
  from: z.object({ by: z.enum(['address', 'domain']), value: z.string().min(1).max(500) }).nullable(),
  kind: z.enum(senderKinds).nullable(),
  /** Larger than so many bytes; null for any size. */
  larger: z.number().int().nonnegative().nullable(),
  /** Only what belongs to silenced conversations. */
  silenced: z.boolean(),
  /** Only what stands whole in a later message of its conversation. */
  redundant: z.boolean(),
  /** The newest so many of what the rest chooses stay. */
  keepNewest: z.number().int().nonnegative().max(10_000_000),
  /** Messages that stay, by id. */
  keep: z.array(z.number().int().nonnegative()).max(1_000_000),
  /** What stands out and is spared. */
  spare: z.array(z.enum(outstanding)),
});
export type ClearOut = z.infer<typeof clearOutSchema>;

/** A clear-out that chooses everything. */
export const everythingGoes: ClearOut = {
  older: null,
  state: 'any',
  from: null,
  kind: null,
  larger: null,
  silenced: false,
  redundant: false,
  keepNewest: 0,
  keep: [],
  spare: [],
};

/** What is known of a message by its id. */
export interface ClearOutFacts {
  /** Milliseconds since 1970. */
  date(id: number): number;
  /** In bytes. */
  size(id: number): number;
  read(id: number): boolean;
  silenced(id: number): boolean;
  redundant(id: number): boolean;
  kind(id: number): SenderKind;
  isFrom(id: number, from: NonNullable<ClearOut['from']>): boolean;
  stands: Record<Outstanding, (id: number) => boolean>;
}

/** What a clear-out comes to. */
export interface ChosenToClear {
  /** The messages that go, in the order given. */
  ids: Int32Array;
  /** How many of those that go, or would go were they not spared, stand out for each reason. */
  standsOut: Record<Outstanding, number>;
  /** How many are spared for any of the reasons that are. */
  spared: number;
  /** How many stay that nothing else takes off: the newest, and those that are kept by id. */
  kept: number;
}

/** The moment before which a message is older than an age: so far back from the beginning of that day, local time. */
export function olderThan({ n, unit }: NonNullable<ClearOut['older']>, now: number): number {
  const day = new Date(now);
  day.setHours(0, 0, 0, 0);
  return sub(day, { [unit]: n }).getTime();
}

/** Chooses among messages, given newest first. `now` in milliseconds since 1970. */
export function chooseToClear(
  newestFirst: Int32Array,
  choice: ClearOut,
  now: number,
  facts: ClearOutFacts,
): ChosenToClear {
  const { older, state, from, kind, larger, silenced, redundant } = choice;
  const before = older ? olderThan(older, now) : Infinity;
  const fits = (id: number): boolean =>
    facts.date(id) < before &&
    (state === 'any' || facts.read(id) === (state === 'read')) &&
    (from === null || facts.isFrom(id, from)) &&
    (kind === null || facts.kind(id) === kind) &&
    (larger === null || facts.size(id) > larger) &&
    (!silenced || facts.silenced(id)) &&
    (!redundant || facts.redundant(id));
  const keep = new Set(choice.keep);
  const standsOut: ChosenToClear['standsOut'] = { flagged: 0, unanswered: 0, known: 0, attachments: 0 };
  let [spared, staying, passed] = [0, 0, 0];
  const ids = kept(newestFirst, (id) => {
    if (!fits(id)) return false;
    if (passed++ < choice.keepNewest || keep.has(id)) {
      staying++;
      return false;
    }
    let spare = false;
    for (const reason of outstanding) {
      if (!facts.stands[reason](id)) continue;
      standsOut[reason]++;
      spare ||= choice.spare.includes(reason);
    }
    if (spare) spared++;
    return !spare;
  });
  return { ids, standsOut, spared, kept: staying };
}

/** A clear-out that is ready to be chosen by its name. */
export interface ReadyClearOut {
  id: string;
  name: string;
  choice: ClearOut;
}

/** Six months is a usual line: older mail is rarely needed again (common practice, no source). */
export const readyClearOuts: readonly ReadyClearOut[] = [
  {
    id: 'half-year',
    name: 'Older than six months',
    choice: { ...everythingGoes, older: { n: 6, unit: 'months' }, spare: ['flagged'] },
  },
  {
    id: 'bulletins',
    name: 'Bulletins older than two weeks',
    choice: { ...everythingGoes, older: { n: 2, unit: 'weeks' }, kind: 'lists', spare: ['flagged'] },
  },
  {
    id: 'machines',
    name: 'Notices by machines, older than a month',
    choice: { ...everythingGoes, older: { n: 1, unit: 'months' }, kind: 'machines', spare: ['flagged'] },
  },
  { id: 'newest', name: 'All but the newest 50', choice: { ...everythingGoes, keepNewest: 50, spare: ['flagged'] } },
  { id: 'read', name: 'All that is read', choice: { ...everythingGoes, state: 'read', spare: ['flagged'] } },
  {
    id: 'large',
    name: 'Larger than 1 MB, older than a month',
    choice: { ...everythingGoes, larger: 1_000_000, older: { n: 1, unit: 'months' }, spare: ['flagged'] },
  },
  { id: 'silenced', name: 'Silenced conversations', choice: { ...everythingGoes, silenced: true, spare: ['flagged'] } },
  { id: 'redundant', name: 'Said whole again in a later message', choice: { ...everythingGoes, redundant: true } },
];
