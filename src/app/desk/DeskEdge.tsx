import { useState } from 'react';
import { Columns3, Layers, PackageOpen, RefreshCw, Rows3 } from 'lucide-react';
import type { Overview } from '../../mailroom/border/overview';
import { filters, noAccount, type View } from '../../mailroom/border/views';
import { Link } from 'react-router';
import { everythingGoes } from '../../core/clearout/clearOut';
import { clearOutPath, mostKept, shownView } from '../clearout/clearOutLink';
import { viewPath, type Where } from '../paths';
import { clearTicks, tickOnly, useDesk } from '../state/desk';
import { useMailbox } from '../state/overview';
import { useAnswer } from '../ui/useAnswer';
import { mailroom } from '../../mailroom/client';
import type { Only } from '../../mailroom/border/held';
import { tickedMessages } from '../state/ticks';
import { heldWords, lookedWords, rowsWords } from './deskActs';
import { isGrouped, prefer, usePreferences } from '../state/preferences';
import { filterNames, viewName } from '../ui/naming';
import { useTitle } from '../ui/useTitle';
import { roundWords } from '../../core/delivery/rounds';
import { dueWords } from '../../core/text/time';
import { useNow } from '../ui/useNow';
import { count, messages } from '../../core/text/sentences';
import { OrderMenu } from './OrderMenu';
import { QueryLine } from './QueryLine';
import type { DeskView } from './useDeskView';

/** The filters that are offered: what is read is seldom looked for, but it can be ticked. */
export const shownFilters = filters.filter((filter) => filter !== 'read');

/** Groups the rows of the view, or of all views, or shows them singly. */
export function toggleGrouped(path: string): void {
  const preferences = usePreferences.getState();
  prefer({ grouped: { ...preferences.grouped, [path]: !isGrouped(preferences, path) } });
}

const onlyWords: Record<Only, string> = { all: 'All', unread: 'Unread only', read: 'Read only' };

/** What is ticked at one press: all that is shown here, or only what is unread or read, also beyond what is in sight. */
function TickMenu({ desk }: { desk: DeskView }) {
  const ticked = useDesk((s) => s.ticked);
  const revision = useMailbox((s) => s.revision);
  const { view, grouping } = desk;
  // Counted only while somebody looks: that goes through all of the view.
  const [looked, setLooked] = useState(false);
  const { value: counts } = useAnswer(
    () => (looked ? mailroom.heldCounts(view, grouping) : Promise.resolve(null)),
    looked ? `${JSON.stringify([view, grouping])} ${revision}` : '',
    0,
    JSON.stringify([view, grouping]),
  );
  return (
    <select
      className="select w-28 select-sm"
      aria-label="Tick"
      value=""
      onPointerEnter={() => setLooked(true)}
      onFocus={() => setLooked(true)}
      onChange={(event) => {
        const { value } = event.target;
        if (value === 'none') clearTicks();
        else tickOnly(view, grouping, value as Only);
      }}
    >
      <option value="" disabled hidden>
        {ticked.size ? 'Ticked …' : 'Tick …'}
      </option>
      {(['all', 'unread', 'read'] as const).map((only) => (
        <option key={only} value={only}>
          {onlyWords[only]}
          {counts && ` · ${heldWords(counts[only], grouping.grouped)}`}
        </option>
      ))}
      <option value="none">None</option>
    </select>
  );
}

/** One button of several of which one is on. */
const segment = (on: boolean) =>
  `btn join-item btn-sm font-normal ${on ? 'btn-primary' : 'btn-outline border-base-300'}`;

/** Grouped or singly, in rows or in lanes. */
function Picture({ desk: { where, grouping, go } }: { desk: DeskView }) {
  const path = viewPath(where.view);
  return (
    <div className="ml-auto flex flex-wrap items-center gap-2">
      <button
        className={`btn gap-1 font-normal btn-sm ${grouping.grouped ? 'btn-primary' : 'btn-outline border-base-300'}`}
        aria-pressed={grouping.grouped}
        onClick={() => toggleGrouped(path)}
        title={grouping.grouped ? 'Show single messages here (G)' : 'Gather messages into conversations here (G)'}
      >
        <Layers size={15} aria-hidden /> <span className="@max-3xl:sr-only">Conversations</span>
      </button>
      <div className="join" role="group" aria-label="Picture">
        <button
          className={segment(!where.lanes)}
          aria-pressed={!where.lanes}
          onClick={() => go({ lanes: false })}
          title="Rows (V)"
        >
          <Rows3 size={15} aria-hidden /> <span className="@max-3xl:sr-only">Rows</span>
        </button>
        <button
          className={segment(where.lanes)}
          aria-pressed={where.lanes}
          onClick={() => go({ lanes: true })}
          title="Lanes (V)"
        >
          <Columns3 size={15} aria-hidden /> <span className="@max-3xl:sr-only">Lanes</span>
        </button>
      </div>
    </div>
  );
}

/** The filters. */
function ShowOnly({ desk: { where, go, applyAgain } }: { desk: DeskView }) {
  return (
    <div className="join max-w-full overflow-x-auto" role="group" aria-label="Show">
      <button
        className={segment(where.show === null)}
        aria-pressed={where.show === null}
        onClick={() => go({ show: null })}
      >
        All
      </button>
      {shownFilters.map((filter) => (
        <button
          key={filter}
          className={segment(where.show === filter)}
          aria-pressed={where.show === filter}
          onClick={() => (where.show === filter ? applyAgain() : go({ show: filter }))}
          title={where.show === filter ? 'Apply again: what no longer fits leaves (P)' : `${filterNames[filter]} (O)`}
        >
          {filterNames[filter]}
        </button>
      ))}
    </div>
  );
}

/** One account, or all. */
function AccountChoice({ desk: { where, go }, overview }: { desk: DeskView; overview: Overview }) {
  const { setup, accounts } = overview;
  const numbers = (id: string) => accounts.find((a) => a.account === id) ?? { total: 0, unread: 0 };
  // Mail that came by a list, or as a blind copy, may name none of one’s addresses: it is found here.
  const offersNone = numbers(noAccount).total > 0 || where.account === noAccount;
  return (
    <select
      className="select w-44 select-sm @max-3xl:w-36"
      aria-label="Account"
      value={where.account === null ? 'all' : `account ${where.account}`}
      onChange={({ target: { value } }) => go({ account: value === 'all' ? null : value.slice(8), message: null })}
    >
      <option value="all">All accounts</option>
      {setup.accounts.map(({ id, name }) => (
        <option key={id} value={`account ${id}`}>
          {name} · {count(numbers(id).unread)} unread
        </option>
      ))}
      {offersNone && (
        <option value={`account ${noAccount}`}>To none of them · {count(numbers(noAccount).unread)} unread</option>
      )}
    </select>
  );
}

/** The way to clearing out what is here. */
function ToClearOut({ where }: { where: Where }) {
  const ticked = useDesk((s) => s.ticked);
  // What is ticked stays: that is what one ticks for. A great many ticks do not fit an address.
  const messages = ticked.size <= mostKept ? tickedMessages(ticked) : [];
  const kept = messages.length <= mostKept ? messages : [];
  return (
    <Link
      className="btn gap-1 font-normal btn-ghost btn-sm"
      data-key="clear-out"
      to={clearOutPath({ of: shownView(where), choice: { ...everythingGoes, keep: kept } })}
      title={
        kept.length
          ? `Clear out all but the ${count(kept.length)} ticked (Z)`
          : 'Clear out by age, state, sender, number (Z)'
      }
    >
      <PackageOpen size={15} aria-hidden /> <span className="@max-3xl:sr-only">Clear out</span>
    </Link>
  );
}

/** Of a tray: when it is delivered, and the way between what it delivered and what waits in it. */
function TrayEdge({ view, overview }: { view: View; overview: Overview }) {
  const now = useNow(30_000);
  if (view.kind !== 'place' || view.tray === undefined) return null;
  const { tray } = view;
  const its = overview.setup.trays.find(({ id }) => id === tray);
  const counts = overview.trays.find((one) => one.tray === tray);
  if (!its || !counts) return null;
  const sides = [
    ['inbox', `In the Inbox · ${count(counts.here)}`],
    ['held', `Waits · ${count(counts.waits)}`],
  ] as const;
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
      <nav className="join" aria-label="Tray">
        {sides.map(([place, words]) => (
          <Link
            key={place}
            className={segment(view.place === place)}
            aria-current={view.place === place ? 'page' : undefined}
            to={viewPath({ kind: 'place', place, tray })}
          >
            {words}
          </Link>
        ))}
      </nav>
      <span className="quiet text-sm">
        Delivered {roundWords(its.round)}
        {counts.next !== null && `, next ${dueWords(counts.next, now)}`}
      </span>
      <Link className="link text-sm" to={`/trays/${encodeURIComponent(tray)}`}>
        Change
      </Link>
    </div>
  );
}

/** The desk's edge: where one is, how many, what is shown of it and how. */
export function DeskEdge({ desk, overview, hidden }: { desk: DeskView; overview: Overview; hidden: boolean }) {
  const { where, totals, grouping, applyAgain } = desk;
  const { setup } = overview;
  useTitle(`${viewName(where.view, setup)}${totals?.unread ? ` · ${count(totals.unread)} unread` : ''}`);
  return (
    <header
      className={`@container relative z-11 flex-col gap-1.5 border-b border-base-300 px-4 py-2 ${hidden ? 'hidden lg:flex' : 'flex'}`}
      aria-label="Desk"
    >
      <div className="flex flex-wrap items-start gap-x-3 gap-y-1">
        <h1 className="text-xl leading-8 font-semibold">{viewName(where.view, setup)}</h1>
        {totals && (
          <p className="quiet leading-8" aria-live="polite">
            {grouping.grouped && `${rowsWords(totals)} · `}
            {messages(totals.messages)}
            {totals.unread > 0 && ` · ${count(totals.unread)} unread`}
            {totals.looked && ` so far · ${lookedWords(totals.looked)}`}
          </p>
        )}
        <QueryLine desk={desk} setup={setup} />
        <Picture desk={desk} />
      </div>
      <TrayEdge view={where.view} overview={overview} />
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <ShowOnly desk={desk} />
        {(where.show !== null || where.view.kind === 'found') && (
          <button className="btn gap-1 btn-ghost btn-sm" onClick={applyAgain} title="What no longer fits leaves (P)">
            <RefreshCw size={14} aria-hidden /> Apply again
          </button>
        )}
        <div className="ml-auto flex flex-wrap items-center gap-2">
          {setup.accounts.length > 1 && <AccountChoice desk={desk} overview={overview} />}
          <OrderMenu path={viewPath(where.view)} view={where.view} />
          <ToClearOut where={where} />
          <span className="max-md:hidden">
            <TickMenu desk={desk} />
          </span>
        </div>
      </div>
    </header>
  );
}
