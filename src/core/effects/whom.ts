// To whom something goes that a person did not type: whoever has a role, or is in a group, at that moment.
import { z } from 'zod';
import type { EffectNames } from './effect';

export const whomSchema = z.discriminatedUnion('by', [
  z.object({ by: z.literal('role'), role: z.enum(['manager', 'team']) }),
  z.object({ by: z.literal('group'), group: z.string().min(1).max(100) }),
  z.object({ by: z.literal('address'), address: z.string().max(400) }),
]);
export type Whom = z.infer<typeof whomSchema>;

const roleNames = { manager: 'my manager', team: 'my team' } as const;

/** In words: `my manager`, `the group Pilots`. */
export function whomWords(whom: Whom, names: EffectNames): string {
  if (whom.by === 'role') return roleNames[whom.role];
  if (whom.by === 'group') return `the group ${whom.group}`;
  return names.contacts?.find(({ address }) => address === whom.address)?.name || whom.address || 'nobody yet';
}

/** The addresses of those that are meant, each once. */
export function addressesOfWhom(whom: Whom, { contacts = [] }: EffectNames): string[] {
  if (whom.by === 'address') return whom.address ? [whom.address] : [];
  const meant = contacts.filter(({ role, groups }) =>
    whom.by === 'role' ? role === whom.role : groups.includes(whom.group),
  );
  return [...new Set(meant.map(({ address }) => address))];
}

/** Why it goes to nobody, in words, and in which field; null where it goes to somebody. */
export function whomTrouble(whom: Whom, names: EffectNames): { field: string; says: string } | null {
  if (addressesOfWhom(whom, names).length > 0) return null;
  const says =
    whom.by === 'role'
      ? `Nobody is ${roleNames[whom.role]} yet: say so on a card (Contacts).`
      : whom.by === 'group'
        ? `Nobody is in the group ${whom.group} any more.`
        : 'Type the address.';
  return { field: 'whom', says };
}
