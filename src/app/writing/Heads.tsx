import { useState } from 'react';
import { Link } from 'react-router';
import { useMailbox } from '../state/overview';
import { useNarrow } from '../ui/useNarrow';
import { RecipientField } from './RecipientField';
import type { DraftPart } from './useDraft';

/** From, to, and about what. */
export function Heads({ draft, change }: DraftPart) {
  const accounts = useMailbox((s) => s.overview?.setup.accounts ?? []);
  // A choice that does not fit would stand under its own arrow.
  const narrow = useNarrow(768);
  const [copies, setCopies] = useState(draft.cc !== '' || draft.bcc !== '');
  return (
    <div className="flex flex-col gap-1.5">
      {accounts.length === 0 ? (
        <p className="text-sm">
          Say first from which address you write:{' '}
          <Link className="link" to="/accounts">
            add an account
          </Link>
          .
        </p>
      ) : (
        <label className="flex items-center gap-2 text-sm">
          <span className="w-14 shrink-0">From</span>
          <select
            className="select w-full min-w-0 truncate pr-8 select-sm"
            value={draft.account}
            onChange={(event) => change({ account: event.target.value })}
          >
            <option value="" disabled hidden>
              Choose …
            </option>
            {accounts.map(({ id, name, address }) => (
              <option key={id} value={id}>
                {narrow ? address : `${name} (${address})`}
              </option>
            ))}
          </select>
        </label>
      )}
      <RecipientField word="To" value={draft.to} onChange={(to) => change({ to })} autoFocus={draft.to === ''} />
      {copies ? (
        <>
          <RecipientField word="Cc" value={draft.cc} onChange={(cc) => change({ cc })} />
          <RecipientField word="Bcc" value={draft.bcc} onChange={(bcc) => change({ bcc })} />
        </>
      ) : (
        <button type="button" className="link ml-16 min-h-6 self-start text-sm" onClick={() => setCopies(true)}>
          Cc and Bcc
        </button>
      )}
      <label className="flex items-center gap-2 text-sm">
        <span className="w-14 shrink-0">Subject</span>
        <input
          className="input input-sm w-full"
          dir="auto"
          maxLength={2_000}
          value={draft.subject}
          onChange={(event) => change({ subject: event.target.value })}
        />
      </label>
    </div>
  );
}
