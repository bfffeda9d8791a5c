import { ArrowDown, ArrowUp } from 'lucide-react';
import { Link, useSearchParams } from 'react-router';
import { lanesOf, type Lane, type LaneWhat } from '../../core/search/lane';
import { parseQuery } from '../../core/search/query';
import { kindNames } from '../../core/senders/kind';
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
import { useDraft } from '../ui/useDraft';
import { viewName } from '../ui/naming';
import { count, messages } from '../../core/text/sentences';
import { Waiting } from '../ui/Waiting';
import { LaneEditor } from './LaneEditor';
import { laneMoved, ownLane, ownLanes } from './laneEdits';

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
    JSON.stringify(narrowed),
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

interface LaneItemProps {
  lane: Lane;
  setup: Setup;
  at: number;
  last: boolean;
  onMove: (by: number) => void;
  onChange: () => void;
  onTakeOff: () => void;
}

function LaneItem({ lane, setup, at, last, onMove, onChange, onTakeOff }: LaneItemProps) {
  return (
    <li className="flex items-center gap-1 rounded border border-base-300 px-3 py-2">
      <div className="min-w-0 flex-1">
        <p className="truncate font-semibold">{lane.name}</p>
        <p className="quiet truncate text-sm">{whatWords(lane.what, setup)}</p>
      </div>
      <button
        className="btn btn-square btn-ghost btn-sm"
        disabled={at === 0}
        onClick={() => onMove(-1)}
        aria-label={`Move ${lane.name} to the left`}
      >
        <ArrowUp size={16} />
      </button>
      <button
        className="btn btn-square btn-ghost btn-sm"
        disabled={last}
        onClick={() => onMove(1)}
        aria-label={`Move ${lane.name} to the right`}
      >
        <ArrowDown size={16} />
      </button>
      <button className="btn btn-ghost btn-sm" onClick={onChange} aria-label={`Change ${lane.name}`}>
        Change
      </button>
      <button className="btn btn-ghost btn-sm" onClick={onTakeOff} aria-label={`Take off ${lane.name}`}>
        Take off
      </button>
    </li>
  );
}

/** What each lane would hold. */
function WhatTheyHold({ view, lanes }: { view: View; lanes: readonly Lane[] }) {
  return (
    <section aria-label="What they hold" className="flex flex-col gap-3">
      {lanes.map((lane) => (
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
  );
}

function LanesOf({ view, of, overview }: { view: View; of: string; overview: Overview }) {
  const { setup } = overview;
  const { draft, setDraft, close } = useDraft<Lane>();
  const own = setup.lanes.filter((lane) => lane.of === of);
  const lanes = lanesOf(setup.lanes, of);
  const name = viewName(view, setup);
  const idOf = (lane: Lane) => (own.length ? lane.id : ownLane(lane).id);
  const edit = async (edits: SetupEdit[], says: string) => {
    const all = [...ownLanes(setup.lanes, of), ...edits];
    if (tellOutcome(await mailroom.editSetup(commandId(), all, says, false))) close(...edits.map(({ id }) => id));
  };
  const move = (lane: Lane, by: number) =>
    void edit(laneMoved(setup.lanes, of, idOf(lane), by), `Moved the lane ${lane.name}`);
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
              <LaneItem
                key={lane.id}
                lane={lane}
                setup={setup}
                at={at}
                last={at === lanes.length - 1}
                onMove={(by) => move(lane, by)}
                onChange={() => setDraft({ ...lane, id: idOf(lane) })}
                onTakeOff={() =>
                  void edit([{ list: 'lanes', id: idOf(lane), item: null }], `Took the lane ${lane.name} off`)
                }
              />
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
        <WhatTheyHold
          view={view}
          lanes={[
            ...lanes.filter((lane) => lane.id !== draft?.id && idOf(lane) !== draft?.id),
            ...(draft ? [draft] : []),
          ]}
        />
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
