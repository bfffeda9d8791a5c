import {
  Archive,
  AtSign,
  BellRing,
  CalendarDays,
  CircleAlert,
  ContactRound,
  Folder,
  HardDriveDownload,
  Inbox,
  NotebookText,
  PanelLeftClose,
  PanelLeftOpen,
  PackageOpen,
  RefreshCw,
  Search,
  SearchX,
  Send,
  ShieldX,
  SlidersHorizontal,
  SquarePen,
  Tags,
  Trash2,
  Users,
  type LucideIcon,
} from 'lucide-react';
import { useMailbox } from '../state/overview';
import { useAnswer } from '../ui/useAnswer';
import { useDroppable } from '@dnd-kit/core';
import { Fragment, useEffect, useRef, type ReactNode } from 'react';
import { NavLink, useLocation } from 'react-router';
import { inTree } from '../../core/mail/nesting';
import { fixedPlaces, fixedPlace, type Place, placeName, placeTraits } from '../../core/mail/place';
import type { Overview } from '../../mailroom/border/overview';
import type { Act, View } from '../../mailroom/border/views';
import { mailroom } from '../../mailroom/client';
import { viewPath } from '../paths';
import { prefer, usePreferences } from '../state/preferences';
import { shortTime } from '../../core/text/time';
import { count } from '../../core/text/sentences';

const icons: Partial<Record<Place, LucideIcon>> = {
  inbox: Inbox,
  archive: Archive,
  junk: ShieldX,
  bin: Trash2,
  sent: Send,
  drafts: SquarePen,
};

interface StationProps {
  to: string;
  name: string;
  today: number;
  last?: boolean;
  folded: boolean;
  onGo: () => void;
}

/** A station on the track: how much of today's mail it took, and the way to its settings. */
function Station({ to, name, today, last, folded, onGo }: StationProps) {
  return (
    <li className="relative">
      {!last && <span aria-hidden className="absolute top-4 bottom-[-1rem] left-[0.6rem] w-0.5 bg-primary" />}
      <NavLink
        to={to}
        onClick={onGo}
        title={`${name}: took ${count(today)} of today’s messages`}
        className={({ isActive }) =>
          `relative flex items-center gap-2 rounded px-1 py-0.5 hover:bg-base-300 ${isActive && to !== '/inbox' ? 'bg-base-300 font-semibold' : ''}`
        }
      >
        <span aria-hidden className="size-3.5 shrink-0 rounded-full border-2 border-primary bg-base-100" />
        <span className={folded ? 'sr-only' : 'flex-1'}>{name}</span>
        {!folded && <span className="quiet text-xs whitespace-nowrap tabular-nums">{count(today)} today</span>}
      </NavLink>
    </li>
  );
}

/** Arrivals, at the top of the track: when the post office was last asked. */
function Arrivals({ overview, folded }: { overview: Overview; folded: boolean }) {
  const { post } = overview;
  return (
    <li className="relative">
      <span aria-hidden className="absolute top-4 bottom-[-1rem] left-[0.6rem] w-0.5 bg-primary" />
      <div className="relative flex items-center gap-2 px-1 py-1">
        <span aria-hidden className="size-3.5 shrink-0 rounded-full bg-primary" />
        <span className={folded ? 'sr-only' : 'min-w-0 flex-1'}>
          Arrivals
          <span
            className={`block truncate text-xs ${post.error ? 'font-semibold text-error' : 'quiet'}`}
            title={post.error ?? undefined}
          >
            {!post.on
              ? 'no post office'
              : (post.error ??
                (post.lastChecked === null
                  ? 'checking …'
                  : `checked ${shortTime(post.lastChecked, post.lastChecked)}`))}
          </span>
        </span>
        {post.on && !folded && (
          <button
            className="btn btn-square btn-ghost btn-xs"
            onClick={() => void mailroom.checkNow()}
            aria-label="Check now"
            title="Check now"
          >
            <RefreshCw size={14} />
          </button>
        )}
      </div>
    </li>
  );
}

interface Numbers {
  total: number;
  unread: number;
}

/** What rows can be dropped on: a place, or a label. */
function Drop({ id, act, depth = 0, children }: { id: string; act: Act | null; depth?: number; children: ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id, data: { act }, disabled: act === null });
  return (
    <li
      ref={setNodeRef}
      style={depth ? { paddingLeft: `${Math.min(depth, 4) * 0.75}rem` } : undefined}
      className={`flex items-center rounded ${isOver ? 'drop-here' : ''}`}
    >
      {children}
    </li>
  );
}

/** The number beside a place or label: unread or in all, as the person chose; a press changes it. */
function Count({ path, name, total, unread }: Numbers & { path: string; name: string }) {
  const counts = usePreferences((s) => s.counts);
  const shows = counts[path] ?? 'unread';
  const other = shows === 'unread' ? 'total' : 'unread';
  const words = shows === 'unread' ? `${count(unread)} unread` : `${count(total)} in all`;
  return (
    <button
      className="quiet min-h-6 shrink-0 rounded px-1 text-xs whitespace-nowrap tabular-nums hover:bg-base-300"
      onClick={() => prefer({ counts: { ...counts, [path]: other } })}
      aria-label={`${name}: ${words}. Count ${other === 'total' ? 'all' : 'unread'} instead`}
      title={other === 'total' ? 'Count all instead' : 'Count unread instead'}
    >
      {words}
    </button>
  );
}

interface LinkRowProps {
  to: string;
  name: string;
  icon: LucideIcon;
  folded: boolean;
  onGo: () => void;
  /** What is shown beside it and can be dropped on it; absent for what is no place. */
  place?: Place;
  /** How deep it stands within others. */
  depth?: number;
  numbers?: Numbers;
}

const linkStyle = (isActive: boolean) =>
  `flex min-h-6.5 min-w-0 flex-1 items-center gap-2 rounded px-1 hover:bg-base-300 ${isActive ? 'bg-base-300 font-semibold' : ''}`;

function PlaceLink({ to, name, icon: Icon, folded, onGo, place, depth, numbers }: LinkRowProps) {
  const title = numbers ? `${name}: ${count(numbers.total)} in all, ${count(numbers.unread)} unread` : name;
  const act: Act | null = place && placeTraits(place).target ? { do: 'move', place } : null;
  return (
    <Drop id={`place-${to}`} act={act} depth={depth}>
      <NavLink
        to={to}
        onClick={onGo}
        title={title}
        className={({ isActive }) => linkStyle(isActive && to !== '/inbox')}
      >
        <Icon size={16} aria-hidden className="shrink-0" />
        <span className={folded ? 'sr-only' : 'min-w-0 flex-1 truncate'}>{name}</span>
      </NavLink>
      {!folded && numbers && <Count path={to} name={name} {...numbers} />}
    </Drop>
  );
}

/** A part of what stands below the track. `heading`: the style of its heading. */
interface PartProps {
  overview: Overview;
  heading: string;
  folded: boolean;
  onGo: () => void;
}

/** The saved searches, each with what it finds now. */
function Searches({ overview: { setup }, heading, folded, onGo }: PartProps) {
  const revision = useMailbox((s) => s.revision);
  const { searches } = setup;
  const views = searches.map(({ query, within }): View => ({ kind: 'found', query, within }));
  const question = JSON.stringify(views);
  const { value } = useAnswer(
    async () => ({ question, counts: views.length ? await mailroom.counts(views) : [] }),
    `${question} ${revision}`,
  );
  const counts = value?.question === question ? value.counts : null;
  if (searches.length === 0) return null;
  return (
    <>
      <h2 className={heading}>Searches</h2>
      <ul className="flex flex-col">
        {searches.map(({ id, name }, at) => (
          <PlaceLink
            key={id}
            to={viewPath(views[at])}
            name={name}
            icon={Search}
            numbers={counts?.[at]}
            folded={folded}
            onGo={onGo}
          />
        ))}
      </ul>
    </>
  );
}

/** The labels, nested, each with its ink. */
function Labels({ overview, heading, folded, onGo }: PartProps) {
  const { setup } = overview;
  if (setup.labels.length === 0) return null;
  return (
    <>
      <h2 className={heading}>Labels</h2>
      <ul className="flex flex-col">
        {inTree(setup.labels).map(({ item: label, depth }) => {
          const view: View = { kind: 'label', label: label.id };
          const { total = 0, unread = 0 } = overview.labels.find((l) => l.label === label.id) ?? {};
          return (
            <Drop
              key={label.id}
              id={`label-${label.id}`}
              act={{ do: 'label', label: label.id, value: true }}
              depth={folded ? 0 : depth}
            >
              <NavLink
                to={viewPath(view)}
                onClick={onGo}
                title={label.name}
                className={({ isActive }) => linkStyle(isActive)}
              >
                <span className={`ink ink-${label.ink}`}>{folded ? label.name.slice(0, 2) : label.name}</span>
              </NavLink>
              {!folded && <Count path={viewPath(view)} name={label.name} total={total} unread={unread} />}
            </Drop>
          );
        })}
      </ul>
    </>
  );
}

/** The pages that belong to no place. */
function Mailroom({ overview, heading, ...common }: PartProps) {
  return (
    <>
      <h2 className={heading}>Mailroom</h2>
      <ul className="flex flex-col">
        <PlaceLink to="/agenda" name="Agenda" icon={CalendarDays} {...common} />
        <PlaceLink to="/clear-out" name="Clear-out" icon={PackageOpen} {...common} />
        <PlaceLink to="/senders" name="Senders" icon={Users} {...common} />
        <PlaceLink to="/labels" name="Labels and folders" icon={Tags} {...common} />
        <PlaceLink to="/logbook" name="Logbook" icon={NotebookText} {...common} />
        <PlaceLink to="/mail" name="Mail in and out" icon={HardDriveDownload} {...common} />
        <PlaceLink to="/where" name="Where did my mail go?" icon={SearchX} {...common} />
        <PlaceLink to="/contacts" name="Contacts" icon={ContactRound} {...common} />
        <PlaceLink to="/accounts" name="Accounts" icon={AtSign} {...common} />
        <PlaceLink to="/telling" name="Being told" icon={BellRing} {...common} />
        <PlaceLink to="/desk" name="The desk" icon={SlidersHorizontal} {...common} />
        {overview.damaged > 0 && (
          <PlaceLink to="/damaged" name={`Damaged (${count(overview.damaged)})`} icon={CircleAlert} {...common} />
        )}
      </ul>
    </>
  );
}

/** The line: the sorting line as a track, then places, folders and labels. */
export function Line({ overview, onGo }: { overview: Overview; onGo: () => void }) {
  const folded = usePreferences((s) => s.lineFolded);
  const { setup, stations, places } = overview;
  const { pathname } = useLocation();
  const nav = useRef<HTMLElement>(null);
  // Where one is, is in sight, also where the line is longer than the screen.
  useEffect(() => {
    nav.current?.querySelector('[aria-current="page"]')?.scrollIntoView({ block: 'nearest' });
  }, [pathname]);
  const heading = folded ? 'sr-only' : 'quiet px-1 pt-2.5 pb-0.5 text-xs font-semibold';
  const common = { folded, onGo };
  const numbersOf = (place: Place) => places.find((p) => p.place === place) ?? { total: 0, unread: 0 };
  const link = (place: Place, depth = 0) => {
    const numbers = numbersOf(place);
    return (
      <PlaceLink
        key={place}
        to={viewPath({ kind: 'place', place })}
        name={placeName(place, setup.folders)}
        icon={icons[place] ?? Folder}
        place={place}
        depth={depth}
        numbers={numbers}
        {...common}
      />
    );
  };
  return (
    <nav
      ref={nav}
      aria-label="Sorting line and places"
      className="flex min-h-0 flex-1 flex-col overflow-y-auto px-3 pb-3"
    >
      <div className="flex items-center gap-2 pt-3 pb-2">
        {!folded && <span className="flex-1 text-lg font-bold tracking-tight">Wide Sort</span>}
        <button
          className="btn btn-square btn-ghost btn-xs max-lg:hidden"
          onClick={() => usePreferences.setState({ lineFolded: !folded })}
          aria-label={folded ? 'Unfold the line' : 'Fold the line'}
          title={folded ? 'Unfold the line' : 'Fold the line'}
        >
          {folded ? <PanelLeftOpen size={16} /> : <PanelLeftClose size={16} />}
        </button>
      </div>
      <h2 className={folded ? 'sr-only' : 'quiet px-1 pb-1 text-xs font-semibold'}>Sorting line</h2>
      <ol className="flex flex-col gap-0.5">
        <Arrivals overview={overview} folded={folded} />
        {stations.map(({ id, name, page, today }, at) => (
          <Station key={id} to={page} name={name} today={today} last={at === stations.length - 1} {...common} />
        ))}
      </ol>
      <h2 className={heading}>Places</h2>
      <ul className="flex flex-col">
        {fixedPlaces
          .filter((place) => !fixedPlace(place).onceUsed || numbersOf(place).total > 0)
          .map((place) => (
            <Fragment key={place}>
              {link(place)}
              {place === 'junk' && !folded && overview.newJunk > 0 && (
                <li className="pl-7">
                  <NavLink to="/second-look" onClick={onGo} className="link flex min-h-6 items-center text-sm">
                    {count(overview.newJunk)} new: second look
                  </NavLink>
                </li>
              )}
            </Fragment>
          ))}
      </ul>
      {setup.folders.length > 0 && (
        <>
          <h2 className={heading}>Folders</h2>
          <ul className="flex flex-col">
            {inTree(setup.folders).map(({ item, depth }) => link(`folder:${item.id}`, folded ? 0 : depth))}
          </ul>
        </>
      )}
      <Labels overview={overview} heading={heading} {...common} />
      <Searches overview={overview} heading={heading} {...common} />
      <Mailroom overview={overview} heading={heading} {...common} />
    </nav>
  );
}
