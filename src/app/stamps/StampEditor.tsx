import { useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import type { Setup } from '../../core/line/setup';
import { ruleName } from '../../core/rules/ruleWords';
import { rulesRunning } from '../../core/rules/stampsRun';
import { inks } from '../../core/mail/label';
import { stampIcons, stampSchema, stampTrouble, stampWords, whyNoRule, type Stamp } from '../../core/stamps/stamp';
import { messages } from '../../core/text/sentences';
import { mailroom } from '../../mailroom/client';
import { commandId, tellOutcome, useChosen } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Form } from '../ui/Form';
import { Halves, Page } from '../ui/Page';
import { useLeave } from '../ui/useLeave';
import { useRecentActs } from './recentActs';
import { StampActs } from './StampActs';
import { StampMark } from './stampIcon';
import { StampTry } from './StampTry';

/** A stamp, new or there already: left what it does, right what it would do to what is chosen on the desk. */
export function StampEditor() {
  const { stamp: id } = useParams();
  const [search] = useSearchParams();
  const setup = useMailbox((s) => s.overview?.setup);
  if (!setup) return null;
  const old = setup.stamps.find((stamp) => stamp.id === id) ?? null;
  if (id && !old)
    return (
      <Page title="Stamp">
        <p>This stamp is not there any more.</p>
      </Page>
    );
  return (
    <Editor key={id ?? `new ${search.toString()}`} old={old} setup={setup} recent={search.get('from') === 'recent'} />
  );
}

/** The stamp of a draft, or what it still lacks, in a sentence. */
function readStamp(draft: Stamp, setup: Setup): { ok: true; stamp: Stamp } | { ok: false; error: string } {
  const name = draft.name.trim();
  if (name === '') return { ok: false, error: 'Give the stamp a short name.' };
  if (setup.stamps.some((other) => other.id !== draft.id && other.name.toLowerCase() === name.toLowerCase()))
    return { ok: false, error: `There is a stamp “${name}” already: it needs another name.` };
  if (draft.acts.length === 0) return { ok: false, error: 'Say what the stamp should do.' };
  const trouble = stampTrouble(draft);
  if (trouble) return { ok: false, error: trouble };
  const read = stampSchema.safeParse({ ...draft, name });
  if (!read.success) return { ok: false, error: read.error.issues[0].message };
  const [running] = rulesRunning(setup.rules, draft.id);
  const whyNot = running ? whyNoRule(read.data, setup) : null;
  return whyNot
    ? { ok: false, error: `The rule “${ruleName(running, setup)}” runs it. ${whyNot}` }
    : { ok: true, stamp: read.data };
}

interface LooksProps extends Pick<Stamp, 'icon' | 'ink'> {
  onChange: (part: Partial<Pick<Stamp, 'icon' | 'ink'>>) => void;
}

/** Its icon and its ink. */
function Looks({ icon, ink, onChange }: LooksProps) {
  return (
    <>
      <fieldset>
        <legend className="mb-1 font-semibold">Icon</legend>
        <div className="flex flex-wrap gap-1">
          {stampIcons.map((one) => (
            <label
              key={one}
              title={one}
              className="btn btn-square btn-ghost btn-sm has-checked:btn-outline has-focus-visible:outline-2"
            >
              <input
                type="radio"
                name="stamp-icon"
                className="sr-only"
                aria-label={one}
                checked={icon === one}
                onChange={() => onChange({ icon: one })}
              />
              <StampMark icon={one} />
            </label>
          ))}
        </div>
      </fieldset>
      <label className="flex items-center gap-2">
        <span className="font-semibold">Ink</span>
        <select
          className="select w-auto select-sm"
          value={ink ?? ''}
          onChange={(event) => onChange({ ink: inks.find((one) => one === event.target.value) ?? null })}
        >
          <option value="">none</option>
          {inks.map((ink) => (
            <option key={ink} value={ink}>
              {ink}
            </option>
          ))}
        </select>
        {ink && <span className={`ink ink-${ink}`}>{ink}</span>}
      </label>
    </>
  );
}

function Editor({ old, setup, recent }: { old: Stamp | null; setup: Setup; recent: boolean }) {
  const leaveTo = useLeave();
  const chosen = useChosen((s) => s.ids);
  const done = useRecentActs((s) => s.acts);
  const [draft, setDraft] = useState<Stamp>(
    () => old ?? { id: commandId(), name: '', icon: 'stamp', ink: null, acts: recent ? [...done] : [] },
  );
  const set = (part: Partial<Stamp>) => setDraft((one) => ({ ...one, ...part }));
  const read = readStamp(draft, setup);
  const save = async () => {
    if (!read.ok) return;
    const says = `${old ? 'Changed' : 'Made'} the stamp “${read.stamp.name}”`;
    const edit = { list: 'stamps' as const, id: read.stamp.id, item: read.stamp };
    if (tellOutcome(await mailroom.editSetup(commandId(), [edit], says, false))) leaveTo('/stamps');
  };
  return (
    <Page title={old ? old.name : recent ? 'A stamp of what was done' : 'New stamp'}>
      <Halves
        left={
          <Form className="flex flex-col gap-4" onSubmit={() => void save()}>
            <div>
              <label htmlFor="stamp-name" className="mb-1 block font-semibold">
                Name
              </label>
              <input
                id="stamp-name"
                className="input w-full input-sm"
                maxLength={40}
                autoFocus={!old}
                value={draft.name}
                onChange={(event) => set({ name: event.target.value })}
              />
            </div>
            <StampActs acts={draft.acts} setup={setup} onChange={(acts) => set({ acts })} />
            <Looks icon={draft.icon} ink={draft.ink} onChange={set} />
            {draft.acts.length > 0 && (
              <p className="border-l-4 border-primary bg-base-200 px-3 py-2 text-sm">
                {stampWords(draft, setup)[0].toUpperCase()}
                {stampWords(draft, setup).slice(1)}.
              </p>
            )}
            {!read.ok && <p className="text-sm">{read.error}</p>}
            <div className="flex gap-2">
              <button className="btn btn-primary" disabled={!read.ok}>
                Save the stamp
              </button>
              <button type="button" className="btn btn-ghost" onClick={() => leaveTo('/stamps')}>
                Cancel
              </button>
            </div>
          </Form>
        }
        right={
          chosen.length > 0 && draft.acts.length > 0 ? (
            <>
              <h2 className="mb-2 font-semibold">On what is chosen on the desk: {messages(chosen.length)}</h2>
              <StampTry stamp={{ ...draft, name: draft.name.trim() || 'This stamp' }} ids={chosen} setup={setup} />
            </>
          ) : (
            <p className="quiet max-w-prose">
              Open a message on the desk, or tick some: what this stamp would do to them stands here.
            </p>
          )
        }
      />
    </Page>
  );
}
