// The trace of a message as it is stored: what each station said.
import { z } from 'zod';
import { traceIds } from '../../core/line/stations';

export const traceLineSchema = z.object({
  station: z.enum(traceIds),
  by: z.string().nullable(),
  says: z.string(),
});

export type StoredTraceLine = z.infer<typeof traceLineSchema>;
