// Contacts: people the person knows.
import { idSchema } from '../data/id';
import { z } from 'zod';
import { parseEntry } from './register';

export const contactSchema = z.object({
  id: idSchema,
  name: z.string().max(200),
  /** In normal form (normal.ts); each stands once. */
  address: z.string().regex(/^\S+@\S+$/, { error: 'must be an address, like ana@harbour.example' }),
});
export type Contact = z.infer<typeof contactSchema>;

/** What is wrong with the address of a new contact as it was typed, in words; null where it can be added. */
export function contactTrouble(typed: string, contacts: readonly Contact[]): string | null {
  if (typed.trim() === '') return 'Type the address, and the name if you like.';
  const read = parseEntry(typed);
  if (!read.ok) return read.error;
  if (read.kind !== 'address') return 'A contact is one address, with what stands before its “@”.';
  return contacts.some((one) => one.address === read.value) ? 'This address is in your contacts already.' : null;
}
