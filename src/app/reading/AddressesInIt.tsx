import { Link } from 'react-router';
import { addressesOf, contactAddresses, mostAddresses, type Contact } from '../../core/contacts/contact';
import type { Setup } from '../../core/line/setup';
import { addressKey, type Address } from '../../core/mail/address';
import { normalAddress } from '../../core/senders/normal';
import { typedAddress } from '../../core/writing/recipient';
import type { OpenMessage } from '../../mailroom/border/message';
import { editContacts } from '../contacts/editContacts';
import { writeNew } from '../state/drafts';

/** Those that stand in no card, are not the person’s own, and not in its head: the sender’s card has a way of its own. */
function strangers({ addresses, row, cc }: OpenMessage, { contacts, accounts }: Setup): Address[] {
  const own = new Set([...accounts, row.from, ...row.to, ...cc].map(({ address }) => addressKey(address)));
  const kept = contactAddresses(contacts);
  return addresses.filter(({ address }) => !own.has(addressKey(address)) && !kept.has(normalAddress(address)));
}

interface OneProps {
  one: Address;
  /** The card of who wrote the message, if there is one. */
  sender: Contact | undefined;
}

function One({ one, sender }: OneProps) {
  const { name, address } = one;
  const toSender = async (card: Contact) => {
    const item = { ...card, more: [...card.more, normalAddress(address)] };
    await editContacts([{ id: card.id, item }], `Added ${address} to the contact ${card.name || card.address}`);
  };
  return (
    <li className="flex flex-wrap items-center gap-x-2">
      <span className="min-w-0 [overflow-wrap:anywhere]" dir="auto">
        {name} <span className="font-mono">{address}</span>
      </span>
      <button className="btn btn-ghost btn-xs" onClick={() => writeNew({ to: `${typedAddress(one)}, ` })}>
        Write to it
      </button>
      <Link
        className="btn btn-ghost btn-xs"
        to={`/contacts?${new URLSearchParams({ add: address, name }).toString()}`}
        aria-label={`Add ${address} to contacts`}
      >
        Add to contacts
      </Link>
      {sender && addressesOf(sender).length < mostAddresses && (
        <button className="btn max-w-full btn-ghost btn-xs" onClick={() => void toSender(sender)}>
          Add to the card of {sender.name || sender.address}
        </button>
      )}
    </li>
  );
}

interface Props {
  message: OpenMessage;
  setup: Setup;
}

/** The addresses that stand in a message’s own text, in its signature mostly: to be written to, or kept. */
export function AddressesInIt({ message, setup }: Props) {
  const list = strangers(message, setup);
  // Of a message that looks false nobody should be written to.
  if (list.length === 0 || message.dead) return null;
  const from = normalAddress(message.row.from.address);
  const sender = setup.contacts.find((one) => addressesOf(one).includes(from));
  return (
    <details className="text-sm print:hidden">
      <summary className="min-h-6 cursor-pointer">
        {list.length === 1 ? 'An address stands' : `${list.length} addresses stand`} in its text
      </summary>
      <ul aria-label="Addresses in its text">
        {list.map((one) => (
          <One key={one.address} one={one} sender={sender} />
        ))}
      </ul>
    </details>
  );
}
