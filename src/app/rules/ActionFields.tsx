import { X } from 'lucide-react';
import type { Setup } from '../../core/line/setup';
import { type Place } from '../../core/mail/place';
import { inks } from '../../core/mail/label';
import { putOffTimes } from '../../core/agenda/putOffTimes';
import { flagDays, flagDayWords } from '../../core/effects/flag';
import { effects, effectOf, type Action } from '../../core/effects/effects';
import { labelName, movablePlaces, placePath } from '../ui/naming';
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
  const left = effects.filter(
    ({ do: kind, repeats }) =>
      // Without a tray there is none to put it in.
      (kind !== 'tray' || setup.trays.length > 0) &&
      (repeats || !then.some((action) => action.do === kind || (kind === 'stop' && action.do === 'move'))),
  );
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="mb-1 font-semibold">Then</legend>
      {then.map((action, at) => (
        <div key={at} className="flex flex-wrap items-center gap-2" role="group" aria-label="Act">
          <span className="w-28 shrink-0">{effectOf(action.do).verb}</span>
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
          if (kind) onChange({ then: [...then, kind.fresh(setup, ids.label)] });
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
      return <WaitingChoice action={action} setup={setup} onChange={onChange} />;
  }
}

/** Of what makes a message wait: in which tray, until when. */
function WaitingChoice({ action, setup, onChange }: Omit<ChoiceProps, 'ids'>) {
  switch (action.do) {
    case 'tray':
      return (
        <select
          aria-label="Which tray"
          className="select w-auto max-w-52 select-sm"
          value={action.tray}
          onChange={(e) => onChange({ ...action, tray: e.target.value })}
        >
          {setup.trays.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      );
    case 'putOff':
      return (
        <select
          aria-label="Until when"
          className="select w-auto select-sm"
          value={action.until}
          onChange={(e) => {
            const until = putOffTimes.find((one) => one === e.target.value);
            if (until) onChange({ ...action, until });
          }}
        >
          {putOffTimes.map((time) => (
            <option key={time} value={time}>
              {time}
            </option>
          ))}
        </select>
      );
    case 'forward':
      return (
        <>
          <input
            aria-label="Forwarded to"
            className="input input-sm w-56 font-mono"
            spellCheck={false}
            autoComplete="off"
            maxLength={400}
            value={action.to}
            onChange={(e) => onChange({ ...action, to: e.target.value.trim() })}
          />
          <select
            aria-label="In which form"
            className="select w-auto select-sm"
            value={action.form}
            onChange={(e) => onChange({ ...action, form: e.target.value === 'file' ? 'file' : 'text' })}
          >
            <option value="text">in the text</option>
            <option value="file">as a file</option>
          </select>
        </>
      );
    case 'answer':
      return (
        <select
          aria-label="Text block"
          className="select w-auto max-w-52 select-sm"
          value={setup.blocks.some(({ id }) => id === action.block) ? action.block : ''}
          onChange={(e) => onChange({ ...action, block: e.target.value })}
        >
          <option value="" disabled hidden>
            Choose …
          </option>
          {setup.blocks.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      );
    default:
      return <span className="flex-1" />;
  }
}
