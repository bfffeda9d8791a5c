import {
  Archive,
  CircleAlert,
  Folder,
  HardDriveDownload,
  Inbox,
  NotebookText,
  PanelLeftClose,
  PanelLeftOpen,
  RefreshCw,
  Send,
  ShieldX,
  SquarePen,
  Trash2,
  type LucideIcon,
} from 'lucide-react';
import { NavLink } from 'react-router';
import { stationNames } from '../../core/line/decide';
import type { Place } from '../../core/mail/place';
import { placeName } from '../../core/mail/place';
import type { Overview } from '../../mailroom/api';
import { mailroom } from '../../mailroom/client';
import { viewPath } from '../paths';
import { usePreferences } from '../state/preferences';
import { shortTime } from '../ui/time';
import { count } from '../ui/words';

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
          `relative flex items-center gap-2 rounded px-1 py-1 hover:bg-base-300 ${isActive && to !== '/inbox' ? 'bg-base-300 font-semibold' : ''}`
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

interface LinkRowProps {
  to: string;
  name: string;
  icon: LucideIcon;
  total: number;
  unread?: number;
  folded: boolean;
  onGo: () => void;
}

function PlaceLink({ to, name, icon: Icon, total, unread = 0, folded, onGo }: LinkRowProps) {
  return (
    <li>
      <NavLink
        to={to}
        onClick={onGo}
        title={total ? `${name}: ${count(total)} in all, ${count(unread)} unread` : name}
        className={({ isActive }) =>
          `flex items-center gap-2 rounded px-1 py-1 hover:bg-base-300 ${isActive && to !== '/inbox' ? 'bg-base-300 font-semibold' : ''}`
        }
      >
        <Icon size={16} aria-hidden className="shrink-0" />
        <span className={folded ? 'sr-only' : 'min-w-0 flex-1 truncate'}>{name}</span>
        {!folded && unread > 0 && (
          <span className="quiet text-xs whitespace-nowrap tabular-nums">{count(unread)} unread</span>
        )}
      </NavLink>
    </li>
  );
}

/** The line: the sorting line as a track, then places, folders and labels. */
export function Line({ overview, onGo }: { overview: Overview; onGo: () => void }) {
  const folded = usePreferences((s) => s.lineFolded);
  const { setup, today, places } = overview;
  const heading = folded ? 'sr-only' : 'quiet px-1 pt-4 pb-1 text-xs font-semibold';
  const common = { folded, onGo };
  const link = (place: Place) => {
    const numbers = places.find((p) => p.place === place);
    return (
      <PlaceLink
        key={place}
        to={viewPath({ kind: 'place', place })}
        name={placeName(place, setup.folders)}
        icon={icons[place] ?? Folder}
        total={numbers?.total ?? 0}
        unread={numbers?.unread ?? 0}
        {...common}
      />
    );
  };
  return (
    <nav aria-label="Sorting line and places" className="flex min-h-0 flex-1 flex-col overflow-y-auto px-3 pb-3">
      <div className="flex items-center gap-2 py-3">
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
      <ol className="flex flex-col gap-1">
        <Arrivals overview={overview} folded={folded} />
        <Station to="/register" name={stationNames.register} today={today.register} {...common} />
        <Station to="/rules" name={stationNames.rules} today={today.rules} {...common} />
        <Station to="/inbox" name={stationNames.inbox} today={today.inbox} last {...common} />
      </ol>
      <h2 className={heading}>Places</h2>
      <ul className="flex flex-col">
        {(['inbox', 'archive', 'junk', 'bin', 'sent'] as const).map(link)}
        {(places.find((p) => p.place === 'drafts')?.total ?? 0) > 0 && link('drafts')}
      </ul>
      {setup.folders.length > 0 && (
        <>
          <h2 className={heading}>Folders</h2>
          <ul className="flex flex-col">{setup.folders.map((f) => link(`folder:${f.id}`))}</ul>
        </>
      )}
      {setup.labels.length > 0 && (
        <>
          <h2 className={heading}>Labels</h2>
          <ul className="flex flex-col">
            {setup.labels.map((label) => (
              <li key={label.id}>
                <NavLink
                  to={viewPath({ kind: 'label', label: label.id })}
                  onClick={onGo}
                  title={label.name}
                  className={({ isActive }) =>
                    `flex items-center gap-2 rounded px-1 py-1 hover:bg-base-300 ${isActive ? 'bg-base-300' : ''}`
                  }
                >
                  <span className={`ink ink-${label.ink}`}>{folded ? label.name.slice(0, 2) : label.name}</span>
                  {!folded && (
                    <span className="quiet ml-auto text-xs whitespace-nowrap tabular-nums">
                      {count(overview.labels.find((l) => l.label === label.id)?.total ?? 0)} in all
                    </span>
                  )}
                </NavLink>
              </li>
            ))}
          </ul>
        </>
      )}
      <h2 className={heading}>Mailroom</h2>
      <ul className="flex flex-col">
        <PlaceLink to="/logbook" name="Logbook" icon={NotebookText} total={0} {...common} />
        <PlaceLink to="/mail" name="Mail in and out" icon={HardDriveDownload} total={0} {...common} />
        {overview.damaged > 0 && (
          <PlaceLink
            to="/damaged"
            name={`Damaged (${count(overview.damaged)})`}
            icon={CircleAlert}
            total={overview.damaged}
            {...common}
          />
        )}
      </ul>
    </nav>
  );
}
