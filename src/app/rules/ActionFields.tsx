import { X } from 'lucide-react';
import type { Setup } from '../../core/line/setup';
import { effects, effectOf, type Action } from '../../core/effects/effects';
import { ActFields } from './ActFields';
import { newFolderPlace, type DraftIds, type RuleDraft } from './ruleDraft';

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
  const left = effects
    .map(({ do: kind }) => effectOf(kind))
    .filter(
      ({ do: kind, repeats, only }) =>
        only !== 'stamp' &&
        // Without a tray there is none to put it in, and without a stamp none to run.
        (kind !== 'tray' || setup.trays.length > 0) &&
        (kind !== 'stamp' || setup.stamps.length > 0) &&
        (repeats || !then.some((action) => action.do === kind || (kind === 'stop' && action.do === 'move'))),
    );
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="mb-1 font-semibold">Then</legend>
      {then.map((action, at) => (
        <div key={at} className="flex flex-wrap items-center gap-2" role="group" aria-label="Act">
          <span className="w-28 shrink-0">{effectOf(action.do).verb}</span>
          <ActFields act={action} setup={setup} ids={ids} onChange={(next) => set(at, next)} />
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
            aria-label={`Do not ${effectOf(action.do).verb}`}
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
          const kind = effects.find((one) => one.do === e.target.value);
          if (kind) onChange({ then: [...then, kind.fresh(setup, ids.label) as Action] });
        }}
      >
        <option value="" disabled hidden>
          {then.length ? 'and …' : 'do …'}
        </option>
        {left.map(({ do: kind, verb }) => (
          <option key={kind} value={kind}>
            {verb}
          </option>
        ))}
      </select>
    </fieldset>
  );
}
