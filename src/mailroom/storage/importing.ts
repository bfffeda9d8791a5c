// What is being brought in stands in a record of its own as long as it is under way: found at opening, it was cut off.
import { z } from 'zod';
import { placeSchema } from '../../core/mail/place';
import { keyOf } from './keys';
import type { Records } from './records';

const importingSchema = z.object({
  job: z.string(),
  /** The files, in words. */
  names: z.string(),
  target: z.union([placeSchema, z.literal('line')]),
});

export type Importing = z.infer<typeof importingSchema>;

/** The import that is under way, or was when the mailbox was last closed; null where there is none. */
export const readImporting = (records: Records): Promise<Importing | null> =>
  records.readDerived(keyOf.importing, importingSchema);

/** Notes that an import is under way. */
export const noteImporting = (records: Records, importing: Importing): Promise<void> =>
  records.write(keyOf.importing, importing);

/** Forgets it. */
export const forgetImporting = (records: Records): Promise<void> => records.remove(keyOf.importing);
