import { useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { domainOf } from '../../core/mail/address';
import type { Setup } from '../../core/line/setup';
import { parseEntry, sameEntry, type Entry, type Standing } from '../../core/senders/register';
import type { SetupEdit } from '../../mailroom/api';
import { mailroom } from '../../mailroom/client';
import { DryRunPanel } from '../dryrun/DryRunPanel';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/mailbox';
import { Halves, Page } from '../ui/Page';
import { useAnswer } from '../ui/useAnswer';
import { messages } from '../ui/words';

interface Draft {
  typed: string;
  standing: Standing;
  why: string;
}

/** An entry of the Register, new or there already: what it decides, and what it would do to the mail here. */
export function EntryPage() {
  const { entry: id } = useParams();
  const setup = useMailbox((s) => s.overview?.setup);
  const [search] = useSearchParams();
  if (!setup) return null;
  const old = setup.register.find((e) => e.id === id) ?? null;
  if (id && !old)
    return (
      <Page title="Entry">
        <p>This entry is not in the Register any more.</p>
      </Page>
    );
  return <EntryEditor key={id ?? search.toString()} old={old} setup={setup} />;
}

function EntryEditor({ old, setup }: { old: Entry | null; setup: Setup }) {
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const revision = useMailbox((s) => s.revision);
  const from = search.get('from');
  const address = search.get('value') ?? '';
  const [newId] = useState(commandId);
  const [draft, setDraft] = useState<Draft>({
    typed: old?.value ?? address,
    standing: old?.standing ?? (search.get('standing') === 'safe' ? 'safe' : 'blocked'),
    why: old?.why ?? '',
  });
  const [runHere, setRunHere] = useState(true);
  const [saving, setSaving] = useState(false);

  const read = parseEntry(draft.typed);
  const twin = read.ok ? sameEntry(setup.register, read.kind, read.value) : null;
  const entry: Entry | null = read.ok
    ? {
        // One value has one entry: an entry for a value that is there already takes its place.
        id: twin?.id ?? old?.id ?? newId,
        kind: read.kind,
        value: read.value,
        standing: draft.standing,
        since: twin?.since ?? old?.since ?? 0,
        why: draft.why.trim() || (from ? 'From a message' : 'By hand'),
      }
    : null;
  const edits: SetupEdit[] = entry ? [{ list: 'register', id: entry.id, item: entry }] : [];
  if (entry && old && entry.id !== old.id) edits.unshift({ list: 'register', id: old.id, item: null });
  const answer = useAnswer(
    () =>
      entry ? mailroom.dryRun(edits, null) : Promise.resolve({ ok: false as const, error: read.ok ? '' : read.error }),
    `${JSON.stringify(edits)} ${revision} ${read.ok ? '' : read.error}`,
    80,
  );
  const total = answer.value?.ok ? answer.value.report.total : 0;
  const domain = domainOf(address);
  const word = draft.standing === 'blocked' ? 'Block' : 'Mark as safe';

  const leave = () => void (window.history.length > 1 ? navigate(-1) : navigate('/register'));
  const save = async () => {
    if (!entry) return;
    setSaving(true);
    const stamped: SetupEdit[] = edits.map((edit) =>
      edit.list === 'register' && edit.item
        ? { ...edit, item: { ...edit.item, since: edit.item.since || Date.now() } }
        : edit,
    );
    const says = `${draft.standing === 'blocked' ? 'Blocked' : 'Marked as safe'} ${entry.value}`;
    const outcome = await mailroom.editSetup(commandId(), stamped, says, runHere);
    setSaving(false);
    if (tellOutcome(outcome)) leave();
  };

  return (
    <Page title={old ? `Entry: ${old.value}` : 'New entry in the Register'}>
      <Halves
        left={
          <form
            className="flex flex-col gap-4"
            onSubmit={(e) => {
              e.preventDefault();
              void save();
            }}
          >
            <div>
              <label htmlFor="entry-value" className="mb-1 block font-semibold">
                Address or domain
              </label>
              <input
                id="entry-value"
                className="input w-full font-mono"
                value={draft.typed}
                autoComplete="off"
                spellCheck={false}
                aria-describedby="entry-value-says"
                aria-invalid={!read.ok}
                onChange={(e) => setDraft({ ...draft, typed: e.target.value })}
              />
              <p id="entry-value-says" className={`mt-1 text-sm ${read.ok ? 'quiet' : ''}`}>
                {!read.ok
                  ? read.error
                  : read.kind === 'address'
                    ? 'This one address.'
                    : `Every address at ${read.value} and at what lies below it.`}
                {twin &&
                  twin.id !== old?.id &&
                  ` It is in the Register already, as ${twin.standing === 'safe' ? 'Safe' : 'Blocked'}: this takes its place.`}
              </p>
              {address.includes('@') && domain && (
                <div className="mt-2 flex flex-wrap gap-2">
                  <button
                    type="button"
                    className="btn btn-outline btn-xs"
                    onClick={() => setDraft({ ...draft, typed: address })}
                  >
                    Only {address}
                  </button>
                  <button
                    type="button"
                    className="btn btn-outline btn-xs"
                    onClick={() => setDraft({ ...draft, typed: domain })}
                  >
                    All of {domain}
                  </button>
                </div>
              )}
            </div>
            <fieldset>
              <legend className="mb-1 font-semibold">Standing</legend>
              {(
                [
                  ['blocked', 'Blocked', 'its mail goes to Junk'],
                  ['safe', 'Safe', 'its mail is never Junk'],
                ] as const
              ).map(([standing, name, what]) => (
                <label key={standing} className="flex items-center gap-2 py-0.5">
                  <input
                    type="radio"
                    name="standing"
                    className="radio radio-sm"
                    checked={draft.standing === standing}
                    onChange={() => setDraft({ ...draft, standing })}
                  />
                  <span>
                    <strong>{name}</strong>: {what}
                  </span>
                </label>
              ))}
            </fieldset>
            <div>
              <label htmlFor="entry-why" className="mb-1 block font-semibold">
                Why <span className="quiet font-normal">(for you, later)</span>
              </label>
              <input
                id="entry-why"
                className="input w-full"
                maxLength={500}
                value={draft.why}
                onChange={(e) => setDraft({ ...draft, why: e.target.value })}
              />
            </div>
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                checked={runHere}
                onChange={(e) => setRunHere(e.target.checked)}
              />
              Sort the mail here by it too
            </label>
            <div className="flex gap-2">
              <button className="btn btn-primary" disabled={!entry || saving}>
                {word}
                {runHere && total > 0 && ` and sort ${messages(total)}`}
              </button>
              <button type="button" className="btn btn-ghost" onClick={leave}>
                Cancel
              </button>
            </div>
          </form>
        }
        right={
          <DryRunPanel
            answer={answer}
            setup={setup}
            none="No message here would change. Mail that you placed by hand stays where you put it."
          />
        }
      />
    </Page>
  );
}
