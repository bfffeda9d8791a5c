// contacts: what stands on cards; contacts-write: cards from contacts.
import { readFile } from 'node:fs/promises';
import { z } from 'zod';
import { contactSchema, roles } from '../src/core/contacts/contact';
import { readCards, writeCards } from '../src/core/contacts/vcard';
import { normalAddress } from '../src/core/senders/normal';
import { fileError, fileText, oneFile, UsageError } from './files';
import type { Output } from './options';

/** A contact in a file, and as it is printed. */
const printedSchema = z.strictObject({
  name: z.string().max(200).default(''),
  addresses: z.array(z.string().regex(/^\S+@\S+$/, { error: 'must be an address' })).min(1),
  organisation: z.string().default(''),
  note: z.string().default(''),
  role: z.enum(roles).nullable().default(null),
  groups: z.array(z.string()).default([]),
  /** Lines of the card that nothing here is made of. */
  kept: z.array(z.string().regex(/^[^\r\n]*$/, { error: 'must be one line' })).default([]),
});

/** Prints a contact a line; what was not taken, on standard error. Throws UsageError where a file holds no card. */
export async function contacts(files: readonly string[], output: Output): Promise<void> {
  for (const file of files) {
    const bytes = await readFile(file).catch((error: unknown) => {
      throw fileError(file, error);
    });
    const read = readCards(new Uint8Array(bytes));
    for (const { card, line, says } of read.remarks)
      output.error(`${file}:${line}: ${card > 0 ? `card ${card}: ` : ''}${says}\n`);
    if (read.cards === 0) throw new UsageError(`${file}: no card is in it`);
    for (const { name, address, more, organisation, note, role, groups, kept } of read.contacts)
      output.out(
        `${JSON.stringify({ name, addresses: [address, ...more], organisation, note, role, groups, kept })}\n`,
      );
  }
}

/** Prints cards (vCard 4.0) of a list of contacts. Throws UsageError. */
export async function contactsWrite(files: readonly string[], output: Output): Promise<void> {
  const file = oneFile(files, 'a list of contacts (JSON)');
  let json: unknown;
  try {
    json = JSON.parse(await fileText(file));
  } catch (error) {
    if (error instanceof UsageError) throw error;
    throw new UsageError(`${file}: it is no JSON`);
  }
  const read = z.array(printedSchema).safeParse(json);
  if (!read.success) {
    const [{ path, message }] = read.error.issues;
    throw new UsageError(`${file}: ${path.length ? `${path.join('.')}: ` : ''}${message}`);
  }
  const list = read.data.map(({ addresses, ...rest }, n) => {
    const [address, ...more] = addresses.map(normalAddress);
    const contact = contactSchema.safeParse({ id: `contact-${n + 1}`, ...rest, address, more });
    if (contact.success) return contact.data;
    const [{ path, message }] = contact.error.issues;
    throw new UsageError(`${file}: ${n}.${path.join('.')}: ${message}`);
  });
  output.out(writeCards(list));
}
