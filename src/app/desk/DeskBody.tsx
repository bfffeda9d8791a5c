import type { RefObject } from 'react';
import type { Setup } from '../../core/line/setup';
import type { Row } from '../../mailroom/border/rows';
import type { Overview } from '../../mailroom/border/overview';
import { mailroom } from '../../mailroom/client';
import { useMailbox } from '../state/overview';
import { useDrafts } from '../state/drafts';
import { usePreferences } from '../state/preferences';
import { useAnswer } from '../ui/useAnswer';
import { useNarrow } from '../ui/useNarrow';
import { usePart } from '../ui/usePart';
import { Waiting } from '../ui/Waiting';
import { DraftList } from '../writing/DraftList';
import { lookedWords } from './deskActs';
import { Divider } from './Divider';
import { Empty } from './Empty';
import { RowList, type RowListHandle } from './RowList';
import type { DeskView } from './useDeskView';

// What the first rows don't need comes after them.
const reading = () => import('../reading/ReadingArea');
const trayPart = () => import('../trays/TrayPanel');
const lanesPart = () => import('./Lanes');
const monthsPart = () => import('./Months');

/** So few rows are gone along as they are. */
const mostWithoutMonths = 60;

/** The months of a view that goes back over years; null where it is gone along as it is. */
function useMonths({ where, view, grouping }: DeskView) {
  const revision = useMailbox((s) => s.revision);
  // Months follow one another only where rows do by date.
  const byMonths =
    !where.lanes && !grouping.order && (view.kind === 'found' || (view.kind === 'place' && view.place === 'archive'));
  const { value: months } = useAnswer(
    () => (byMonths ? mailroom.months(view, grouping) : Promise.resolve(null)),
    byMonths ? `${JSON.stringify([view, grouping])} ${revision}` : '',
    0,
    JSON.stringify([view, grouping]),
  );
  const Months = usePart(monthsPart, byMonths)?.Months;
  return { months, Months };
}

interface DeskBodyProps {
  desk: DeskView;
  overview: Overview;
  name: string;
  list: RefObject<RowListHandle | null>;
  openConversation: number | null;
  /** The row of the open message or tray, where it is known. */
  openRow: Row | undefined;
}

/** The rows or lanes, and the reading area beside or below them. */
export function DeskBody({ desk, overview, name, list, openConversation, openRow }: DeskBodyProps) {
  const { where, view, rows, grouping, lanes } = desk;
  const { reading: area, rowsWidth, rowsHeight } = usePreferences();
  const open = where.message;
  const writing = useDrafts((s) => s.open !== null);
  const narrow = useNarrow(1_600);
  const Reading = usePart(reading, rows.total !== null || open !== null)?.ReadingArea;
  const Tray = usePart(trayPart, Boolean(openRow?.tray))?.TrayPanel;
  const Lanes = usePart(lanesPart, where.lanes)?.Lanes;
  // Lanes need the width: a message opens below them, unless it is to take their place.
  // Beside what is written there is room for one column.
  const side = area === 'off' ? 'off' : lanes.length || (writing && narrow) ? 'below' : area;
  const share = side === 'right' ? { width: `${rowsWidth}%` } : side === 'below' ? { height: `${rowsHeight}%` } : {};
  const listShown = open === null ? '' : side === 'off' ? 'hidden' : 'max-lg:hidden';
  const readingShown =
    open === null && (side !== 'right' || lanes.length > 0) ? 'hidden' : open === null ? 'max-lg:hidden' : '';
  const alone = readingShown === 'hidden' || side === 'off';
  const { setup } = overview;
  return (
    <div className={`flex min-h-0 min-w-0 flex-1 ${side === 'below' ? 'flex-col' : ''}`}>
      <section
        aria-label="Messages"
        style={alone ? {} : share}
        className={`flex min-h-0 min-w-0 flex-col max-lg:!h-auto max-lg:!w-auto max-lg:flex-1 ${alone ? 'flex-1' : 'shrink-0'} ${listShown}`}
      >
        {view.kind === 'place' && view.place === 'drafts' && <DraftList />}
        {rows.error && <p className="m-4 border-l-4 border-error bg-base-200 px-3 py-2">{rows.error}</p>}
        {lanes.length > 0 ? (
          Lanes && <Lanes desk={desk} setup={setup} open={open} openConversation={openConversation} handle={list} />
        ) : rows.total === 0 && rows.looked ? (
          <div className="p-6">
            <Waiting says={`Nothing found so far: ${lookedWords(rows.looked)} …`} />
          </div>
        ) : rows.total === 0 ? (
          <Empty view={view} overview={overview} onAll={() => desk.go({ show: null, account: null })} />
        ) : (
          <RowsOfView desk={desk} setup={setup} name={name} list={list} openConversation={openConversation} />
        )}
      </section>
      {!alone && <Divider side={side === 'below' ? 'below' : 'right'} />}
      <section aria-label="Reading" className={`min-h-0 min-w-0 flex-1 ${readingShown}`}>
        {openRow?.tray && open !== null && open < 0 ? (
          Tray && <Tray key={open} row={{ ...openRow, tray: openRow.tray }} where={where} setup={setup} />
        ) : open !== null && open >= 0 ? (
          Reading && (
            <Reading
              key={`${open} ${grouping.grouped}`}
              id={open}
              view={view}
              where={where}
              grouped={grouping.grouped}
            />
          )
        ) : (
          <div className="quiet flex h-full flex-col items-center justify-center gap-2 p-8 text-center">
            <p>Press a message to read it, or go down the list with the arrow keys.</p>
            <p className="text-sm">
              <kbd className="key">?</kbd> shows all keys.
            </p>
          </div>
        )}
      </section>
    </div>
  );
}

/** The rows of a view, with its months beside them where it goes back over years. */
function RowsOfView({
  desk,
  setup,
  name,
  list,
  openConversation,
}: Omit<DeskBodyProps, 'overview' | 'openRow'> & { setup: Setup }) {
  const { where, view, rows, grouping } = desk;
  const { months, Months } = useMonths(desk);
  return (
    <div className="relative flex min-h-0 flex-1">
      {rows.total === null && !rows.error && (
        <div className="absolute inset-x-0 top-0 p-6">
          <Waiting says={view.kind === 'found' ? 'Searching …' : 'Opening …'} />
        </div>
      )}
      <RowList
        view={view}
        grouping={grouping}
        name={name}
        rows={rows}
        setup={setup}
        open={where.message}
        openConversation={openConversation}
        onOpen={desk.openRow}
        handle={list}
      />
      {Months && months && months.length > 1 && rows.total !== null && rows.total > mostWithoutMonths && (
        <Months months={months} onGo={(index) => list.current?.reveal(index, true)} />
      )}
    </div>
  );
}
