// What the person decided about the junk filter and what becomes of junk.
import { momentSchema } from '../data/id';
import { z } from 'zod';

/** The longest that junk may be kept, in days. */
export const mostKeepDays = 365;

export const junkSettingsSchema = z.object({
  /** 0 is off; else junk begins at the score 100 − strictness. */
  strictness: z.number().int().min(0).max(99),
  /** How long junk is kept in Junk before it is deleted for good, in days. */
  keepDays: z.number().int().min(1).max(mostKeepDays),
  /**
   * When that was decided, milliseconds since 1970: the days of what was there already count from then. 0: never, and
   * nothing is deleted.
   */
  keepFrom: momentSchema.min(0).default(0),
  /** Junk goes to the Bin at once, where it is kept as all else there. */
  toBin: z.boolean(),
  /** Whether everyone in the contacts, and everyone the person wrote to, counts as safe. */
  contactsSafe: z.boolean(),
  writtenToSafe: z.boolean(),
  /** Whether the filter begins with what the open corpus teaches. */
  shipped: z.boolean(),
  /** The model that came with a setup from elsewhere (modelFile.ts, in Base64): the filter begins with that instead. */
  carried: z.string().max(5_000_000).nullable().default(null),
});
export type JunkSettings = z.infer<typeof junkSettingsSchema>;

/** What is called mild, at its most strict; what is offered to whoever has not decided yet. */
export const mildStrictness = 20;

/** The filter is off until the person has seen what it would do. */
export const freshJunkSettings: JunkSettings = {
  strictness: 0,
  keepDays: 30,
  keepFrom: 0,
  toBin: false,
  contactsSafe: true,
  writtenToSafe: true,
  shipped: true,
  carried: null,
};

/** The score at which junk begins; null where the filter is off. `strictness`: 0 (off) to 99. */
export function lineOf(strictness: number): number | null {
  return strictness <= 0 ? null : 100 - strictness;
}
