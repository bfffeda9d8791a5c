import { useMemo, useState } from 'react';
import { contactTrouble, type Contact } from '../../core/senders/contact';
import { parseEntry } from '../../core/senders/register';
import { mailroom } from '../../mailroom/client';
import { UndoSpot } from '../desk/StampBar';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Page } from '../ui/Page';
import { Form } from '../ui/Form';
import { count } from '../../core/text/sentences';

const inSight = 200;

/** The contacts by name, narrowed by a word. */
function ContactList({ contacts, onTakeOff }: { contacts: readonly Contact[]; onTakeOff: (one: Contact) => void }) {
  const [wanted, setWanted] = useState('');
  const [shownUpTo, setShownUpTo] = useState(inSight);
  const shown = useMemo(() => {
    const word = wanted.trim().toLowerCase();
    return contacts
      .filter((one) => `${one.name} ${one.address}`.toLowerCase().includes(word))
      .toSorted((a, b) => (a.name || a.address).localeCompare(b.name || b.address));
  }, [contacts, wanted]);
  return (
    <>
      <label className="mb-3 flex max-w-sm items-center gap-2">
        <span className="whitespace-nowrap">Show only</span>
        <input className="input input-sm w-full" value={wanted} onChange={(e) => setWanted(e.target.value)} />
      </label>
      <ul className="max-w-3xl">
        {shown.slice(0, shownUpTo).map((one) => (
          <li key={one.id} className="flex items-center gap-3 border-t border-base-300 py-1">
            <span className="min-w-0 flex-1 truncate font-semibold">{one.name || 'No name'}</span>
            <span className="min-w-0 flex-1 truncate font-mono text-sm">{one.address}</span>
            <button
              className="btn btn-ghost btn-xs"
              aria-label={`Take off ${one.name || one.address}`}
              onClick={() => onTakeOff(one)}
            >
              Take off
            </button>
          </li>
        ))}
      </ul>
      <p className="quiet mt-2 text-sm" role="status">
        {count(Math.min(shownUpTo, shown.length))} of {count(contacts.length)} shown.{' '}
        {shown.length > shownUpTo && (
          <button className="link" onClick={() => setShownUpTo(shownUpTo + inSight)}>
            Show more
          </button>
        )}
      </p>
    </>
  );
}

/** Contacts: the people whose mail is never junk while the junk filter's switch says so. */
export function ContactsPage() {
  const contacts = useMailbox((s) => s.overview?.setup.contacts);
  const [name, setName] = useState('');
  const [address, setAddress] = useState('');
  if (!contacts) return null;
  const read = parseEntry(address);
  const wrong = contactTrouble(address, contacts);
  const edit = (item: Contact | null, id: string, says: string) =>
    mailroom.editSetup(commandId(), [{ list: 'contacts', id, item }], says, false).then(tellOutcome);
  const add = async () => {
    if (!read.ok || wrong !== null) return;
    const item = { id: commandId(), name: name.trim(), address: read.value };
    if (await edit(item, item.id, `Added ${item.name || item.address} to the contacts`)) {
      setName('');
      setAddress('');
    }
  };
  return (
    <Page title="Contacts" acts={<UndoSpot />}>
      <p className="mb-4 max-w-prose">
        People you know. Their mail is never taken for junk while the switch of the junk filter says so, and a stranger
        who takes on their name is pointed out.
      </p>
      <Form className="mb-4 flex max-w-3xl flex-wrap items-end gap-2" onSubmit={() => void add()}>
        <label className="flex-1">
          <span className="block text-sm">Name</span>
          <input className="input w-full" value={name} maxLength={200} onChange={(e) => setName(e.target.value)} />
        </label>
        <label className="flex-1">
          <span className="block text-sm">Address</span>
          <input
            className="input w-full font-mono"
            value={address}
            maxLength={320}
            spellCheck={false}
            autoComplete="off"
            aria-describedby="contact-says"
            onChange={(e) => setAddress(e.target.value)}
          />
        </label>
        <button className="btn btn-primary" disabled={wrong !== null}>
          Add
        </button>
        <p id="contact-says" className="quiet w-full text-sm">
          {wrong ?? 'Ready to add.'}
        </p>
      </Form>
      {contacts.length === 0 ? (
        <p>Nobody yet. A rescue from Junk can keep a card of its sender.</p>
      ) : (
        <ContactList
          contacts={contacts}
          onTakeOff={(one) => void edit(null, one.id, `Took ${one.name || one.address} off the contacts`)}
        />
      )}
    </Page>
  );
}
