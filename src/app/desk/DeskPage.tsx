import { parseQuery } from '../../core/search/query';
import { useLayoutEffect, useMemo, useRef } from 'react';
import { Link } from 'react-router';
import type { Row } from '../../mailroom/border/rows';
import { clearTicks, setReach, tickOnly } from '../state/desk';
import { rowMessages } from '../state/ticks';
import { noteOpened } from '../state/opened';
import { useMailbox } from '../state/overview';
import { viewExists, viewName } from '../ui/naming';
import { DeskBody } from './DeskBody';
import { conversationsOf, noneChosen, useDeskActs } from './useDeskActs';
import { useDeskKeys, useStampKeys } from './useDeskKeys';
import { DeskDialogs } from './DeskDialogs';
import { DeskEdge } from './DeskEdge';
import { HabitOffer } from './HabitOffer';
import type { RowListHandle } from './RowList';
import { StampBar } from './StampBar';
import { StampQuestions } from '../stamps/StampQuestions';
import { StampRow } from '../stamps/StampRow';
import { SoughtContext } from '../ui/Marked';
import { HoldStrip } from '../delivery/HoldStrip';
import { useDeskView, type DeskView } from './useDeskView';
import { useRevealing } from './useRevealing';

/** What is looked for in what is shown; null where nothing is. */
function useSought({ view }: DeskView) {
  const query = view.kind === 'found' ? view.query : null;
  return useMemo(() => {
    const parsed = query === null ? null : parseQuery(query);
    return parsed?.ok ? parsed.query : null;
  }, [query]);
}
/** The focus goes to the list; where the open message covers it, to that. */
function toList(list: RowListHandle | null): void {
  list?.focus();
  if (!document.activeElement?.matches('[data-rows]')) document.querySelector<HTMLElement>('article')?.focus();
}
/** The row of the open message; also before the mailroom has said where it stands, since a key may follow at once. */
function rowOfOpen({ rows, openIndex }: DeskView, open: number): Row | undefined {
  if (openIndex !== null) return openIndex >= 0 ? rows.at(openIndex) : undefined;
  for (const index of rows.known()) {
    const row = rows.at(index);
    if (row && rowMessages(row).includes(open)) return row;
  }
  return undefined;
}

/** The desk: the rows or lanes of a view, the open message beside or below them, the stamp bar at the bottom. */
export function DeskPage() {
  const overview = useMailbox((s) => s.overview);
  const desk = useDeskView();
  const { where, view, grouping } = desk;
  const list = useRef<RowListHandle>(null);
  const sought = useSought(desk);
  const open = where.message;
  // Before whatever shows it has been drawn.
  useLayoutEffect(() => noteOpened(open), [open]);
  const openRow = open === null ? undefined : rowOfOpen(desk, open);
  const acts = useDeskActs(desk, openRow);
  useDeskKeys(desk, acts, openRow);
  useStampKeys(acts);
  useRevealing(list, desk);

  if (!overview) return null;
  const { setup } = overview;
  if (!desk.known || !viewExists(where.view, setup)) return <NothingHere />;
  const name = viewName(where.view, setup);
  /** What is pressed in the bar: the next key is the list’s, not that button’s, under which another message stands then. */
  const inBar =
    <A extends unknown[]>(press: (...args: A) => unknown) =>
    (...args: A): void => {
      toList(list.current);
      press(...args);
    };
  return (
    <main className="flex min-h-0 min-w-0 flex-1 flex-col">
      <HoldStrip overview={overview} />
      <DeskEdge desk={desk} overview={overview} hidden={open !== null} />
      <SoughtContext value={sought}>
        {/* Known from its row; where the row is out of sight, nothing need be lit. */}
        <DeskBody
          desk={desk}
          overview={overview}
          name={name}
          list={list}
          openConversation={open === null ? null : (openRow?.conversation ?? null)}
          openRow={openRow}
        />
      </SoughtContext>
      <HabitOffer setup={setup} />
      <StampBar
        view={view}
        target={acts.target}
        grouped={grouping.grouped}
        ofConversation={openRow?.tray ? 0 : (openRow?.whole?.ids.length ?? 0)}
        onReach={inBar((of) => open !== null && setReach(open, of))}
        onAct={inBar(acts.press)}
        onMove={inBar(() => acts.ask('move'))}
        onLabel={inBar(() => acts.ask('label'))}
        onDue={inBar(() => acts.ask('due'))}
        onPutOff={inBar(() => acts.ask('put off'))}
        onTray={inBar(() => acts.ask('tray'))}
        onExport={inBar(acts.exportTarget)}
        onUntick={inBar(clearTicks)}
        onTickAll={inBar(() => tickOnly(view, grouping, 'all'))}
        stamps={
          <StampRow
            setup={setup}
            ids={acts.target?.selection.ids ?? noneChosen}
            conversations={acts.target ? conversationsOf(acts.target) : 0}
            onPress={inBar((stamp) => acts.pressStamp(stamp, false))}
            onLook={inBar((stamp) => acts.pressStamp(stamp, true))}
          />
        }
      />
      <StampQuestions press={acts.stamps} />
      <DeskDialogs acts={acts} setup={setup} />
    </main>
  );
}

function NothingHere() {
  return (
    <main className="flex flex-1 flex-col items-start gap-3 p-8">
      <h1 className="text-xl font-semibold">There is nothing at this address</h1>
      <p>The folder or label may have been taken away since the address was made.</p>
      <Link className="btn btn-primary btn-sm" to="/inbox">
        To the Inbox
      </Link>
    </main>
  );
}
