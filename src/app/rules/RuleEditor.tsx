import { Plus } from 'lucide-react';
import { useEffect, useState, type Dispatch, type SetStateAction } from 'react';
import { useParams, useSearchParams } from 'react-router';
import type { Setup } from '../../core/line/setup';
import { isGroup, type Condition, type Group, type Rule } from '../../core/rules/rule';
import { conditionWords, ruleName, ruleSentence } from '../../core/rules/ruleWords';
import type { RuleProposals } from '../../mailroom/border/rules';
import { mailroom } from '../../mailroom/client';
import { useDryRun } from '../dryrun/useDryRun';
import type { RuleReach } from '../../mailroom/border/rules';
import { Oddities } from './Oddities';
import { useAnswer } from '../ui/useAnswer';
import { DeliveryDryRun } from '../delivery/DeliveryDryRun';
import type { SetupEdit } from '../../core/line/setupEdit';
import type { WaitingWhere } from '../../mailroom/border/trays';
import { DryRunPanel } from '../dryrun/DryRunPanel';
import { RunHere } from '../dryrun/RunHere';
import { SaveSorted } from '../dryrun/SaveSorted';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Halves, Page } from '../ui/Page';
import { useLeave } from '../ui/useLeave';
import { count } from '../../core/text/sentences';
import { ActionFields } from './ActionFields';
import {
  countsOf,
  draftOf,
  emptyCondition,
  emptyDraft,
  isComplete,
  placesOf,
  readDraft,
  withNew,
  type RuleDraft,
} from './ruleDraft';
import { Form } from '../ui/Form';
import { GroupFields } from './GroupFields';
import { WouldSend } from './WouldSend';

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
  return <Editor key={id ?? `new ${search.get('from')}`} old={old} setup={setup} from={search.get('from')} />;
}

/** What a message proposes for a rule; the likeliest stands ready in a draft that is not begun. */
function useProposals(from: string | null, setDraft: Dispatch<SetStateAction<RuleDraft>>): RuleProposals | null {
  const [proposals, setProposals] = useState<RuleProposals | null>(null);
  useEffect(() => {
    if (from === null) return;
    void mailroom.ruleProposals(Number(from)).then((found) => {
      setProposals(found);
      const [first] = found.conditions;
      if (!first) return;
      // The likeliest rule stands there ready: one more press saves it.
      setDraft((d) => {
        const begun = d.then.length > 0 || d.when.of.some((part) => isGroup(part) || isComplete(part));
        if (begun) return d;
        return {
          ...d,
          when: { match: 'all', of: [first.condition] },
          then: [{ do: 'move', place: found.place ?? 'archive' }],
        };
      });
    });
  }, [from, setDraft]);
  return proposals;
}

interface FromTheMessageProps {
  proposals: RuleProposals | null;
  draft: RuleDraft;
  setup: Setup;
  onWhen: (when: Group) => void;
}

/** Conditions that the message proposes and that are not in the draft yet. */
function FromTheMessage({ proposals, draft, setup, onWhen }: FromTheMessageProps) {
  const asText = (condition: Condition) => JSON.stringify(condition);
  const present = new Set([...placesOf(draft)].map(({ condition }) => asText(condition)));
  const unused = proposals?.conditions.filter(({ condition }) => !present.has(asText(condition))) ?? [];
  const withCondition = (condition: Condition): Group => ({
    ...draft.when,
    of: [...draft.when.of.filter((part) => isGroup(part) || isComplete(part)), condition],
  });

  if (unused.length === 0) return null;
  return (
    <div className="flex flex-col items-start gap-1" role="group" aria-label="From the message">
      <span className="quiet text-sm">From the message:</span>
      {unused.map(({ condition, count: held }) => (
        <button
          key={asText(condition)}
          type="button"
          className="btn h-auto min-h-6 max-w-full py-0.5 text-left font-normal btn-ghost btn-xs"
          onClick={() => onWhen(withCondition(condition))}
        >
          <Plus size={14} aria-hidden />
          <span className="truncate">{conditionWords(condition, setup)}</span>
          <span className="quiet whitespace-nowrap tabular-nums">{count(held)} here</span>
        </button>
      ))}
    </div>
  );
}

interface UnlessProps {
  group: Group | null;
  setup: Setup;
  holds: (at: string) => number | null;
  onChange: (unless: Group | null) => void;
}

/** The group that keeps a rule from acting, where there is one. */
function Unless({ group, setup, holds, onChange }: UnlessProps) {
  if (!group)
    return (
      <button
        type="button"
        className="btn self-start btn-ghost btn-xs"
        onClick={() => onChange({ match: 'any', of: [emptyCondition('from', setup)] })}
      >
        <Plus size={14} aria-hidden /> Unless …
      </button>
    );
  return (
    <GroupFields
      word="Unless"
      group={group}
      setup={setup}
      holds={holds}
      onChange={onChange}
      onRemove={() => onChange(null)}
    />
  );
}

/** What is odd about the rule as it is written now. */
function Reach({
  reach: { never, contradictions, shadows },
  id,
  setup,
}: {
  reach: RuleReach;
  id: string;
  setup: Setup;
}) {
  const naming = (other: string) => {
    const rule = setup.rules.find((one) => one.id === other);
    return <strong>“{rule ? ruleName(rule, setup) : 'a rule that is gone'}”</strong>;
  };
  return (
    <Oddities
      never={never}
      under={contradictions.filter(({ second }) => second === id)}
      over={contradictions.filter(({ first }) => first === id)}
      shadows={shadows}
      naming={naming}
    />
  );
}

/** Of a rule that makes mail wait: what of the last weeks would have waited. */
function WouldWait({ rule, edits }: { rule: Rule; edits: SetupEdit[] }) {
  const tray = rule.then.find((action) => action.do === 'tray');
  const putsOff = rule.then.some((action) => action.do === 'putOff');
  return tray || putsOff ? (
    <Waits where={tray && !putsOff ? { in: 'tray', tray: tray.tray } : { in: 'put off' }} edits={edits} />
  ) : null;
}

function Waits({ where, edits }: { where: WaitingWhere; edits: SetupEdit[] }) {
  const revision = useMailbox((s) => s.revision);
  const answer = useAnswer(
    () => mailroom.deliveryDryRun(edits, where, 'rule waits'),
    `${JSON.stringify([edits, where])} ${revision}`,
    400,
  );
  return (
    <div className="mt-6">
      <DeliveryDryRun
        title="What would have waited"
        answer={answer}
        where={where.in === 'tray' ? 'in that tray' : 'until its moment'}
      />
    </div>
  );
}

interface NameFieldProps {
  name: string;
  /** What it is called without a name of its own. */
  otherwise: string;
  onChange: (name: string) => void;
}

function NameField({ name, otherwise, onChange }: NameFieldProps) {
  return (
    <div>
      <label htmlFor="rule-name" className="mb-1 block font-semibold">
        Name
      </label>
      <input
        id="rule-name"
        className="input w-full input-sm"
        maxLength={200}
        value={name}
        placeholder={otherwise}
        onChange={(e) => onChange(e.target.value)}
      />
    </div>
  );
}

function Editor({ old, setup, from }: { old: Rule | null; setup: Setup; from: string | null }) {
  const leaveTo = useLeave();
  const revision = useMailbox((s) => s.revision);
  const [ids] = useState(() => ({ rule: old?.id ?? commandId(), folder: commandId(), label: commandId() }));
  const [draft, setDraft] = useState<RuleDraft>(old ? draftOf(old) : emptyDraft);
  const [runHere, setRunHere] = useState(true);
  const [saving, setSaving] = useState(false);
  const set = (part: Partial<RuleDraft>) => setDraft((d) => ({ ...d, ...part }));

  const proposals = useProposals(from, setDraft);

  const read = readDraft(draft, setup, ids);
  const edits = read.ok ? read.edits : [];
  const answer = useDryRun(
    (most) =>
      read.ok
        ? mailroom.dryRun(read.edits, ids.rule, ids.rule, most)
        : Promise.resolve({ ok: false as const, error: read.error }),
    `${JSON.stringify(edits)} ${revision} ${read.ok ? '' : read.error}`,
    120,
  );
  const report = answer.value?.ok ? answer.value.report : null;
  // After the dry run, which is waited for: this is worked out once one pauses.
  const { value: reach } = useAnswer(
    () => (read.ok ? mailroom.ruleReach(read.edits, ids.rule) : Promise.resolve(null)),
    JSON.stringify(edits),
    400,
  );
  const counts = report && !answer.waiting ? countsOf(draft, report.conditions) : new Map<string, number>();
  const leave = () => leaveTo('/rules');

  const save = async () => {
    if (!read.ok) return;
    setSaving(true);
    const says = `${old ? 'Changed' : 'Made'} the rule “${ruleName(read.rule, setup)}”`;
    const outcome = await mailroom.editSetup(commandId(), read.edits, says, runHere);
    setSaving(false);
    if (tellOutcome(outcome)) leave();
  };
  return (
    <Page title={old ? ruleName(old, setup) : from === null ? 'New rule' : 'Sort mail like this'}>
      <Halves
        left={
          <Form className="flex flex-col gap-5" onSubmit={() => void save()}>
            <GroupFields
              word="When"
              group={draft.when}
              setup={setup}
              holds={(at) => counts.get(`when ${at}`) ?? null}
              onChange={(when) => set({ when })}
            />
            <FromTheMessage proposals={proposals} draft={draft} setup={setup} onWhen={(when) => set({ when })} />
            <Unless
              group={draft.unless}
              setup={setup}
              holds={(at) => counts.get(`unless ${at}`) ?? null}
              onChange={(unless) => set({ unless })}
            />
            <ActionFields draft={draft} setup={setup} ids={ids} onChange={set} />
            <NameField
              name={draft.name}
              otherwise={read.ok ? ruleName({ ...read.rule, name: '' }, setup) : 'named by its conditions'}
              onChange={(name) => set({ name })}
            />
            {read.ok && (
              <p className="border-l-4 border-primary bg-base-200 px-3 py-2 text-sm">
                {ruleSentence(read.rule, withNew(setup, draft, ids))}
              </p>
            )}
            {reach && <Reach reach={reach} id={ids.rule} setup={setup} />}
            <RunHere on={runHere} onChange={setRunHere} />
            <div className="flex gap-2">
              <SaveSorted word="Save the rule" runHere={runHere} answer={answer} disabled={!read.ok || saving} />
              <button type="button" className="btn btn-ghost" onClick={leave}>
                Cancel
              </button>
            </div>
          </Form>
        }
        right={
          <>
            <DryRunPanel
              answer={answer}
              setup={withNew(setup, draft, ids)}
              none="No message here would change. Mail that you placed by hand, or that an earlier station or rule takes, stays where it is."
            />
            {read.ok && <WouldSend rule={read.rule} edits={read.edits} />}
            {read.ok && <WouldWait rule={read.rule} edits={read.edits} />}
          </>
        }
      />
    </Page>
  );
}
