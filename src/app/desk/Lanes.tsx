import { Archive, MailOpen, Settings2, Trash2 } from 'lucide-react';
import { useEffect, useRef, type Ref } from 'react';
import { Link } from 'react-router';
import type { Setup } from '../../core/line/setup';
import { everyRow } from '../../mailroom/border/held';
import type { Act, View } from '../../mailroom/border/views';
import { mailroom } from '../../mailroom/client';
import { viewPath } from '../paths';
import { act, goToLane, useDesk } from '../state/desk';
import { Waiting } from '../ui/Waiting';
import { count } from '../../core/text/sentences';
import { RowList, type RowListHandle } from './RowList';
import type { DeskView, ShownLane } from './useDeskView';
import { useRows } from './useRows';

interface LanesProps {
  desk: DeskView;
  setup: Setup;
  open: number | null;
  openConversation: number | null;
  handle: Ref<RowListHandle>;
}

const wholeActs: [word: string, icon: typeof Archive, act: Act][] = [
  ['Mark all as read', MailOpen, { do: 'read', value: true }],
  ['Archive all', Archive, { do: 'move', place: 'archive' }],
  ['Bin all', Trash2, { do: 'move', place: 'bin' }],
];

/** Does something to all that a lane holds now. */
async function actOnAll(view: View, does: Act): Promise<void> {
  const { ids } = await mailroom.held(view, { grouped: false, elsewhere: false }, 'all', 0, everyRow);
  await act({ ids: [...ids] }, does);
}

interface LaneProps extends LanesProps {
  lane: ShownLane;
  index: number;
  active: boolean;
}

/** One lane: its name, how much is in it, the acts for all of it, and its rows. */
function Lane({ desk, lane, index, active, setup, open, openConversation, handle }: LaneProps) {
  const rows = useRows(lane.view, desk.grouping);
  const element = useRef<HTMLElement>(null);
  useEffect(() => {
    if (active) element.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [active]);
  return (
    <section
      ref={element}
      aria-label={`Lane ${lane.name}`}
      className={`flex min-h-0 w-[85vw] shrink-0 snap-start flex-col border-r border-base-300 ${
        // An empty lane leaves its room to the others.
        rows.total === 0 ? 'md:w-40 md:flex-none' : 'min-w-52 md:w-auto md:flex-1 md:basis-52'
      }`}
      onFocus={() => goToLane(index)}
    >
      <header
        className={`flex items-center gap-1 border-b-2 px-2 py-1 ${active ? 'border-primary bg-base-200' : 'border-base-300'}`}
      >
        <div className="min-w-0">
          <h2 className="truncate font-semibold" title={lane.name}>
            {lane.name}
          </h2>
          <p className="quiet text-xs tabular-nums">
            {rows.total === null ? '…' : `${count(rows.messages)} in all · ${count(rows.unread)} unread`}
          </p>
        </div>
        <div className="ml-auto flex shrink-0">
          {rows.messages > 0 &&
            wholeActs.map(([word, Icon, does]) => (
              <button
                key={word}
                className="btn btn-square btn-ghost btn-xs"
                aria-label={`${word}: ${lane.name}`}
                title={`${word} (${count(rows.messages)})`}
                onClick={() => void actOnAll(lane.view, does)}
              >
                <Icon size={14} />
              </button>
            ))}
        </div>
      </header>
      {rows.error && <p className="m-2 text-sm text-error">{rows.error}</p>}
      {rows.total === null && !rows.error && (
        <div className="p-3 text-sm">
          <Waiting says="Opening …" />
        </div>
      )}
      {rows.total === 0 ? (
        <p className="quiet p-3 text-sm">Nothing in this lane.</p>
      ) : (
        <RowList
          view={lane.view}
          grouping={desk.grouping}
          name={lane.name}
          rows={rows}
          setup={setup}
          open={open}
          openConversation={openConversation}
          onOpen={(id) => {
            goToLane(index);
            desk.go({ message: id });
          }}
          handle={active ? handle : undefined}
        />
      )}
    </section>
  );
}

/** The second picture of a place: its lanes side by side. */
export function Lanes(props: LanesProps) {
  const { desk } = props;
  const current = useDesk((s) => s.lane);
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex min-h-0 flex-1 snap-x snap-mandatory overflow-x-auto md:snap-none">
        {desk.lanes.map((lane, index) => (
          <Lane
            key={lane.id}
            {...props}
            lane={lane}
            index={index}
            active={index === Math.min(current, desk.lanes.length - 1)}
          />
        ))}
      </div>
      <p className="border-t border-base-300 px-3 py-1 text-sm">
        <Link
          className="link inline-flex items-center gap-1"
          to={`/lanes?of=${encodeURIComponent(viewPath(desk.where.view))}`}
        >
          <Settings2 size={14} aria-hidden /> Set up the lanes
        </Link>
      </p>
    </div>
  );
}
