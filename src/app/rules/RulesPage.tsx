import { ArrowDown, ArrowUp, Plus } from 'lucide-react';
import { Link } from 'react-router';
import { placeName } from '../../core/mail/place';
import type { Setup } from '../../core/line/setup';
import { conditionWords, ruleName, type Rule } from '../../core/rules/rule';
import type { SetupEdit } from '../../mailroom/api';
import { mailroom } from '../../mailroom/client';
import { UndoSpot } from '../desk/StampBar';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/mailbox';
import { Page } from '../ui/Page';

/** A rule's actions in words: `moves it to Weather, labels it Alarm`. */
function actionWords(rule: Rule, setup: Setup): string {
  return rule.then
    .map((action) => {
      if (action.do === 'move') return `moves it to ${placeName(action.place, setup.folders)}`;
      if (action.do === 'label')
        return `labels it ${setup.labels.find((l) => l.id === action.label)?.name ?? '(a label that is gone)'}`;
      return 'marks it read';
    })
    .join(', ');
}

/** The rules in the order in which they are asked. */
export function RulesPage() {
  const setup = useMailbox((s) => s.overview?.setup);
  if (!setup) return null;
  const edit = async (edits: SetupEdit[], says: string) =>
    tellOutcome(await mailroom.editSetup(commandId(), edits, says, false));
  const { rules } = setup;
  return (
    <Page
      title="Rules"
      acts={
        <>
          <UndoSpot />
          <Link className="btn btn-primary btn-sm" to="/rules/new">
            <Plus size={16} aria-hidden /> New rule
          </Link>
        </>
      }
    >
      <p className="mb-4 max-w-prose">
        Rules are asked from the top. The first that moves a message takes it, and those below are not asked. A change
        here counts for mail to come; open a rule to run it over the mail that is here.
      </p>
      {rules.length === 0 ? (
        <p>
          No rules yet. Open a message and press <strong>Rule from this</strong>, or make a{' '}
          <Link className="link" to="/rules/new">
            new rule
          </Link>
          .
        </p>
      ) : (
        <ol className="flex max-w-4xl flex-col gap-2">
          {rules.map((rule, at) => {
            const name = ruleName(rule);
            const move = (to: number) =>
              void edit([{ list: 'rules', id: rule.id, item: rule, at: to }], `Moved the rule “${name}”`);
            return (
              <li
                key={rule.id}
                className={`flex flex-wrap items-start gap-3 rounded-box border border-base-300 px-3 py-2 ${rule.on ? '' : 'quiet'}`}
              >
                <span className="quiet w-6 pt-0.5 text-right tabular-nums">{at + 1}</span>
                <div className="min-w-60 flex-1">
                  <Link className="link font-semibold" to={`/rules/${encodeURIComponent(rule.id)}`}>
                    {name}
                  </Link>
                  <p className="text-sm">
                    When {rule.when.map(conditionWords).join(rule.match === 'all' ? ' and ' : ' or ')}, then{' '}
                    {actionWords(rule, setup)}.
                  </p>
                </div>
                <div className="flex items-center gap-1">
                  <label className="mr-2 flex items-center gap-1.5 text-sm">
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
                    {rule.on ? 'On' : 'Off'}
                  </label>
                  <button
                    className="btn btn-square btn-ghost btn-xs"
                    disabled={at === 0}
                    aria-label={`Move “${name}” up`}
                    onClick={() => move(at - 1)}
                  >
                    <ArrowUp size={14} />
                  </button>
                  <button
                    className="btn btn-square btn-ghost btn-xs"
                    disabled={at === rules.length - 1}
                    aria-label={`Move “${name}” down`}
                    onClick={() => move(at + 1)}
                  >
                    <ArrowDown size={14} />
                  </button>
                  <button
                    className="btn btn-ghost btn-xs"
                    aria-label={`Delete the rule “${name}”`}
                    onClick={() =>
                      void edit([{ list: 'rules', id: rule.id, item: null }], `Deleted the rule “${name}”`)
                    }
                  >
                    Delete
                  </button>
                </div>
              </li>
            );
          })}
        </ol>
      )}
    </Page>
  );
}
