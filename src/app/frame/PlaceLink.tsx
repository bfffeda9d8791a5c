import { useDroppable } from '@dnd-kit/core';
import type { LucideIcon } from 'lucide-react';
import type { ReactNode } from 'react';
import { NavLink } from 'react-router';
import { type Place, placeTraits } from '../../core/mail/place';
import { count } from '../../core/text/sentences';
import type { Act } from '../../mailroom/border/views';
import { prefer, usePreferences } from '../state/preferences';

export interface Numbers {
  total: number;
  unread: number;
  /** Which of them is shown where nothing was chosen; unread where it is absent. */
  usual?: 'total';
}

/** What rows can be dropped on: a place, or a label. */
export function Drop({
  id,
  act,
  depth = 0,
  children,
}: {
  id: string;
  act: Act | null;
  depth?: number;
  children: ReactNode;
}) {
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
export function Count({ path, name, total, unread, usual }: Numbers & { path: string; name: string }) {
  const counts = usePreferences((s) => s.counts);
  const shows = counts[path] ?? usual ?? 'unread';
  const other = shows === 'unread' ? 'total' : 'unread';
  const number = shows === 'unread' ? unread : total;
  const words = shows === 'unread' ? `${count(unread)} unread` : `${count(total)} in all`;
  // Nothing is not counted; where one points, it says what would be.
  const none = number === 0 ? 'opacity-0 hover:opacity-100 focus-visible:opacity-100' : '';
  return (
    <button
      className={`quiet min-h-6 shrink-0 rounded px-1 text-xs whitespace-nowrap tabular-nums hover:bg-base-300 ${none}`}
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
  /** Whether one is there, or on a page that stands within it. */
  within?: boolean;
  /** How deep it stands within others. */
  depth?: number;
  numbers?: Numbers;
}

export const linkStyle = (isActive: boolean) =>
  `flex min-h-6.5 min-w-0 flex-1 items-center gap-2 rounded px-1 hover:bg-base-300 ${isActive ? 'bg-base-300 font-semibold' : ''}`;

export function PlaceLink({ to, name, icon: Icon, folded, onGo, place, within, depth, numbers }: LinkRowProps) {
  const title = numbers ? `${name}: ${count(numbers.total)} in all, ${count(numbers.unread)} unread` : name;
  const act: Act | null = place && placeTraits(place).target ? { do: 'move', place } : null;
  return (
    <Drop id={`place-${to}`} act={act} depth={depth}>
      <NavLink
        to={to}
        onClick={onGo}
        title={title}
        className={({ isActive }) => linkStyle((isActive && to !== '/inbox') || within === true)}
      >
        <Icon size={16} aria-hidden className="shrink-0" />
        <span className={folded ? 'sr-only' : 'min-w-0 flex-1 truncate'}>{name}</span>
      </NavLink>
      {!folded && numbers && <Count path={to} name={name} {...numbers} />}
    </Drop>
  );
}
