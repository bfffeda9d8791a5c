import { useState } from 'react';
import { domainOf } from '../../core/mail/address';
import type { Selection } from '../../mailroom/border/views';
import { mailroom } from '../../mailroom/client';
import { commandId, tellOutcome } from '../state/desk';
import { Dialog } from '../ui/Dialog';

/** What is known of what is rescued: its sender and list where it is one message, else nothing. */
export interface Rescued {
  selection: Selection;
  address: string | null;
  listId: string | null;
}

interface RescueDialogProps {
  rescued: Rescued;
  onClose: () => void;
  /** Called with what rescues the messages; true once they stand in the Inbox. */
  onRescue: (rescue: () => Promise<boolean>) => void;
}

type FromNowOn = 'this' | 'sender' | 'domain' | 'list';

/** The one question of a rescue: what is never to be taken for junk again? */
export function RescueDialog({ rescued, onClose, onRescue }: RescueDialogProps) {
  const { selection, address, listId } = rescued;
  const [contact, setContact] = useState(false);
  const one = address !== null;
  const domain = one ? domainOf(address) : '';
  const choices: [FromNowOn, string, string][] = [
    ['this', one ? 'Only this message' : 'Only these messages', 'Nothing else is decided.'],
    ['sender', one ? address || 'Its sender' : 'Their senders', 'Never junk from now on.'],
    ['domain', one ? `Everyone at ${domain}` : 'Everyone at their domains', 'Never junk from now on.'],
    ['list', one ? `The mailing list ${listId ?? ''}` : 'Their mailing lists', 'Never junk, whoever writes to it.'],
  ];
  const offered = choices.filter(
    ([which]) => !(one && ((which === 'list' && !listId) || (which !== 'this' && which !== 'list' && !domain))),
  );
  const rescue = (fromNowOn: FromNowOn) => {
    onClose();
    onRescue(async () =>
      tellOutcome(await mailroom.rescue(commandId(), selection, fromNowOn, fromNowOn === 'sender' && contact)),
    );
  };
  return (
    <Dialog title="Not junk: to the Inbox, and from now on?" onClose={onClose}>
      <ul
        className="flex flex-col gap-1"
        onKeyDown={(event) => {
          const choice = offered[Number(event.key) - 1];
          if (choice) rescue(choice[0]);
        }}
      >
        {offered.map(([which, name, what], i) => (
          <li key={which}>
            <button
              className="btn h-auto w-full justify-start gap-3 py-2 text-left btn-ghost"
              autoFocus={i === 0}
              aria-keyshortcuts={String(i + 1)}
              onClick={() => rescue(which)}
            >
              <kbd className="key">{i + 1}</kbd>
              <span className="min-w-0">
                <span className="block font-semibold [overflow-wrap:anywhere]">{name}</span>
                <span className="quiet block text-sm font-normal">{what}</span>
              </span>
            </button>
          </li>
        ))}
      </ul>
      <label className="mt-3 flex items-center gap-2 text-sm">
        <input
          type="checkbox"
          className="checkbox checkbox-sm"
          checked={contact}
          onChange={(e) => setContact(e.target.checked)}
        />
        With the sender, keep a contact card too
      </label>
      <p className="quiet mt-2 text-sm">
        What the line took from the same sender comes back with it. Undo takes it all back.
      </p>
    </Dialog>
  );
}
