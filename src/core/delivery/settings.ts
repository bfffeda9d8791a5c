// When mail is delivered that does not come at once, as the person set it: the morning, the time zone, the hold, what it
// lets through, the timetable and single periods of quiet.
import { z } from 'zod';
import { automaticAnswerSchema, noAnswer } from './automaticAnswer';
import { gatheringSchema, nothingGathered } from './gathering';
import { freshTimetable, timetableSchema } from './timetable';

/** A stretch of time, milliseconds since 1970; `until` null: until it is lifted. */
const holdSchema = z.object({ since: z.number(), until: z.number().nullable() });
export type Hold = z.infer<typeof holdSchema>;

/** A single period in which nothing is delivered. */
const quietSchema = z
  .object({ from: z.number(), until: z.number() })
  .refine(({ from, until }) => from < until, { error: 'must end after it begins' });
export type Quiet = z.infer<typeof quietSchema>;

export const letThroughSchema = gatheringSchema.extend({
  /** Whoever is in the contacts. */
  contacts: z.boolean(),
  /** Of the contacts those in some groups, by the groups’ names. */
  groups: z.array(z.string().min(1).max(100)).max(100).optional(),
});
export type LetThrough = z.infer<typeof letThroughSchema>;

export const deliverySettingsSchema = z.object({
  /** The hour at which a morning begins: for what is put off “until tomorrow morning”. */
  morning: z.number().int().min(0).max(23),
  /**
   * The person’s time zone by its name in the IANA time zone database; null: that of the machine. Which names there
   * are is the machine’s to say, so that what is stored stays readable on another; a setup that is taken up is looked through.
   */
  zone: z.string().max(100).nullable().default(null),
  /** The hold that is on; null where none is. */
  hold: holdSchema.nullable().default(null),
  letThrough: letThroughSchema.default({ ...nothingGathered, contacts: false }),
  timetable: timetableSchema.default(freshTimetable),
  quiet: z.array(quietSchema).max(500).default([]),
  answer: automaticAnswerSchema.default(noAnswer),
});
export type DeliverySettings = z.infer<typeof deliverySettingsSchema>;

export const freshDelivery: DeliverySettings = deliverySettingsSchema.parse({ morning: 8 });
