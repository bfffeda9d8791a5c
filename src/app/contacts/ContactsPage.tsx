import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import {
  addressesOf,
  doubles,
  groupsOf,
  merged,
  mostGroups,
  newContact,
  roleWords,
  type Contact,
} from '../../core/contacts/contact';
import { writeCards } from '../../core/contacts/vcard';
import { count } from '../../core/text/sentences';
import { UndoSpot } from '../desk/StampBar';
import { useMailbox } from '../state/overview';
import { Form } from '../ui/Form';
import { Halves, Page } from '../ui/Page';
import { saveFile } from '../ui/save';
import { CardsIn } from './CardsIn';
import { ContactEditor } from './ContactEditor';
import { editContacts } from './editContacts';

const inSight = 200;
/** One for all comparisons: a name is compared with many. */
const collator = new Intl.Collator();
const people = (n: number): string => `${count(n)} contact${n === 1 ? '' : 's'}`;

const saveCards = (contacts: readonly Contact[], version: '4.0' | '3.0') =>
  saveFile(new Blob([writeCards(contacts, version)], { type: 'text/vcard' }), 'contacts.vcf');

interface TickedProps {
  ticked: readonly Contact[];
  onDone: () => void;
}

/** What can be done with the contacts that are ticked. */
function TickedActs({ ticked, onDone }: TickedProps) {
  const [group, setGroup] = useState('');
  if (ticked.length === 0) return null;
  const merge = async () => {
    const [first, ...others] = ticked;
    const item = others.reduce(merged, first);
    const changes = [{ id: first.id, item }, ...others.map(({ id }) => ({ id, item: null }))];
    if (await editContacts(changes, `Merged ${people(ticked.length)} into ${item.name || item.address}`)) onDone();
  };
  const takeOff = async () => {
    if (
      await editContacts(
        ticked.map(({ id }) => ({ id, item: null })),
        `Took ${people(ticked.length)} off`,
      )
    )
      onDone();
  };
  const intoGroup = async () => {
    const name = group.trim();
    const changes = ticked.map((one) => ({
      id: one.id,
      item: { ...one, groups: [...new Set([...one.groups, name])].slice(0, mostGroups) },
    }));
    if (await editContacts(changes, `Put ${people(ticked.length)} into the group “${name}”`)) setGroup('');
  };
  return (
    <div role="group" aria-label="With those ticked" className="mb-2 flex flex-wrap items-center gap-2 bg-base-200 p-2">
      <span className="text-sm font-semibold">{count(ticked.length)} ticked</span>
      {ticked.length > 1 && (
        <button className="btn btn-outline btn-xs" onClick={() => void merge()}>
          Merge into one
        </button>
      )}
      <Form className="flex items-center gap-1" onSubmit={() => void (group.trim() && intoGroup())}>
        <input
          aria-label="Name of the group"
          placeholder="Group"
          className="input input-xs w-32"
          list="contact-groups"
          maxLength={100}
          value={group}
          onChange={(event) => setGroup(event.target.value)}
        />
        <button className="btn btn-outline btn-xs" disabled={group.trim() === ''}>
          Put in group
        </button>
      </Form>
      <button className="btn btn-outline btn-xs" onClick={() => saveCards(ticked, '4.0')}>
        Save as vCards
      </button>
      <button className="btn btn-ghost btn-xs" onClick={() => void takeOff()}>
        Take off
      </button>
    </div>
  );
}

/** Those who seem to be the same person, to be merged at one press. */
function Doubles({ contacts }: { contacts: readonly Contact[] }) {
  const sets = useMemo(() => doubles(contacts), [contacts]);
  if (sets.length === 0) return null;
  const mergeAll = () =>
    editContacts(
      sets.flatMap(([first, ...others]) => [
        { id: first.id, item: others.reduce(merged, first) },
        ...others.map(({ id }) => ({ id, item: null })),
      ]),
      `Merged what was double among the contacts: ${people(sets.length)} left of ${count(sets.flat().length)}`,
    );
  const named = sets.slice(0, 3).map(([first]) => first.name || first.address);
  return (
    <p className="mb-2 border-l-4 border-accent bg-base-200 px-3 py-1.5 text-sm">
      {sets.length === 1 ? 'One person seems' : `${count(sets.length)} people seem`} to be here more than once (
      {named.join(', ')}
      {sets.length > named.length && ' …'}): an address in common, or the same name.{' '}
      <button className="link font-semibold" onClick={() => void mergeAll()}>
        Merge them
      </button>
    </p>
  );
}

interface ListProps {
  contacts: readonly Contact[];
  open: string | null;
  ticked: ReadonlySet<string>;
  onTick: (id: string, on: boolean) => void;
  onOpen: (id: string) => void;
}

/** Some contacts, a row each. */
function ContactRows({ contacts, open, ticked, onTick, onOpen }: ListProps) {
  const [upTo, setUpTo] = useState(inSight);
  return (
    <>
      <ul aria-label="Contacts">
        {contacts.slice(0, upTo).map((one) => (
          <li
            key={one.id}
            className={`flex items-center gap-2 border-t border-base-300 px-1 ${open === one.id ? 'bg-base-300' : ''}`}
          >
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              aria-label={`Tick ${one.name || one.address}`}
              checked={ticked.has(one.id)}
              onChange={(event) => onTick(one.id, event.target.checked)}
            />
            <button
              className="flex min-h-9 min-w-0 flex-1 items-baseline gap-2 py-1 text-left"
              aria-current={open === one.id ? 'true' : undefined}
              onClick={() => onOpen(one.id)}
            >
              <span className="min-w-0 flex-1 truncate font-semibold" dir="auto">
                {one.name || 'No name'}
                {one.role && <span className="quiet font-normal"> · {roleWords[one.role]}</span>}
              </span>
              <span className="min-w-0 flex-1 truncate font-mono text-sm">
                {one.address}
                {one.more.length > 0 && ` +${one.more.length}`}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {contacts.length > upTo && (
        <button className="link mt-2 text-sm" onClick={() => setUpTo(upTo + inSight)}>
          Show more
        </button>
      )}
    </>
  );
}

/** The contacts that fit a word and a group, by name or organisation. */
function useChosen(contacts: readonly Contact[]) {
  const [wanted, setWanted] = useState('');
  const [group, setGroup] = useState('');
  const [by, setBy] = useState<'name' | 'organisation'>('name');
  const inOrder = useMemo(() => {
    const key = (one: Contact) =>
      by === 'name' ? one.name || one.address : `${one.organisation || '\uffff'} ${one.name}`;
    return contacts.toSorted((a, b) => collator.compare(key(a), key(b)));
  }, [contacts, by]);
  const shown = useMemo(() => {
    const word = wanted.trim().toLowerCase();
    const text = (one: Contact) =>
      `${one.name} ${addressesOf(one).join(' ')} ${one.organisation} ${one.note} ${one.groups.join(' ')}`.toLowerCase();
    return inOrder.filter((one) => (group === '' || one.groups.includes(group)) && text(one).includes(word));
  }, [inOrder, wanted, group]);
  return { shown, wanted, setWanted, group, setGroup, by, setBy };
}

interface WaysProps {
  contacts: readonly Contact[];
  onNew: () => void;
}

/** How contacts come in and go out. */
const Ways = ({ contacts, onNew }: WaysProps) => (
  <div className="mb-2 flex flex-wrap items-center gap-2">
    <button className="btn btn-primary btn-sm" onClick={onNew}>
      New contact
    </button>
    <CardsIn contacts={contacts} />
    {contacts.length > 0 && (
      <>
        <button className="btn btn-outline btn-sm" onClick={() => saveCards(contacts, '4.0')}>
          Save all as vCards
        </button>
        <button className="link text-sm" onClick={() => saveCards(contacts, '3.0')}>
          as vCard 3.0
        </button>
      </>
    )}
  </div>
);

type FiltersProps = Omit<ReturnType<typeof useChosen>, 'shown'> & { groups: readonly string[] };

/** Which contacts are shown, and in which order. */
const Filters = ({ groups, wanted, setWanted, group, setGroup, by, setBy }: FiltersProps) => (
  <>
    <div className="mb-2 flex flex-wrap items-center gap-2">
      <label className="flex items-center gap-2">
        <span className="whitespace-nowrap">Show only</span>
        <input className="input input-sm w-44" value={wanted} onChange={(e) => setWanted(e.target.value)} />
      </label>
      {groups.length > 0 && (
        <select
          className="select w-auto select-sm"
          aria-label="Group"
          value={group}
          onChange={(e) => setGroup(e.target.value)}
        >
          <option value="">All groups</option>
          {groups.map((name) => (
            <option key={name} value={name}>
              {name}
            </option>
          ))}
        </select>
      )}
      <select
        className="select w-auto select-sm"
        aria-label="Order"
        value={by}
        onChange={(e) => setBy(e.target.value as 'name' | 'organisation')}
      >
        <option value="name">By name</option>
        <option value="organisation">By organisation</option>
      </select>
    </div>
    <datalist id="contact-groups">
      {groups.map((name) => (
        <option key={name} value={name} />
      ))}
    </datalist>
  </>
);

/** Contacts: the people whom the person knows. */
export function ContactsPage() {
  const setup = useMailbox((s) => s.overview?.setup);
  const [search, setSearch] = useSearchParams();
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const [open, setOpen] = useState<string | null>(null);
  const contacts = setup?.contacts ?? [];
  const { shown, ...chosenBy } = useChosen(contacts);
  if (!setup) return null;
  const groups = groupsOf(contacts);
  const added = search.get('add');
  const beginning = added === null ? null : newContact('new', search.get('name') ?? '', added || 'a@b');
  const chosen = contacts.find(({ id }) => id === open) ?? null;
  const close = () => {
    setOpen(null);
    if (added !== null) setSearch({}, { replace: true });
  };
  return (
    <Page title="Contacts" acts={<UndoSpot />}>
      <Halves
        left={
          <div>
            <Ways
              contacts={contacts}
              onNew={() => {
                setOpen(null);
                setSearch({ add: '' }, { replace: true });
              }}
            />
            <Doubles contacts={contacts} />
            <Filters groups={groups} {...chosenBy} />
            <TickedActs ticked={contacts.filter(({ id }) => ticked.has(id))} onDone={() => setTicked(new Set())} />
            {contacts.length === 0 ? (
              <p>Nobody yet. Add somebody here or from a message, or bring vCards in (.vcf).</p>
            ) : (
              <ContactRows
                contacts={shown}
                open={open}
                ticked={ticked}
                onOpen={(id) => {
                  setSearch({}, { replace: true });
                  setOpen(id);
                }}
                onTick={(id, on) => {
                  const next = new Set(ticked);
                  if (on) next.add(id);
                  else next.delete(id);
                  setTicked(next);
                }}
              />
            )}
            <p className="quiet mt-2 text-sm" role="status">
              {count(Math.min(shown.length, contacts.length))} of {people(contacts.length)} shown
            </p>
          </div>
        }
        right={
          beginning ? (
            <ContactEditor
              key={`new ${added}`}
              contact={{ ...beginning, address: added ?? '' }}
              isNew
              setup={setup}
              onClose={close}
            />
          ) : chosen ? (
            <ContactEditor key={chosen.id} contact={chosen} isNew={false} setup={setup} onClose={close} />
          ) : (
            <p className="quiet max-w-prose">
              People you know: names come as you type them into a message, a stranger who takes on their name is pointed
              out, and their mail can be kept out of Junk and let through a hold.
            </p>
          )
        }
      />
    </Page>
  );
}
