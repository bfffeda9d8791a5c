import { Plus } from 'lucide-react';
import type { Gathering } from '../../core/delivery/gathering';
import type { Setup } from '../../core/line/setup';
import { GroupFields } from '../rules/GroupFields';
import { complete, emptyCondition } from '../rules/ruleDraft';
import { InkTag } from '../ui/InkTag';

interface GatheringFieldsProps {
  /** What it is asked of: “Gathers”, “Let through”. */
  word: string;
  gathering: Gathering;
  setup: Setup;
  onChange: (gathering: Gathering) => void;
}

/** A gathering as it is saved: without conditions that say nothing yet. */
export const readGathering = <G extends Gathering>(gathering: G): G => ({
  ...gathering,
  when: gathering.when && complete(gathering.when),
});

/** Which mail is meant: by conditions, or by a label that it bears. */
export function GatheringFields({ word, gathering, setup, onChange }: GatheringFieldsProps) {
  const { when, labels } = gathering;
  return (
    <div className="flex flex-col gap-3">
      {when ? (
        <GroupFields
          word={word}
          group={when}
          setup={setup}
          holds={() => undefined}
          onChange={(next) => onChange({ ...gathering, when: next })}
          onRemove={() => onChange({ ...gathering, when: null })}
        />
      ) : (
        <button
          type="button"
          className="btn self-start btn-outline btn-xs"
          onClick={() => onChange({ ...gathering, when: { match: 'any', of: [emptyCondition('from', setup)] } })}
        >
          <Plus size={14} aria-hidden /> {word} by a condition
        </button>
      )}
      {setup.labels.length > 0 && (
        <fieldset>
          <legend className="mb-1 text-sm">{when ? 'or whatever bears' : 'Whatever bears'}</legend>
          <div className="flex flex-wrap gap-x-4 gap-y-1">
            {setup.labels.map(({ id }) => (
              <label key={id} className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={labels.includes(id)}
                  onChange={(event) =>
                    onChange({
                      ...gathering,
                      labels: event.target.checked ? [...labels, id] : labels.filter((one) => one !== id),
                    })
                  }
                />
                <InkTag id={id} setup={setup} />
              </label>
            ))}
          </div>
        </fieldset>
      )}
    </div>
  );
}
