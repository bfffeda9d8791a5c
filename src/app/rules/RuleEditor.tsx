import { Plus, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { placeName } from '../../core/mail/place';
import {
  conditionFields,
  conditionWords,
  fieldWords,
  ruleName,
  type Condition,
  type Rule,
} from '../../core/rules/rule';
import type { Setup } from '../../core/line/setup';
import { mailroom } from '../../mailroom/client';
import { DryRunPanel } from '../dryrun/DryRunPanel';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/mailbox';
import { Halves, Page } from '../ui/Page';
import { useAnswer } from '../ui/useAnswer';
import { messages, movablePlaces } from '../ui/words';
import { draftOf, emptyDraft, newOne, readDraft, suggestions, type RuleDraft } from './draft';

/** A rule, new or there already: left what it says, right what it does to the mail here. */
export function RuleEditor() {
  const { rule: id } = useParams();
  const [search] = useSearchParams();
  const setup = useMailbox((s) => s.overview?.setup);
  if (!setup) return null;
  const old = setup.rules.find((r) => r.id === id) ?? null;
  if (id && !old)
    return (
      <Page title="Rule">
        <p>This rule is not there any more.</p>
      </Page>
    );
  return <Editor key={id ?? 'new'} old={old} setup={setup} from={search.get('from')} />;
}

function Editor({ old, setup, from }: { old: Rule | null; setup: Setup; from: string | null }) {
  const navigate = useNavigate();
  const revision = useMailbox((s) => s.revision);
  const [ids] = useState(() => ({ rule: old?.id ?? commandId(), folder: commandId(), label: commandId() }));
  const [draft, setDraft] = useState<RuleDraft>(old ? draftOf(old) : emptyDraft);
  const [proposed, setProposed] = useState<Condition[]>([]);
  const [runHere, setRunHere] = useState(true);
  const [saving, setSaving] = useState(false);
  const set = (part: Partial<RuleDraft>) => setDraft((d) => ({ ...d, ...part }));

  useEffect(() => {
    if (from === null) return;
    void mailroom.open(Number(from), true).then((message) => {
      if (!message) return;
      const list = suggestions(message);
      setProposed(list);
      setDraft((d) => (d.when.some((c) => c.contains) || !list[0] ? d : { ...d, when: [list[0]] }));
    });
  }, [from]);

  const read = readDraft(draft, setup, ids);
  const edits = read.ok ? read.edits : [];
  const answer = useAnswer(
    () =>
      read.ok ? mailroom.dryRun(read.edits, ids.rule) : Promise.resolve({ ok: false as const, error: read.error }),
    `${JSON.stringify(edits)} ${revision} ${read.ok ? '' : read.error}`,
    120,
  );
  const total = answer.value?.ok ? answer.value.report.total : 0;
  const leave = () => void navigate('/rules');

  const save = async () => {
    if (!read.ok) return;
    setSaving(true);
    const says = `${old ? 'Changed' : 'Made'} the rule “${ruleName(read.rule)}”`;
    const outcome = await mailroom.editSetup(commandId(), read.edits, says, runHere);
    setSaving(false);
    if (tellOutcome(outcome)) leave();
  };
  const setCondition = (at: number, part: Partial<Condition>) =>
    set({ when: draft.when.map((c, i) => (i === at ? { ...c, ...part } : c)) });
  const unused = proposed.filter((p) => !draft.when.some((c) => c.field === p.field && c.contains === p.contains));

  return (
    <Page title={old ? ruleName(old) : 'New rule'}>
      <Halves
        left={
          <form
            className="flex flex-col gap-5"
            onSubmit={(e) => {
              e.preventDefault();
              void save();
            }}
          >
            <fieldset className="flex flex-col gap-2">
              <legend className="mb-1 flex items-center gap-2 font-semibold">
                When
                {draft.when.length > 1 && (
                  <select
                    aria-label="How many of the conditions"
                    className="select w-auto font-normal select-sm"
                    value={draft.match}
                    onChange={(e) => set({ match: e.target.value === 'any' ? 'any' : 'all' })}
                  >
                    <option value="all">all of these hold</option>
                    <option value="any">any of these holds</option>
                  </select>
                )}
              </legend>
              {draft.when.map((condition, at) => (
                <div key={at} className="flex items-center gap-2">
                  <select
                    aria-label="What it looks at"
                    className="select w-32 shrink-0 select-sm"
                    value={condition.field}
                    onChange={(e) => {
                      const field = conditionFields.find((f) => f === e.target.value);
                      if (field) setCondition(at, { field });
                    }}
                  >
                    {conditionFields.map((field) => (
                      <option key={field} value={field}>
                        {fieldWords[field]}
                      </option>
                    ))}
                  </select>
                  <span className="text-sm">contains</span>
                  <input
                    aria-label={`Text in ${fieldWords[condition.field]}`}
                    className="input input-sm min-w-0 flex-1"
                    value={condition.contains}
                    maxLength={500}
                    onChange={(e) => setCondition(at, { contains: e.target.value })}
                  />
                  {draft.when.length > 1 && (
                    <button
                      type="button"
                      className="btn btn-square btn-ghost btn-xs"
                      aria-label="Take this condition off"
                      onClick={() => set({ when: draft.when.filter((_, i) => i !== at) })}
                    >
                      <X size={14} />
                    </button>
                  )}
                </div>
              ))}
              <div className="flex flex-wrap gap-2">
                <button
                  type="button"
                  className="btn btn-outline btn-xs"
                  onClick={() => set({ when: [...draft.when, { field: 'from', contains: '' }] })}
                >
                  <Plus size={14} aria-hidden /> Condition
                </button>
                {unused.map((condition) => (
                  <button
                    key={conditionWords(condition)}
                    type="button"
                    className="btn h-auto min-h-6 max-w-full py-0.5 text-left font-normal btn-ghost btn-xs"
                    onClick={() => set({ when: [...draft.when.filter((c) => c.contains), condition] })}
                  >
                    <Plus size={14} aria-hidden />
                    <span className="truncate">{conditionWords(condition)}</span>
                  </button>
                ))}
              </div>
            </fieldset>
            <fieldset className="flex flex-col gap-2">
              <legend className="mb-1 font-semibold">Then</legend>
              <div className="grid grid-cols-[6.5rem_1fr] items-center gap-2">
                <label htmlFor="rule-move">move it to</label>
                <select
                  id="rule-move"
                  className="select w-full select-sm"
                  value={draft.move}
                  onChange={(e) => set({ move: e.target.value })}
                >
                  <option value="">nowhere: it goes on to the Inbox</option>
                  {movablePlaces(setup).map((place) => (
                    <option key={place} value={place}>
                      {placeName(place, setup.folders)}
                    </option>
                  ))}
                  <option value={newOne}>a new folder …</option>
                </select>
                {draft.move === newOne && (
                  <>
                    <label htmlFor="rule-folder">called</label>
                    <input
                      id="rule-folder"
                      className="input w-full input-sm"
                      maxLength={100}
                      value={draft.newFolder}
                      onChange={(e) => set({ newFolder: e.target.value })}
                    />
                  </>
                )}
                <label htmlFor="rule-label">label it</label>
                <select
                  id="rule-label"
                  className="select w-full select-sm"
                  value={draft.label}
                  onChange={(e) => set({ label: e.target.value })}
                >
                  <option value="">with nothing</option>
                  {setup.labels.map((label) => (
                    <option key={label.id} value={label.id}>
                      {label.name}
                    </option>
                  ))}
                  <option value={newOne}>a new label …</option>
                </select>
                {draft.label === newOne && (
                  <>
                    <label htmlFor="rule-new-label">called</label>
                    <input
                      id="rule-new-label"
                      className="input w-full input-sm"
                      maxLength={100}
                      value={draft.newLabel}
                      onChange={(e) => set({ newLabel: e.target.value })}
                    />
                  </>
                )}
              </div>
              <label className="flex items-center gap-2">
                <input
                  type="checkbox"
                  className="checkbox checkbox-sm"
                  checked={draft.read}
                  onChange={(e) => set({ read: e.target.checked })}
                />
                mark it read
              </label>
            </fieldset>
            <div>
              <label htmlFor="rule-name" className="mb-1 block font-semibold">
                Name
              </label>
              <input
                id="rule-name"
                className="input w-full input-sm"
                maxLength={200}
                value={draft.name}
                placeholder={read.ok ? ruleName({ ...read.rule, name: '' }) : 'named by its conditions'}
                onChange={(e) => set({ name: e.target.value })}
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
              <button className="btn btn-primary" disabled={!read.ok || saving}>
                Save the rule
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
            setup={{
              ...setup,
              folders: [...setup.folders, { id: ids.folder, name: draft.newFolder.trim() || 'the new folder' }],
            }}
            none="No message here would change. Mail that you placed by hand, or that an earlier station takes, stays where it is."
          />
        }
      />
    </Page>
  );
}
