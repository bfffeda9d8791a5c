import { CircleAlert, PanelLeftClose, PanelLeftOpen, PenLine, Wrench } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { useLocation } from 'react-router';
import { count } from '../../core/text/sentences';
import type { Overview } from '../../mailroom/border/overview';
import { writeNew } from '../state/drafts';
import { usePreferences } from '../state/preferences';
import { LinePlaces } from './LinePlaces';
import { LineTrack } from './LineTrack';
import { withinSetup, workPages } from '../pages';
import { PlaceLink } from './PlaceLink';

interface LineProps {
  overview: Overview;
  onGo: () => void;
}

/** The pages of the mailroom: its work, and one entry for all that is set up. */
function Mailroom({ overview, folded, onGo }: LineProps & { folded: boolean }) {
  const { pathname } = useLocation();
  return (
    <>
      <h2 className={folded ? 'sr-only' : 'quiet px-1 pt-2 pb-0.5 text-xs font-semibold'}>Mailroom</h2>
      <ul className="flex flex-col">
        {workPages.map(({ to, name, icon }) => (
          <PlaceLink key={to} to={to} name={name} icon={icon} folded={folded} onGo={onGo} />
        ))}
        <PlaceLink
          to="/setup"
          name="Set up"
          icon={Wrench}
          within={withinSetup.includes(pathname)}
          folded={folded}
          onGo={onGo}
        />
        {overview.damaged > 0 && (
          <PlaceLink
            to="/damaged"
            name={`Damaged (${count(overview.damaged)})`}
            icon={CircleAlert}
            folded={folded}
            onGo={onGo}
          />
        )}
      </ul>
    </>
  );
}

/**
 * The line: the sorting line as a track, then what lies where, then the pages of the mailroom. Only what lies where
 * scrolls: the rest is always in sight.
 */
export function Line({ overview, onGo }: LineProps) {
  const folded = usePreferences((s) => s.lineFolded);
  const { pathname } = useLocation();
  const nav = useRef<HTMLElement>(null);
  // Where one is, is in sight, also where there is more than the screen shows.
  useEffect(() => {
    nav.current?.querySelector('[aria-current="page"]')?.scrollIntoView({ block: 'nearest' });
  }, [pathname]);
  const common = { overview, folded, onGo };
  return (
    <nav
      ref={nav}
      aria-label="Sorting line and places"
      className="flex min-h-0 flex-1 flex-col overflow-y-auto px-3 pb-1"
    >
      <div className={`flex items-center gap-1 pt-3 pb-2 ${folded ? 'flex-col' : ''}`}>
        {!folded && <span className="flex-1 text-lg font-bold tracking-tight">Wide Sort</span>}
        <button
          className={`btn btn-outline btn-xs ${folded ? 'btn-square' : ''}`}
          onClick={() => {
            onGo();
            writeNew();
          }}
          title="Write a new message (Shift+W)"
          aria-keyshortcuts="Shift+W"
        >
          <PenLine size={14} aria-hidden /> <span className={folded ? 'sr-only' : ''}>Write</span>
        </button>
        <button
          className="btn btn-square btn-ghost btn-xs max-lg:hidden"
          onClick={() => usePreferences.setState({ lineFolded: !folded })}
          aria-label={folded ? 'Unfold the line' : 'Fold the line'}
          title={folded ? 'Unfold the line' : 'Fold the line'}
        >
          {folded ? <PanelLeftOpen size={16} /> : <PanelLeftClose size={16} />}
        </button>
      </div>
      <LineTrack {...common} />
      {/* Rows that are dragged to its edge scroll it (Frame.tsx). */}
      <div data-scrolls className="-mx-1 min-h-28 flex-1 overflow-y-auto px-1">
        <LinePlaces {...common} />
      </div>
      <div className="border-t border-base-300">
        <Mailroom {...common} />
      </div>
    </nav>
  );
}
