import { FileCode2, Plus, TriangleAlert } from 'lucide-react';
import { Link } from 'react-router';
import type { Setup } from '../../core/line/setup';
import type { Contradiction } from '../../core/rules/reach';
import type { Rule } from '../../core/rules/rule';
import { ruleName, ruleSentence } from '../../core/rules/ruleWords';
import type { SetupEdit } from '../../core/line/setupEdit';
import type { RuleSetReport } from '../../mailroom/border/rules';
import { mailroom } from '../../mailroom/client';
import { UndoSpot } from '../desk/StampBar';
import { useDryRun } from '../dryrun/useDryRun';
import { Oddities } from './Oddities';
import { DryRunPanel } from '../dryrun/DryRunPanel';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Halves, Page } from '../ui/Page';
import { MoveButtons, SortableItem, SortableList } from '../ui/Sortable';
import { count, messages } from '../../core/text/sentences';

type RuleReport = RuleSetReport['rules'][number];

const rulePath = (id: string) => `/rules/${encodeURIComponent(id)}`;

function RuleLink({ id, setup }: { id: string; setup: Setup }) {
  const rule = setup.rules.find((one) => one.id === id);
  return rule ? (
    <Link className="link" to={rulePath(id)}>
      {ruleName(rule, setup)}
    </Link>
  ) : (
    <>a rule that is gone</>
  );
}

/** What a rule does with the mail here, and the way to what it did. */
function Reported({ report, setup }: { report: RuleReport; setup: Setup }) {
  return (
    <p className="quiet text-sm tabular-nums">
      Matches {messages(report.matches)} here
      {report.acts < report.matches && `, acts on ${count(report.acts)}`}
      {report.lostTo.length > 0 && (
        <>
          ;{' '}
          {report.lostTo.slice(0, 3).map(({ rule: id, count: lost }, i) => (
            <span key={id}>
              {i > 0 && ', '}
              {count(lost)} taken before by “<RuleLink id={id} setup={setup} />”
            </span>
          ))}
        </>
      )}
      .{' '}
      <Link className="link" to={`/logbook?${new URLSearchParams({ by: `rule:${report.id}` }).toString()}`}>
        What it did
      </Link>
    </p>
  );
}

interface RuleItemProps {
  rule: Rule;
  at: number;
  setup: Setup;
  report: RuleReport | null;
  contradictions: Contradiction[];
  onMove: (to: number) => void;
  edit: (edits: SetupEdit[], says: string) => Promise<boolean>;
}

function RuleItem({ rule, at, setup, report, contradictions, onMove, edit }: RuleItemProps) {
  const name = ruleName(rule, setup);
  return (
    <SortableItem id={rule.id} name={name} className={`items-start rounded-box px-2 py-2 ${rule.on ? '' : 'quiet'}`}>
      <span className="quiet w-5 pt-0.5 text-right tabular-nums">{at + 1}</span>
      <div className="min-w-52 flex-1">
        <Link className="link font-semibold" to={rulePath(rule.id)}>
          {name}
        </Link>
        <p className="text-sm">{ruleSentence(rule, setup)}</p>
        {report && rule.on && <Reported report={report} setup={setup} />}
        {report && (
          <Oddities
            never={report.never}
            under={contradictions}
            naming={(id) => (
              <>
                “<RuleLink id={id} setup={setup} />”
              </>
            )}
          />
        )}
      </div>
      <div className="ml-auto flex items-center">
        <label className="mr-1 flex items-center gap-1.5 text-sm">
          <input
            type="checkbox"
            className="toggle toggle-sm"
            checked={rule.on}
            aria-label={`Rule “${name}” is on`}
            onChange={(e) =>
              void edit(
                [{ list: 'rules', id: rule.id, item: { ...rule, on: e.target.checked } }],
                `Turned the rule “${name}” ${e.target.checked ? 'on' : 'off'}`,
              )
            }
          />
          {rule.on ? 'on' : 'off'}
        </label>
        <MoveButtons name={name} at={at} of={setup.rules.length} onMove={onMove} />
        <button
          className="btn btn-ghost btn-xs"
          aria-label={`Take off “${name}”`}
          onClick={() => void edit([{ list: 'rules', id: rule.id, item: null }], `Took the rule “${name}” off`)}
        >
          Take off
        </button>
      </div>
    </SortableItem>
  );
}

interface RuleListProps {
  setup: Setup;
  /** Null until it is counted. */
  report: RuleSetReport | null;
  onMove: (rule: Rule, to: number) => void;
  edit: (edits: SetupEdit[], says: string) => Promise<boolean>;
}

/** The rules, dragged into another order. */
function RuleList({ setup, report, onMove, edit }: RuleListProps) {
  const { rules } = setup;
  return (
    <SortableList
      label="Rules in their order"
      ids={rules.map(({ id }) => id)}
      className="gap-2"
      onMove={(from, to) => onMove(rules[from], to)}
    >
      {rules.map((rule, at) => (
        <RuleItem
          key={rule.id}
          rule={rule}
          at={at}
          setup={setup}
          report={report?.rules.find(({ id }) => id === rule.id) ?? null}
          contradictions={report?.contradictions.filter(({ second }) => second === rule.id) ?? []}
          onMove={(to) => onMove(rule, to)}
          edit={edit}
        />
      ))}
    </SortableList>
  );
}

/** The rules in the order in which they are asked, and what the whole set does with the mail here. */
export function RulesPage() {
  const setup = useMailbox((s) => s.overview?.setup);
  const revision = useMailbox((s) => s.revision);
  const answer = useDryRun((most) => mailroom.ruleSetReport([], most), `${revision}`, 60);
  if (!setup) return null;
  const edit = async (edits: SetupEdit[], says: string) =>
    tellOutcome(await mailroom.editSetup(commandId(), edits, says, false));
  const { rules } = setup;
  const move = (rule: Rule, to: number) =>
    void edit([{ list: 'rules', id: rule.id, item: rule, at: to }], `Moved the rule “${ruleName(rule, setup)}”`);
  const report = answer.value;
  const odd = report?.rules.filter(({ never }) => never).length ?? 0;
  return (
    <Page
      title="Rules"
      acts={
        <>
          <UndoSpot />
          <Link className="btn btn-ghost btn-sm" to="/rules/sieve">
            <FileCode2 size={16} aria-hidden /> As a Sieve script
          </Link>
          <Link className="btn btn-primary btn-sm" to="/rules/new">
            <Plus size={16} aria-hidden /> New rule
          </Link>
        </>
      }
    >
      {rules.length === 0 ? (
        <p className="max-w-prose">
          No rules yet. Open a message and press <strong>Sort mail like this</strong>, make a{' '}
          <Link className="link" to="/rules/new">
            new rule
          </Link>
          , or{' '}
          <Link className="link" to="/rules/sieve">
            bring a Sieve script
          </Link>
          .
        </p>
      ) : (
        <Halves
          wide
          left={
            <>
              <p className="max-w-prose text-sm">
                Rules are asked from the top. The first that moves a message takes it, and those below are not asked.
              </p>
              {odd > 0 && (
                <p className="flex items-center gap-2 text-sm font-semibold text-accent">
                  <TriangleAlert size={16} aria-hidden /> {odd === 1 ? 'One rule is' : `${odd} rules are`} never
                  reached.
                </p>
              )}
              <RuleList setup={setup} report={report} onMove={move} edit={edit} />
            </>
          }
          right={
            <div className="flex flex-col gap-3">
              <DryRunPanel
                answer={{ ...answer, value: report && { ok: true, report: report.here } }}
                setup={setup}
                none="The mail here stands as the rules would have it. Mail that you placed by hand stays where it is."
              />
              {report && report.here.total > 0 && (
                <button
                  className="btn self-start btn-primary"
                  onClick={() => void mailroom.runRules(commandId()).then((outcome) => tellOutcome(outcome))}
                >
                  Run the rules over the mail here: {messages(report.here.total)}
                </button>
              )}
              <p className="quiet text-sm">
                A change of a rule counts for mail to come, until they are run over the mail here.
              </p>
            </div>
          }
        />
      )}
    </Page>
  );
}
