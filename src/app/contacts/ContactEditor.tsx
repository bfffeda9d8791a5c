import { useEffect, useRef, useState } from 'react';
import { addressesOf, contactSchema, mostAddresses, roles, roleWords, type Contact } from '../../core/contacts/contact';
import type { Setup } from '../../core/line/setup';
import { readRecipients, typedAddress } from '../../core/writing/recipient';
import { normalAddress } from '../../core/senders/normal';
import { commandId } from '../state/desk';
import { writeNew } from '../state/drafts';
import { Form } from '../ui/Form';
import { editContacts } from './editContacts';

interface Props {
  contact: Contact;
  isNew: boolean;
  setup: Setup;
  onClose: () => void;
}

type Read = { ok: true; item: Contact } | { ok: false; error: string };

/** The contact as it is typed, or what is still wrong with it. */
function readContact(typed: Contact, addresses: string, groups: string, setup: Setup): Read {
  const { named, wrong } = readRecipients(addresses);
  if (wrong.length) return { ok: false, error: `“${wrong[0].text}” is no address: ${wrong[0].reason}.` };
  if (named.length === 0) return { ok: false, error: 'Type at least one address.' };
  if (named.length > mostAddresses) return { ok: false, error: `No more than ${mostAddresses} addresses.` };
  const [address, ...more] = named.map((one) => normalAddress(one.address));
  const other = setup.contacts.find(
    (one) => one.id !== typed.id && addressesOf(one).some((its) => its === address || more.includes(its)),
  );
  if (other)
    return {
      ok: false,
      error: `One of these addresses is ${other.name || other.address}’s already. Tick both and merge them.`,
    };
  const read = contactSchema.safeParse({
    ...typed,
    name: typed.name.trim(),
    address,
    more: [...new Set(more)],
    groups: [
      ...new Set(
        groups
          .split(',')
          .map((one) => one.trim())
          .filter(Boolean),
      ),
    ],
  });
  return read.success
    ? { ok: true, item: read.data }
    : { ok: false, error: `${read.error.issues[0].path.join('.')}: ${read.error.issues[0].message}` };
}

/** What somebody’s card means on the line, in sentences. */
function meaning({ junk, delivery, told }: Setup, contact: Contact): string[] {
  const its = new Set(addressesOf(contact));
  const tells = told.some((one) => one.by === 'sender' && its.has(one.value));
  return [
    junk.contactsSafe ? 'Their mail is never taken for junk.' : 'The junk filter asks about their mail as about any.',
    delivery.letThrough.contacts || contact.groups.some((group) => delivery.letThrough.groups?.includes(group))
      ? 'A hold lets their mail through.'
      : 'A hold keeps their mail as any.',
    ...(tells ? ['You are told when they write.'] : []),
  ];
}

interface MoreProps {
  typed: Contact;
  set: (some: Partial<Contact>) => void;
  /** Names of groups, parted by commas. */
  groups: string;
  onGroups: (groups: string) => void;
}

/** What is known of somebody besides name and addresses. */
const More = ({ typed, set, groups, onGroups }: MoreProps) => (
  <>
    <label className="flex flex-col">
      <span className="text-sm">Organisation</span>
      <input
        className="input input-sm w-full"
        dir="auto"
        maxLength={500}
        value={typed.organisation}
        onChange={(e) => set({ organisation: e.target.value })}
      />
    </label>
    <label className="flex flex-col">
      <span className="text-sm">To me</span>
      <select
        className="select w-full select-sm"
        value={typed.role ?? ''}
        onChange={(e) => set({ role: roles.find((role) => role === e.target.value) ?? null })}
      >
        <option value="">Nothing in particular</option>
        {roles.map((role) => (
          <option key={role} value={role}>
            {roleWords[role]}
          </option>
        ))}
      </select>
    </label>
    <label className="flex flex-col">
      <span className="text-sm">Groups, parted by commas</span>
      <input className="input input-sm w-full" dir="auto" value={groups} onChange={(e) => onGroups(e.target.value)} />
    </label>
    <label className="flex flex-col">
      <span className="text-sm">Note</span>
      <textarea
        className="textarea field-sizing-content w-full"
        dir="auto"
        rows={2}
        maxLength={20_000}
        value={typed.note}
        onChange={(e) => set({ note: e.target.value })}
      />
    </label>
  </>
);

/** A contact, looked at and changed. */
export function ContactEditor({ contact, isNew, setup, onClose }: Props) {
  const [typed, setTyped] = useState(contact);
  const [addresses, setAddresses] = useState(addressesOf(contact).filter(Boolean).join('\n'));
  const [groups, setGroups] = useState(contact.groups.join(', '));
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    heading.current?.scrollIntoView({ block: 'nearest' });
  }, []);
  const read = readContact(typed, addresses, groups, setup);
  const set = (some: Partial<Contact>) => setTyped((before) => ({ ...before, ...some }));
  const save = async () => {
    if (!read.ok) return;
    const id = isNew ? commandId() : contact.id;
    const says = `${isNew ? 'Added' : 'Changed'} the contact ${read.item.name || read.item.address}`;
    if (await editContacts([{ id, item: { ...read.item, id } }], says)) onClose();
  };
  return (
    <Form className="flex max-w-xl flex-col gap-3" onSubmit={() => void save()}>
      {/* On a narrow screen it stands below the list. */}
      <h2 ref={heading} className="text-lg font-semibold" dir="auto">
        {isNew ? 'New contact' : contact.name || contact.address}
      </h2>
      <label className="flex flex-col">
        <span className="text-sm">Name</span>
        <input
          className="input input-sm w-full"
          dir="auto"
          maxLength={200}
          value={typed.name}
          onChange={(e) => set({ name: e.target.value })}
        />
      </label>
      <label className="flex flex-col">
        <span className="text-sm">Addresses, the first one first</span>
        <textarea
          className="textarea field-sizing-content w-full font-mono text-sm"
          rows={2}
          spellCheck={false}
          autoFocus={isNew}
          aria-describedby="contact-says"
          value={addresses}
          onChange={(e) => setAddresses(e.target.value)}
        />
      </label>
      <More typed={typed} set={set} groups={groups} onGroups={setGroups} />
      <p id="contact-says" aria-live="polite" className={read.ok ? 'quiet text-sm' : 'text-sm text-error'}>
        {read.ok ? meaning(setup, read.item).join(' ') : read.error}
      </p>
      {contact.kept.length > 0 && (
        <details className="text-sm">
          <summary className="cursor-pointer">More on the card, kept as it came: {contact.kept.length} lines</summary>
          <pre className="quiet max-h-48 overflow-auto text-xs" tabIndex={0}>
            {contact.kept.map((line) => line.slice(0, 200)).join('\n')}
          </pre>
        </details>
      )}
      <div className="flex flex-wrap gap-2">
        <button className="btn btn-primary btn-sm" disabled={!read.ok}>
          {isNew ? 'Add' : 'Save'}
        </button>
        {!isNew && (
          <>
            <button
              type="button"
              className="btn btn-outline btn-sm"
              onClick={() => writeNew({ to: `${typedAddress(contact)}, ` })}
            >
              Write to them
            </button>
            <button
              type="button"
              className="btn btn-ghost btn-sm"
              onClick={() =>
                void editContacts(
                  [{ id: contact.id, item: null }],
                  `Took ${contact.name || contact.address} off the contacts`,
                ).then((done) => done && onClose())
              }
            >
              Take off
            </button>
          </>
        )}
        <button type="button" className="btn btn-ghost btn-sm" onClick={onClose}>
          Cancel
        </button>
      </div>
    </Form>
  );
}
