// An envelope as it is kept: with the key that tells its message from every other.
import { z } from 'zod';
import { envelopeSchema } from '../../core/mail/envelopeSchema';

/** An envelope as the mailroom keeps it. */
export const keptEnvelopeSchema = envelopeSchema.extend({
  /** The first 128 bits of the raw message's SHA-256, in hex. */
  key: z.string(),
});

export type KeptEnvelope = z.infer<typeof keptEnvelopeSchema>;
