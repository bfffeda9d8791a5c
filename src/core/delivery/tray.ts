// Trays: mail that is good to read but never urgent, gathered by what it is and delivered in rounds, as one row.
import { z } from 'zod';
import { idSchema } from '../data/id';
import { gatheringSchema } from './gathering';
import { roundSchema } from './rounds';

export const traySchema = gatheringSchema.extend({
  id: idSchema,
  name: z.string().min(1, 'needs a name').max(100),
  round: roundSchema,
  /** Since when the round is so, milliseconds since 1970: what waits then goes by the new one from that moment on. */
  since: z.number(),
});
export type Tray = z.infer<typeof traySchema>;

/** A tray as it is to be, `now` (milliseconds since 1970) the moment from which its round is so where that is another. */
export const roundSince = (tray: Tray, old: Tray | undefined, now: number): Tray =>
  sameRound(tray, old) ? { ...tray, since: old?.since ?? now } : { ...tray, since: now };

/** Whether two trays have the same round. */
export const sameRound = (a: Tray, b: Tray | null | undefined): boolean =>
  JSON.stringify(a.round) === JSON.stringify(b?.round);
