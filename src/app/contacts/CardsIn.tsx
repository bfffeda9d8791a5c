import { wrap } from 'comlink';
import { useRef, useState } from 'react';
import { addressesOf, merged, type Contact } from '../../core/contacts/contact';
import type { readCards, ReadCards } from '../../core/contacts/vcard';
import { count } from '../../core/text/sentences';
import { commandId } from '../state/desk';
import { Dialog } from '../ui/Dialog';
import { Remarks } from '../ui/Remarks';
import { editContacts } from './editContacts';

const mostShown = 100;

interface Plan {
  /** Contacts that are new, and those that are here already with what the card adds. */
  changes: { id: string; item: Contact }[];
  added: number;
  changed: number;
  same: number;
}

/** What taking cards up would do: who is here already, by any of their addresses, is added to and not doubled. */
function planOf(read: ReadCards, contacts: readonly Contact[]): Plan {
  const by = new Map<string, Contact>();
  for (const one of contacts) for (const address of addressesOf(one)) by.set(address, one);
  const items = new Map<string, Contact>();
  const plan = { changes: [] as Plan['changes'], added: 0, changed: 0, same: 0 };
  for (const card of read.contacts) {
    const addresses = [card.address, ...card.more];
    const here = addresses.map((address) => by.get(address)).find(Boolean);
    const old = here && (items.get(here.id) ?? here);
    const item = old ? merged(old, { ...card, id: old.id }) : { ...card, id: commandId() };
    if (old && JSON.stringify(old) === JSON.stringify(item)) {
      plan.same++;
      continue;
    }
    if (!old) plan.added++;
    else if (!items.has(old.id)) plan.changed++;
    items.set(item.id, item);
    for (const address of addressesOf(item)) by.set(address, item);
  }
  plan.changes = [...items].map(([id, item]) => ({ id, item }));
  return plan;
}

interface PreviewProps {
  name: string;
  read: ReadCards;
  contacts: readonly Contact[];
  onClose: () => void;
}

function Preview({ name, read, contacts, onClose }: PreviewProps) {
  const [{ changes, added, changed, same }] = useState(() => planOf(read, contacts));
  const take = async () => {
    onClose();
    await editContacts(changes, `Took ${count(changes.length)} contacts from ${name}`);
  };
  return (
    <Dialog title={`What is in ${name}`} wide onClose={onClose}>
      <p>
        {count(read.cards)} card{read.cards === 1 ? '' : 's'}: {count(added)} new, {count(changed)} with more about
        somebody who is here, {count(same)} here already.
      </p>
      <Remarks remarks={read.remarks} open={read.contacts.length === 0} />
      <ul tabIndex={0} aria-label="Would be taken" className="mt-2 max-h-60 overflow-y-auto border-y border-base-300">
        {changes.slice(0, mostShown).map(({ id, item }) => (
          <li key={id} className="flex gap-2 px-1 py-0.5">
            <span className="min-w-0 flex-1 truncate font-semibold" dir="auto">
              {item.name || 'No name'}
            </span>
            <span className="min-w-0 flex-1 truncate font-mono text-sm">{addressesOf(item).join(', ')}</span>
          </li>
        ))}
        {changes.length > mostShown && <li className="quiet px-1">And {count(changes.length - mostShown)} more.</li>}
      </ul>
      <div className="mt-3 flex gap-2">
        <button className="btn btn-primary btn-sm" disabled={changes.length === 0} onClick={() => void take()}>
          Take {count(changes.length)} up
        </button>
        <button className="btn btn-ghost btn-sm" onClick={onClose}>
          Cancel
        </button>
      </div>
    </Dialog>
  );
}

/** Brings cards in: looked through away from the page, shown first, taken up as one. */
export function CardsIn({ contacts }: { contacts: readonly Contact[] }) {
  const picker = useRef<HTMLInputElement>(null);
  const [read, setRead] = useState<{ name: string; read: ReadCards } | null>(null);
  const [busy, setBusy] = useState(false);
  const pick = async (file: File | undefined) => {
    if (!file) return;
    setBusy(true);
    const worker = new Worker(new URL('./readCards.worker.ts', import.meta.url), { type: 'module' });
    try {
      const bytes = new Uint8Array(await file.arrayBuffer());
      const answer = await wrap<typeof readCards>(worker)(bytes);
      setRead({ name: file.name, read: answer });
    } catch {
      setRead({
        name: file.name,
        read: { contacts: [], cards: 0, remarks: [{ card: 0, line: 1, says: 'The file could not be read.' }] },
      });
    } finally {
      worker.terminate();
      setBusy(false);
    }
  };
  return (
    <>
      <button className="btn btn-outline btn-sm" disabled={busy} onClick={() => picker.current?.click()}>
        {busy ? 'Reading …' : 'Bring vCards in'}
      </button>
      <input
        ref={picker}
        type="file"
        hidden
        accept=".vcf,.vcard,text/vcard"
        aria-label="File of vCards"
        onChange={(event) => {
          void pick(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
      {read && <Preview {...read} contacts={contacts} onClose={() => setRead(null)} />}
    </>
  );
}
