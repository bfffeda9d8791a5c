import { X } from 'lucide-react';
import type { Setup } from '../../core/line/setup';
import { inks, type Place } from '../../core/mail/place';
import { flagDays, type Action } from '../../core/rules/rule';
import { flagDayWords } from '../../core/rules/ruleWords';
import { labelName, movablePlaces, placePath } from '../ui/naming';
import { newFolderPlace, type DraftIds, type RuleDraft } from './ruleDraft';

const words: Record<Action['do'], string> = {
  move: 'move it to',
  label: 'label it',
  ink: 'ink its row in',
  flag: 'flag it',
  read: 'mark it read',
  stop: 'ask no rule below',
};
const kinds = Object.keys(words) as Action['do'][];

/** Only a label can be given several times. */
const repeats = (kind: Action['do']) => kind === 'label';

interface ActionFieldsProps {
  draft: RuleDraft;
  setup: Setup;
  ids: DraftIds;
  onChange: (part: Partial<RuleDraft>) => void;
}

/** What a rule does: one line for each act, and the choice of the next. */
export function ActionFields({ draft, setup, ids, onChange }: ActionFieldsProps) {
  const { then } = draft;
  const set = (at: number, action: Action | null) =>
    onChange({ then: then.flatMap((one, i) => (i === at ? (action ? [action] : []) : [one])) });
  const first = (kind: Action['do']): Action => {
    switch (kind) {
      case 'move':
        return { do: 'move', place: setup.folders[0] ? `folder:${setup.folders[0].id}` : 'archive' };
      case 'label':
        return { do: 'label', label: setup.labels[0]?.id ?? ids.label };
      case 'ink':
        return { do: 'ink', ink: 'sea' };
      case 'flag':
        return { do: 'flag', due: 'none' };
      case 'read':
      case 'stop':
        return { do: kind };
    }
  };
  const left = kinds.filter(
    (kind) => repeats(kind) || !then.some((action) => action.do === kind || (kind === 'stop' && action.do === 'move')),
  );
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="mb-1 font-semibold">Then</legend>
      {then.map((action, at) => (
        <div key={at} className="flex flex-wrap items-center gap-2" role="group" aria-label="Act">
          <span className="w-28 shrink-0">{words[action.do]}</span>
          <Choice action={action} setup={setup} ids={ids} onChange={(next) => set(at, next)} />
          {action.do === 'move' && action.place === newFolderPlace(ids) && (
            <input
              aria-label="Name of the new folder"
              placeholder="its name"
              className="input input-sm min-w-28 flex-1"
              maxLength={100}
              value={draft.newFolder}
              onChange={(e) => onChange({ newFolder: e.target.value })}
            />
          )}
          {action.do === 'label' && action.label === ids.label && (
            <input
              aria-label="Name of the new label"
              placeholder="its name"
              className="input input-sm min-w-28 flex-1"
              maxLength={100}
              value={draft.newLabel}
              onChange={(e) => onChange({ newLabel: e.target.value })}
            />
          )}
          <button
            type="button"
            className="btn btn-square btn-ghost btn-xs"
            aria-label={`Do not ${words[action.do]}`}
            onClick={() => set(at, null)}
          >
            <X size={14} />
          </button>
        </div>
      ))}
      <select
        aria-label="What else it does"
        className="select w-44 select-sm"
        value=""
        onChange={(e) => {
          const kind = kinds.find((one) => one === e.target.value);
          if (kind) onChange({ then: [...then, first(kind)] });
        }}
      >
        <option value="" disabled hidden>
          {then.length ? 'and …' : 'do …'}
        </option>
        {left.map((kind) => (
          <option key={kind} value={kind}>
            {words[kind]}
          </option>
        ))}
      </select>
    </fieldset>
  );
}

interface ChoiceProps {
  action: Action;
  setup: Setup;
  ids: DraftIds;
  onChange: (action: Action) => void;
}

function Choice({ action, setup, ids, onChange }: ChoiceProps) {
  switch (action.do) {
    case 'move':
      return (
        <select
          aria-label="Where to"
          className="select w-auto max-w-52 select-sm"
          value={action.place}
          onChange={(e) => onChange({ ...action, place: e.target.value as Place })}
        >
          {movablePlaces(setup).map((place) => (
            <option key={place} value={place}>
              {placePath(place, setup)}
            </option>
          ))}
          <option value={newFolderPlace(ids)}>a new folder …</option>
        </select>
      );
    case 'label':
      return (
        <select
          aria-label="Which label"
          className="select w-auto max-w-52 select-sm"
          value={action.label}
          onChange={(e) => onChange({ ...action, label: e.target.value })}
        >
          {setup.labels.map(({ id }) => (
            <option key={id} value={id}>
              {labelName(id, setup)}
            </option>
          ))}
          <option value={ids.label}>a new label …</option>
        </select>
      );
    case 'ink':
      return (
        <>
          <select
            aria-label="Which ink"
            className="select w-auto select-sm"
            value={action.ink}
            onChange={(e) => {
              const ink = inks.find((one) => one === e.target.value);
              if (ink) onChange({ ...action, ink });
            }}
          >
            {inks.map((ink) => (
              <option key={ink} value={ink}>
                {ink}
              </option>
            ))}
          </select>
          <span className={`ink ink-${action.ink}`}>{action.ink}</span>
        </>
      );
    case 'flag':
      return (
        <select
          aria-label="For when"
          className="select w-auto select-sm"
          value={action.due}
          onChange={(e) => {
            const due = flagDays.find((one) => one === e.target.value);
            if (due) onChange({ ...action, due });
          }}
        >
          {flagDays.map((due) => (
            <option key={due} value={due}>
              {flagDayWords[due]}
            </option>
          ))}
        </select>
      );
    default:
      return <span className="flex-1" />;
  }
}
