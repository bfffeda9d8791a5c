// The trace of a message as it is stored: what each station said.
import { z } from 'zod';

export const traceLineSchema = z.object({
  station: z.enum(['register', 'junk', 'rules', 'inbox', 'silence', 'import', 'post office']),
  by: z.string().nullable(),
  says: z.string(),
});

export type StoredTraceLine = z.infer<typeof traceLineSchema>;
