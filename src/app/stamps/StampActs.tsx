import { arrayMove } from '@dnd-kit/sortable';
import { X } from 'lucide-react';
import type { Setup } from '../../core/line/setup';
import { effectOf, effects, type Action } from '../../core/effects/effects';
import { mostActs, unchosen } from '../../core/stamps/stamp';
import { ActFields } from '../rules/ActFields';
import { SortableItem, SortableList } from '../ui/Sortable';

interface StampActsProps {
  acts: readonly Action[];
  setup: Setup;
  onChange: (acts: Action[]) => void;
}

/** An act as it is when it has just been chosen: what it speaks of may be asked at the first use. */
function freshAct(kind: (typeof effects)[number]['do'], setup: Setup): Action {
  if (kind === 'label' || kind === 'unlabel') return { do: kind, label: setup.labels[0]?.id ?? unchosen };
  if (kind === 'tray') return { do: 'tray', tray: setup.trays[0]?.id ?? unchosen };
  return effectOf(kind).fresh(setup, unchosen) as Action;
}

/** What a stamp does, act by act, dragged into another order. */
export function StampActs({ acts, setup, onChange }: StampActsProps) {
  // An act has no id of its own: its place in the list is one as long as it is not dragged.
  const ids = acts.map((act, at) => `${at} ${act.do}`);
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="mb-1 font-semibold">Does, in this order</legend>
      <SortableList
        label="Acts in their order"
        ids={ids}
        className="gap-1"
        onMove={(from, to) => onChange(arrayMove([...acts], from, to))}
      >
        {acts.map((act, at) => (
          <ActItem
            key={ids[at]}
            id={ids[at]}
            act={act}
            setup={setup}
            onChange={(next) => onChange(acts.map((one, n) => (n === at ? next : one)))}
            onTakeOff={() => onChange(acts.filter((_, n) => n !== at))}
          />
        ))}
      </SortableList>
      {acts.length < mostActs && (
        <select
          aria-label="What else it does"
          className="select w-64 select-sm"
          value=""
          onChange={(event) => {
            const kind = effects.find((one) => one.do === event.target.value);
            if (kind) onChange([...acts, freshAct(kind.do, setup)]);
          }}
        >
          <option value="" disabled hidden>
            {acts.length ? 'and …' : 'do …'}
          </option>
          {effects
            .filter((kind) => !('only' in kind && kind.only === 'rule'))
            .map(({ do: kind, verb }) => (
              <option key={kind} value={kind}>
                {verb}
              </option>
            ))}
        </select>
      )}
    </fieldset>
  );
}

interface ActItemProps {
  id: string;
  act: Action;
  setup: Setup;
  onChange: (act: Action) => void;
  onTakeOff: () => void;
}

function ActItem({ id, act, setup, onChange, onTakeOff }: ActItemProps) {
  const { verb } = effectOf(act.do);
  return (
    <SortableItem id={id} name={verb} label={verb} className="items-center rounded px-1 py-1">
      <span className="min-w-24">{verb}</span>
      <ActFields act={act} setup={setup} stamp onChange={onChange} />
      <button
        type="button"
        className="btn ml-auto btn-square btn-ghost btn-xs"
        aria-label={`Do not ${verb}`}
        onClick={onTakeOff}
      >
        <X size={14} />
      </button>
    </SortableItem>
  );
}
