// Contacts of those who wrote some messages, all at once.
import { contactAddresses, newContact } from '../../core/contacts/contact';
import type { Setup } from '../../core/line/setup';
import { addressKey } from '../../core/mail/address';
import { normalAddress } from '../../core/senders/normal';
import { count } from '../../core/text/sentences';
import { mailroom } from '../../mailroom/client';
import { commandId, say } from '../state/desk';
import { editContacts } from './editContacts';

/** The senders of no more messages are looked up at once. */
const mostLooked = 200;

/** Keeps a card of everyone who wrote some messages and has none yet; not of oneself. */
export async function contactsFrom(ids: readonly number[], { contacts, accounts }: Setup): Promise<void> {
  if (ids.length === 0) return say({ text: 'Open a message first, or tick some.', tone: 'trouble' });
  if (ids.length > mostLooked)
    return say({ text: `Cards are kept of the senders of ${count(mostLooked)} messages at most.`, tone: 'trouble' });
  const known = new Set([...contactAddresses(contacts), ...accounts.map(({ address }) => addressKey(address))]);
  const changes: Parameters<typeof editContacts>[0][number][] = [];
  for (const id of ids) {
    const from = (await mailroom.open(id, true))?.row.from;
    const address = normalAddress(from?.address ?? '');
    if (!from || !/^\S+@\S+$/.test(address) || known.has(address)) continue;
    known.add(address);
    const own = commandId();
    changes.push({ id: own, item: newContact(own, from.name, address) });
  }
  if (changes.length === 0) return say({ text: 'All of them are in your contacts already.', tone: 'done' });
  const names = changes.slice(0, 3).map(({ item }) => item?.name || item?.address);
  await editContacts(
    changes,
    `Added ${names.join(', ')}${changes.length > 3 ? ` and ${count(changes.length - 3)} more` : ''} to the contacts`,
  );
}
