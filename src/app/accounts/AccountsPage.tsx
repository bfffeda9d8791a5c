import { Link } from 'react-router';
import { accountTrouble, type Account } from '../../core/mail/account';
import { addressKey } from '../../core/mail/address';
import type { Overview } from '../../mailroom/border/overview';
import { noAccount } from '../../mailroom/border/views';
import { mailroom } from '../../mailroom/client';
import { UndoSpot } from '../desk/StampBar';
import { wherePath } from '../paths';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Halves, Page } from '../ui/Page';
import { usePart } from '../ui/usePart';
import { DraftForm } from '../ui/DraftForm';
import { useDraft } from '../ui/useDraft';
import { count } from '../../core/text/sentences';

// The editor is large, and wanted only where something is written.
const richPart = () => import('../writing/RichText');
const always = true;

interface AccountFormProps {
  draft: Account;
  /** What is wrong with it; null where it can be saved. */
  error: string | null;
  onChange: (draft: Account) => void;
  onSave: () => void;
  onLeave: () => void;
}

/** An account as it is typed. */
function AccountForm({ draft, error, onChange, onSave, onLeave }: AccountFormProps) {
  const Rich = usePart(richPart, always)?.RichText;
  return (
    <DraftForm error={error} save="Save" onSave={onSave} onLeave={onLeave}>
      <label className="flex flex-col text-sm">
        Name, as others see it
        <input
          className="input input-sm w-full"
          autoFocus
          maxLength={100}
          value={draft.name}
          onChange={(event) => onChange({ ...draft, name: event.target.value })}
        />
      </label>
      <label className="flex flex-col text-sm">
        Address
        <input
          className="input input-sm w-full font-mono"
          autoComplete="off"
          spellCheck={false}
          value={draft.address}
          onChange={(event) => onChange({ ...draft, address: addressKey(event.target.value) })}
        />
      </label>
      <div className="flex flex-col text-sm">
        <span>Signature, below what is written from it</span>
        {Rich && (
          <Rich
            key={draft.id}
            name="Signature"
            html={draft.signature ?? ''}
            onChange={(signature) => onChange({ ...draft, signature })}
          />
        )}
      </div>
    </DraftForm>
  );
}

/** What each account has in the Inbox, and what is found under none of them. */
function InTheInbox({ overview: { setup, accounts } }: { overview: Overview }) {
  const rows = accounts
    .map((its) => ({ ...its, name: setup.accounts.find(({ id }) => id === its.account)?.name ?? 'To none of them' }))
    .filter(({ account, total }) => account !== noAccount || total > 0);
  return (
    <section aria-label="In the Inbox">
      <h2 className="mb-2 font-semibold">In the Inbox</h2>
      {setup.accounts.length === 0 ? (
        <p className="quiet">All mail is shown together.</p>
      ) : (
        <>
          <table className="table table-sm">
            <thead>
              <tr>
                <th>Account</th>
                <th className="text-right">In all</th>
                <th className="text-right">Unread</th>
              </tr>
            </thead>
            <tbody>
              {rows.map(({ account, name, total, unread }) => (
                <tr key={account}>
                  <td className="[overflow-wrap:anywhere]">
                    <Link
                      className="link"
                      to={wherePath({
                        view: { kind: 'place', place: 'inbox' },
                        message: null,
                        show: null,
                        account,
                        lanes: false,
                      })}
                    >
                      {name}
                    </Link>
                  </td>
                  <td className="text-right tabular-nums">{count(total)}</td>
                  <td className="text-right tabular-nums">{count(unread)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="quiet mt-2 text-sm">
            Mail to two of your addresses is found under both. What came by a list or as a blind copy may name none.
          </p>
        </>
      )}
    </section>
  );
}

/** The person's own addresses and the shared ones that they look after. */
export function AccountsPage() {
  const overview = useMailbox((s) => s.overview);
  const { draft, setDraft, close } = useDraft<Account>();
  if (!overview) return null;
  const { setup } = overview;
  const others = setup.accounts.filter((a) => a.id !== draft?.id);
  const error = draft && accountTrouble(draft, others);
  const edit = async (id: string, item: Account | null, says: string) => {
    if (tellOutcome(await mailroom.editSetup(commandId(), [{ list: 'accounts', id, item }], says, false))) close(id);
  };
  return (
    <Page
      title="Accounts"
      acts={
        <>
          <UndoSpot />
          <button
            className="btn btn-primary btn-sm"
            onClick={() => setDraft({ id: commandId(), name: '', address: '' })}
          >
            Add an account
          </button>
        </>
      }
    >
      <Halves
        left={
          <>
            <p className="max-w-prose">
              Your own addresses, and shared ones that you look after. Wide Sort tells by them which mail came to you
              alone, what you sent yourself, and from where to answer.
            </p>
            <ul className="flex flex-col gap-2">
              {setup.accounts.map((account) => (
                <li key={account.id} className="flex items-center gap-2 rounded border border-base-300 px-3 py-2">
                  <div className="min-w-0 flex-1">
                    <p className="font-semibold">{account.name}</p>
                    <p className="truncate font-mono text-sm">{account.address}</p>
                  </div>
                  <button className="btn btn-ghost btn-sm" onClick={() => setDraft(account)}>
                    Change
                  </button>
                  <button
                    className="btn btn-ghost btn-sm"
                    onClick={() => void edit(account.id, null, `Took the account ${account.address} off`)}
                    aria-label={`Take off ${account.name}`}
                  >
                    Take off
                  </button>
                </li>
              ))}
            </ul>
            {setup.accounts.length === 0 && !draft && <p className="quiet">No account yet.</p>}
            {draft && (
              <AccountForm
                draft={draft}
                error={error}
                onChange={setDraft}
                onSave={() => void edit(draft.id, draft, `Set the account ${draft.address}`)}
                onLeave={() => setDraft(null)}
              />
            )}
          </>
        }
        right={<InTheInbox overview={overview} />}
      />
    </Page>
  );
}
