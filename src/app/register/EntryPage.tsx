import { useState } from 'react';
import { useLocation, useParams, useSearchParams } from 'react-router';
import type { Setup } from '../../core/line/setup';
import {
  entryWords,
  parseEntry,
  parseEntryOf,
  sameEntry,
  type Entry,
  type Standing,
} from '../../core/senders/register';
import type { SetupEdit } from '../../core/line/setupEdit';
import { mailroom } from '../../mailroom/client';
import { useDryRun } from '../dryrun/useDryRun';
import { DryRunPanel } from '../dryrun/DryRunPanel';
import { RunHere } from '../dryrun/RunHere';
import { SaveSorted } from '../dryrun/SaveSorted';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Halves, Page } from '../ui/Page';
import { useAnswer } from '../ui/useAnswer';
import { useLeave } from '../ui/useLeave';
import { EntryFields } from './EntryFields';
import { aboutWords, editsOf, entryKindOf, entryOf, firstDraft, stamped, type EntryDraft } from './entryDraft';
import { Guards } from './Guards';
import { Form } from '../ui/Form';
import { TakeOffDialog } from './TakeOffDialog';

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

/** What an entry would do to the mail here, and what speaks against it. */
function useEntryChecks(entry: Entry | null, edits: SetupEdit[], error: string) {
  const revision = useMailbox((s) => s.revision);
  const asked = `${JSON.stringify(edits)} ${revision} ${error}`;
  const answer = useDryRun(
    (most) => (entry ? mailroom.dryRun(edits, null, undefined, most) : Promise.resolve({ ok: false as const, error })),
    asked,
    80,
  );
  const check = useAnswer(() => (entry ? mailroom.entryGuards([entry]) : Promise.resolve([])), asked, 80);
  return { answer, check };
}

function StandingChoice({ standing, onChange }: { standing: Standing; onChange: (standing: Standing) => void }) {
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">Standing</legend>
      {(
        [
          ['blocked', 'Blocked', 'its mail goes to Junk'],
          ['safe', 'Safe', 'its mail is never Junk'],
        ] as const
      ).map(([its, name, what]) => (
        <label key={its} className="flex items-center gap-2 py-0.5">
          <input
            type="radio"
            name="standing"
            className="radio radio-sm"
            checked={standing === its}
            onChange={() => onChange(its)}
          />
          <span>
            <strong>{name}</strong>: {what}
          </span>
        </label>
      ))}
    </fieldset>
  );
}

function WhyField({ why, onChange }: { why: string; onChange: (why: string) => void }) {
  return (
    <div>
      <label htmlFor="entry-why" className="mb-1 block font-semibold">
        Why <span className="quiet font-normal">(for you, later)</span>
      </label>
      <input
        id="entry-why"
        className="input w-full"
        maxLength={500}
        value={why}
        onChange={(e) => onChange(e.target.value)}
      />
    </div>
  );
}

function EntryEditor({ old, setup }: { old: Entry | null; setup: Setup }) {
  const [search] = useSearchParams();
  const leaveTo = useLeave();
  const location = useLocation();
  const from = search.get('from');
  const message = useAnswer(() => (from ? mailroom.open(Number(from), true) : Promise.resolve(null)), from ?? '');
  const [newId] = useState(commandId);
  const [draft, setDraft] = useState<EntryDraft>(() => firstDraft(old, search));
  const [runHere, setRunHere] = useState(true);
  const [sure, setSure] = useState(false);
  const [saving, setSaving] = useState(false);
  const [takingOff, setTakingOff] = useState(false);
  const { about } = draft;

  const read = about.kind === 'sender' ? parseEntry(about.typed) : parseEntryOf(about.kind, about.typed);
  const kind = entryKindOf(about.kind, read);
  const twin = read.ok ? sameEntry(setup.register, kind, read.value) : null;
  const entry = entryOf(draft, read, { old, twin, newId, from });
  const edits = editsOf(entry, old);
  const { answer, check } = useEntryChecks(entry, edits, read.ok ? '' : read.error);
  const guards = check.value ?? [];

  // Back to where the person came from, if that was a view of ours: a copied link opened here has none behind it.
  const leave = () => leaveTo(location.key === 'default' ? '/register' : -1);
  const save = async () => {
    if (!entry) return;
    setSaving(true);
    const says = `${draft.standing === 'blocked' ? 'Blocked' : 'Marked as safe'} ${entryWords(entry)}`;
    const outcome = await mailroom.editSetup(commandId(), stamped(edits, Date.now()), says, runHere);
    setSaving(false);
    if (tellOutcome(outcome)) leave();
  };

  return (
    <Page title={old ? `Entry: ${entryWords(old)}` : 'New entry in the Register'}>
      <Halves
        left={
          <Form className="flex flex-col gap-4" onSubmit={() => void save()}>
            <EntryFields
              about={about}
              read={read}
              says={read.ok ? aboutWords(kind, read.value, about, twin?.id === old?.id ? null : twin) : ''}
              from={{ address: search.get('value') ?? '', listId: message.value?.listId ?? '' }}
              own={setup.accounts.map(({ address }) => address)}
              onChange={(next) => {
                setDraft({ ...draft, about: next });
                setSure(false);
              }}
            />
            <StandingChoice standing={draft.standing} onChange={(standing) => setDraft({ ...draft, standing })} />
            <WhyField why={draft.why} onChange={(why) => setDraft({ ...draft, why })} />
            <RunHere on={runHere} onChange={setRunHere} />
            <Guards list={guards} sure={sure} onSure={setSure} />
            <div className="flex flex-wrap gap-2">
              <SaveSorted
                word={draft.standing === 'blocked' ? 'Block' : 'Mark as safe'}
                runHere={runHere}
                answer={answer}
                disabled={!entry || saving || check.waiting || (guards.length > 0 && !sure)}
              />
              <button type="button" className="btn btn-ghost" onClick={leave}>
                Cancel
              </button>
              {old && (
                <button type="button" className="btn ml-auto btn-ghost" onClick={() => setTakingOff(true)}>
                  Take off …
                </button>
              )}
            </div>
          </Form>
        }
        right={
          <DryRunPanel
            answer={answer}
            setup={setup}
            none="No message here would change. Mail that you placed by hand stays where you put it."
          />
        }
      />
      {takingOff && old && <TakeOffDialog entry={old} onClose={() => setTakingOff(false)} onDone={leave} />}
    </Page>
  );
}
