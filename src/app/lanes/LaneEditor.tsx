import { labelName } from '../ui/naming';
import type { Setup } from '../../core/line/setup';
import { laneTrouble, type Lane, type LaneWhat } from '../../core/search/lane';
import { DraftForm } from '../ui/DraftForm';
import { kindNames, senderKinds } from '../../core/senders/kind';

interface LaneEditorProps {
  lane: Lane;
  setup: Setup;
  onChange: (lane: Lane) => void;
  onSave: () => void;
  onLeave: () => void;
}

/** The field of what a lane holds: a kind, a label, a saved search or a query. */
function WhatField({ lane, setup, onChange }: Pick<LaneEditorProps, 'lane' | 'setup' | 'onChange'>) {
  const { what } = lane;
  return (
    <>
      {what.by === 'kind' && (
        <label className="flex flex-col text-sm">
          Sender kind
          <select
            className="select w-full select-sm"
            value={what.kind}
            onChange={(event) =>
              onChange({ ...lane, what: { by: 'kind', kind: event.target.value as (typeof senderKinds)[number] } })
            }
          >
            {senderKinds.map((kind) => (
              <option key={kind} value={kind}>
                {kindNames[kind]}
              </option>
            ))}
          </select>
        </label>
      )}
      {what.by === 'label' && (
        <label className="flex flex-col text-sm">
          Label
          <select
            className="select w-full select-sm"
            value={what.label}
            onChange={(event) => onChange({ ...lane, what: { by: 'label', label: event.target.value } })}
          >
            {setup.labels.map(({ id }) => (
              <option key={id} value={id}>
                {labelName(id, setup)}
              </option>
            ))}
          </select>
        </label>
      )}
      {what.by === 'search' && (
        <label className="flex flex-col text-sm">
          Saved search
          <select
            className="select w-full select-sm"
            value={what.search}
            onChange={(event) => onChange({ ...lane, what: { by: 'search', search: event.target.value } })}
          >
            {setup.searches.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
      )}
      {what.by === 'query' && (
        <label className="flex flex-col text-sm">
          Query
          <input
            className="input input-sm w-full font-mono"
            spellCheck={false}
            autoComplete="off"
            value={what.query}
            placeholder='from "harbour" unseen not subject fuel'
            onChange={(event) => onChange({ ...lane, what: { by: 'query', query: event.target.value } })}
          />
          <span className="quiet mt-1">
            As in the query line: keys such as from, subject, unseen and since; other words are looked for everywhere.
          </span>
        </label>
      )}
    </>
  );
}

/** A lane as it is made or changed. */
export function LaneEditor({ lane, setup, onChange, onSave, onLeave }: LaneEditorProps) {
  const { what } = lane;
  const error = laneTrouble(lane);
  const by = (value: LaneWhat['by']) => {
    if (value === 'kind') onChange({ ...lane, what: { by: 'kind', kind: 'alone' } });
    else if (value === 'label') onChange({ ...lane, what: { by: 'label', label: setup.labels[0]?.id ?? '' } });
    else if (value === 'search') {
      const [first] = setup.searches;
      onChange({ ...lane, name: lane.name || (first?.name ?? ''), what: { by: 'search', search: first?.id ?? '' } });
    } else onChange({ ...lane, what: { by: 'query', query: '' } });
  };
  return (
    <DraftForm error={error} save="Save the lane" onSave={onSave} onLeave={onLeave}>
      <label className="flex flex-col text-sm">
        Name
        <input
          className="input input-sm w-full"
          autoFocus
          maxLength={100}
          value={lane.name}
          onChange={(event) => onChange({ ...lane, name: event.target.value })}
        />
      </label>
      <label className="flex flex-col text-sm">
        Holds what has
        <select
          className="select w-full select-sm"
          value={what.by}
          onChange={(event) => by(event.target.value as LaneWhat['by'])}
        >
          <option value="kind">a sender kind</option>
          <option value="label">a label</option>
          {setup.searches.length > 0 && <option value="search">a saved search</option>}
          <option value="query">a query</option>
        </select>
      </label>
      <WhatField lane={lane} setup={setup} onChange={onChange} />
    </DraftForm>
  );
}
