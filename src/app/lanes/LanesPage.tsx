import { ArrowDown, ArrowUp } from 'lucide-react';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { lanesOf, type Lane, type LaneWhat } from '../../core/search/lane';
import { parseQuery } from '../../core/search/query';
import { kindNames, senderKinds } from '../../core/senders/kind';
import type { Setup } from '../../core/line/setup';
import type { Overview } from '../../mailroom/border/overview';
import type { SetupEdit } from '../../core/line/setupEdit';
import type { View } from '../../mailroom/border/views';
import { mailroom } from '../../mailroom/client';
import { UndoSpot } from '../desk/StampBar';
import { readWhere, wherePath } from '../paths';
import { commandId, tellOutcome } from '../state/desk';
import { useMailbox } from '../state/overview';
import { Halves, Page } from '../ui/Page';
import { useAnswer } from '../ui/useAnswer';
import { viewName } from '../ui/naming';
import { count, messages } from '../../core/text/sentences';
import { Waiting } from '../ui/Waiting';

const grouping = { grouped: false, elsewhere: false };

function whatWords(what: LaneWhat, setup: Setup): string {
  if (what.by === 'kind') return `sender kind: ${kindNames[what.kind].toLowerCase()}`;
  if (what.by === 'label')
    return `label: ${setup.labels.find((label) => label.id === what.label)?.name ?? 'one that is gone'}`;
  if (what.by === 'search')
    return `saved search: ${setup.searches.find((search) => search.id === what.search)?.name ?? 'one that is gone'}`;
  return `query: ${what.query}`;
}

/** How much a lane would hold, as it is now. */
function LaneCount({ view, lane }: { view: View; lane: LaneWhat }) {
  const revision = useMailbox((s) => s.revision);
  const narrowed = { ...view, lane };
  const { value } = useAnswer(
    () => mailroom.rows(narrowed, grouping, 0, 4),
    `${JSON.stringify(narrowed)} ${revision}`,
    120,
  );
  if (!value) return <Waiting says="Counting …" />;
  return (
    <>
      <p className="quiet text-sm">
        {messages(value.messages)} · {count(value.unread)} unread
      </p>
      <ul className="text-sm">
        {value.rows.map((row) => (
          <li key={row.id} className="truncate">
            {row.from.name || row.from.address}: {row.subject || 'No subject'}
          </li>
        ))}
      </ul>
    </>
  );
}

interface EditorProps {
  lane: Lane;
  setup: Setup;
  onChange: (lane: Lane) => void;
  onSave: () => void;
  onLeave: () => void;
}

function LaneEditor({ lane, setup, onChange, onSave, onLeave }: EditorProps) {
  const { what } = lane;
  const read = what.by === 'query' ? parseQuery(what.query) : null;
  const error =
    lane.name.trim() === ''
      ? 'Give the lane a name.'
      : read && !read.ok
        ? `${read.error} (at character ${read.at + 1})`
        : what.by === 'label' && what.label === ''
          ? 'Choose a label.'
          : what.by === 'search' && what.search === ''
            ? 'Choose a saved search.'
            : null;
  const by = (value: LaneWhat['by']) => {
    if (value === 'kind') onChange({ ...lane, what: { by: 'kind', kind: 'alone' } });
    else if (value === 'label') onChange({ ...lane, what: { by: 'label', label: setup.labels[0]?.id ?? '' } });
    else if (value === 'search') {
      const [first] = setup.searches;
      onChange({ ...lane, name: lane.name || (first?.name ?? ''), what: { by: 'search', search: first?.id ?? '' } });
    } else onChange({ ...lane, what: { by: 'query', query: '' } });
  };
  return (
    <form
      className="flex flex-col gap-2 rounded border-2 border-primary p-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (error === null) onSave();
      }}
    >
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
            {setup.labels.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
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
      {error && <p className="text-sm">{error}</p>}
      <div className="flex gap-2">
        <button className="btn btn-primary btn-sm" disabled={error !== null}>
          Save the lane
        </button>
        <button type="button" className="btn btn-ghost btn-sm" onClick={onLeave}>
          Leave it
        </button>
      </div>
    </form>
  );
}

function LanesOf({ view, of, overview }: { view: View; of: string; overview: Overview }) {
  const { setup } = overview;
  const [draft, setDraft] = useState<Lane | null>(null);
  const own = setup.lanes.filter((lane) => lane.of === of);
  const lanes = lanesOf(setup.lanes, of);
  const name = viewName(view, setup);
  // The ready lanes become the person's own with the first change.
  const madeOwn = (): SetupEdit[] =>
    own.length
      ? []
      : lanes.map((item) => ({ list: 'lanes', id: `${of} ${item.id}`, item: { ...item, id: `${of} ${item.id}` } }));
  const idOf = (lane: Lane) => (own.length ? lane.id : `${of} ${lane.id}`);
  const edit = async (edits: SetupEdit[], says: string) => {
    if (tellOutcome(await mailroom.editSetup(commandId(), [...madeOwn(), ...edits], says, false))) setDraft(null);
  };
  const move = (lane: Lane, by: number) => {
    const order = lanes.map(idOf);
    const at = order.indexOf(idOf(lane));
    order.splice(at, 1);
    order.splice(at + by, 0, idOf(lane));
    // Each is put at the end in turn, so that they stand in the new order, whatever stands between them.
    const end = setup.lanes.length + lanes.length;
    const edits = order.flatMap((id): SetupEdit[] => {
      const item = lanes.find((other) => idOf(other) === id);
      return item ? [{ list: 'lanes', id, item: { ...item, id }, at: end }] : [];
    });
    void edit(edits, `Moved the lane ${lane.name}`);
  };
  return (
    <Halves
      left={
        <>
          <p className="max-w-prose">
            The lanes of <strong>{name}</strong>, from left to right. What none of them holds stands in a last lane by
            itself, so nothing is ever out of sight. A message may be in several.
          </p>
          <ol className="flex flex-col gap-2">
            {lanes.map((lane, at) => (
              <li key={lane.id} className="flex items-center gap-1 rounded border border-base-300 px-3 py-2">
                <div className="min-w-0 flex-1">
                  <p className="truncate font-semibold">{lane.name}</p>
                  <p className="quiet truncate text-sm">{whatWords(lane.what, setup)}</p>
                </div>
                <button
                  className="btn btn-square btn-ghost btn-sm"
                  disabled={at === 0}
                  onClick={() => move(lane, -1)}
                  aria-label={`Move ${lane.name} to the left`}
                >
                  <ArrowUp size={16} />
                </button>
                <button
                  className="btn btn-square btn-ghost btn-sm"
                  disabled={at === lanes.length - 1}
                  onClick={() => move(lane, 1)}
                  aria-label={`Move ${lane.name} to the right`}
                >
                  <ArrowDown size={16} />
                </button>
                <button
                  className="btn btn-ghost btn-sm"
                  onClick={() => setDraft({ ...lane, id: idOf(lane) })}
                  aria-label={`Change ${lane.name}`}
                >
                  Change
                </button>
                <button
                  className="btn btn-ghost btn-sm"
                  onClick={() =>
                    void edit([{ list: 'lanes', id: idOf(lane), item: null }], `Took the lane ${lane.name} off`)
                  }
                  aria-label={`Take off ${lane.name}`}
                >
                  Take off
                </button>
              </li>
            ))}
          </ol>
          {draft ? (
            <LaneEditor
              lane={draft}
              setup={setup}
              onChange={setDraft}
              onSave={() => void edit([{ list: 'lanes', id: draft.id, item: draft }], `Set the lane ${draft.name}`)}
              onLeave={() => setDraft(null)}
            />
          ) : (
            <div className="flex gap-2">
              <button
                className="btn btn-primary btn-sm"
                onClick={() => setDraft({ id: commandId(), of, name: '', what: { by: 'query', query: '' } })}
              >
                Add a lane
              </button>
              {own.length > 0 && (
                <button
                  className="btn btn-sm"
                  onClick={() =>
                    void edit(
                      own.map(({ id }) => ({ list: 'lanes', id, item: null })),
                      `Took up the ready lanes of ${name} again`,
                    )
                  }
                >
                  Back to the ready lanes
                </button>
              )}
            </div>
          )}
        </>
      }
      right={
        <section aria-label="What they hold" className="flex flex-col gap-3">
          {[
            ...lanes.filter((lane) => lane.id !== draft?.id && idOf(lane) !== draft?.id),
            ...(draft ? [draft] : []),
          ].map((lane) => (
            <div key={lane.id} className="border-l-2 border-primary pl-3">
              <h2 className="font-semibold">{lane.name || 'The new lane'}</h2>
              {lane.what.by === 'query' && !parseQuery(lane.what.query).ok ? (
                <p className="quiet text-sm">Its query is not finished.</p>
              ) : (
                <LaneCount view={view} lane={lane.what} />
              )}
            </div>
          ))}
        </section>
      }
    />
  );
}

/** The lanes of one place: made, named, ordered and removed, with what each would hold. */
export function LanesPage() {
  const overview = useMailbox((s) => s.overview);
  const [query] = useSearchParams();
  const where = readWhere(query.get('of') ?? '/inbox');
  if (!overview) return null;
  if (!where)
    return (
      <Page title="Lanes">
        <p>There is no place of that name.</p>
      </Page>
    );
  const back = wherePath({ ...where, message: null, lanes: true });
  return (
    <Page
      title="Lanes"
      acts={
        <>
          <UndoSpot />
          <Link className="btn btn-sm" to={back}>
            To the lanes
          </Link>
        </>
      }
    >
      <LanesOf view={where.view} of={query.get('of') ?? '/inbox'} overview={overview} />
    </Page>
  );
}
