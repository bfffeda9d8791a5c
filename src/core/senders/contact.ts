// Contacts: people the person knows.
import { z } from 'zod';

export const contactSchema = z.object({
  id: z.string().min(1),
  name: z.string().max(200),
  /** In normal form (normal.ts); each stands once. */
  address: z.string().regex(/^\S+@\S+$/, { error: 'must be an address, like ana@harbour.example' }),
});
export type Contact = z.infer<typeof contactSchema>;
