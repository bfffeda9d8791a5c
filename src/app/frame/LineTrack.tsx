import { RefreshCw } from 'lucide-react';
import { useState } from 'react';
import { NavLink } from 'react-router';
import { count } from '../../core/text/sentences';
import { shortTime } from '../../core/text/time';
import type { Overview } from '../../mailroom/border/overview';
import { checkPost } from '../state/post';

interface StationProps {
  to: string;
  name: string;
  today: number;
  last?: boolean;
  /** What stands in the way of mail there, in words; absent where nothing does. */
  barrier?: string;
  folded: boolean;
  onGo: () => void;
}

/** A station on the track: how much of today's mail it took, and the way to its settings. */
function Station({ to, name, today, last, barrier, folded, onGo }: StationProps) {
  return (
    <li className="relative">
      {barrier && <span aria-hidden className="barrier absolute -left-0.5 top-[1.55rem] z-10 h-1.5 w-6 rounded-sm" />}
      {!last && <span aria-hidden className="absolute top-4 bottom-[-1rem] left-[0.6rem] w-0.5 bg-primary" />}
      <NavLink
        to={to}
        onClick={onGo}
        title={`${name}: took ${count(today)} of today’s messages${barrier ? `. ${barrier}` : ''}`}
        className={({ isActive }) =>
          `relative flex items-center gap-2 rounded px-1 py-0.5 hover:bg-base-300 ${isActive && to !== '/inbox' ? 'bg-base-300 font-semibold' : ''}`
        }
      >
        <span aria-hidden className="size-3.5 shrink-0 rounded-full border-2 border-primary bg-base-100" />
        <span className={folded ? 'sr-only' : 'flex-1'}>{name}</span>
        {!folded && barrier && <span className="text-xs font-semibold whitespace-nowrap">{barrier}</span>}
        {!folded && !barrier && today > 0 && (
          <span className="quiet text-xs whitespace-nowrap tabular-nums">{count(today)} today</span>
        )}
      </NavLink>
    </li>
  );
}

/** Arrivals, at the top of the track: when the post office was last asked. */
function Arrivals({ overview, folded }: { overview: Overview; folded: boolean }) {
  const { post } = overview;
  const [checking, setChecking] = useState(false);
  const checkNow = async () => {
    setChecking(true);
    await checkPost();
    setChecking(false);
  };
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
            onClick={() => void checkNow()}
            disabled={checking}
            aria-label="Check now"
            title="Check now"
          >
            <RefreshCw size={14} className={checking ? 'motion-safe:animate-spin' : ''} />
          </button>
        )}
      </div>
    </li>
  );
}

/** The sorting line as a track: arrivals at the top, the Inbox at the bottom. */
export function LineTrack({ overview, folded, onGo }: { overview: Overview; folded: boolean; onGo: () => void }) {
  const { stations, waiting } = overview;
  return (
    <>
      <h2 className={folded ? 'sr-only' : 'quiet px-1 pb-1 text-xs font-semibold'}>Sorting line</h2>
      <ol className="flex flex-col gap-0.5">
        <Arrivals overview={overview} folded={folded} />
        {stations.map(({ id, name, page, today }, at) => (
          <Station
            key={id}
            to={page}
            name={name}
            today={today}
            last={at === stations.length - 1}
            barrier={
              id === 'hold' && waiting.by !== null
                ? waiting.waits > 0
                  ? `${count(waiting.waits)} held`
                  : 'on'
                : undefined
            }
            folded={folded}
            onGo={onGo}
          />
        ))}
      </ol>
    </>
  );
}
