import { ChevronDown, ChevronRight, Flag, Paperclip } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import type { Setup } from '../../core/line/setup';
import { placeName } from '../../core/mail/place';
import type { ConversationMember } from '../../mailroom/border/conversations';
import type { Row } from '../../mailroom/border/rows';
import { exactTime, isoTime } from '../../core/text/time';
import { Message } from './Message';

interface MemberItemProps {
  member: ConversationMember;
  depth: number;
  /** Whom it answers, where that is shown by where it stands. */
  answers: string | null;
  asTree: boolean;
  chosen: boolean;
  open: boolean;
  setup: Setup;
  onToggle: () => void;
}

/** Deeper answers are set in no further: the lines would have no room left. */
const deepest = 8;

/** Who wrote a message, as its line says. */
export const whoWrote = (row: Row): string => (row.own ? 'You' : row.from.name || row.from.address || 'No sender');

/** The message itself, read once it comes near the screen: of a hundred opened at once most are far below. */
function Near({ member, setup, at }: { member: ConversationMember; setup: Setup; at: boolean }) {
  const element = useRef<HTMLDivElement>(null);
  const [near, setNear] = useState(at);
  useEffect(() => {
    if (!element.current || near) return;
    const observer = new IntersectionObserver(([entry]) => entry.isIntersecting && setNear(true), {
      rootMargin: '600px',
    });
    observer.observe(element.current);
    return () => observer.disconnect();
  }, [near]);
  return (
    <div ref={element} className="min-h-16">
      {near && <Message row={member.row} setup={setup} />}
    </div>
  );
}

/** A message of a conversation: one line, and the message below it when it is opened. */
export function MemberItem({ member, depth, answers, asTree, chosen, open, setup, onToggle }: MemberItemProps) {
  const { row } = member;
  const who = whoWrote(row);
  const inset = Math.min(depth, deepest);
  return (
    <li
      id={`member-${row.id}`}
      aria-current={chosen || undefined}
      data-depth={asTree ? depth : undefined}
      className={`relative scroll-mt-28 border-b border-base-300 ${row.unread ? 'sealed' : ''} ${chosen ? 'bg-base-200' : ''}`}
      style={asTree ? { paddingLeft: `${inset * 1.1}rem` } : undefined}
    >
      {asTree &&
        Array.from({ length: inset }, (_, i) => (
          <span
            key={i}
            aria-hidden
            className="absolute inset-y-0 w-px bg-primary/40"
            style={{ left: `${i * 1.1 + 0.9}rem` }}
          />
        ))}
      <button
        id={`line-${row.id}`}
        className="flex w-full items-baseline gap-2 px-3 py-1.5 text-left hover:bg-base-200"
        aria-expanded={open}
        onClick={onToggle}
      >
        {open ? (
          <ChevronDown size={14} aria-hidden className="shrink-0 self-center" />
        ) : (
          <ChevronRight size={14} aria-hidden className="shrink-0 self-center" />
        )}
        {row.unread && <span className="sr-only">Unread.</span>}
        {answers !== null && <span className="sr-only">Answers {answers}.</span>}
        <span className={`max-w-48 shrink-0 truncate ${row.unread ? 'font-bold' : 'font-semibold'}`} dir="auto">
          {who}
        </span>
        <span className="quiet min-w-0 flex-1 truncate text-sm" dir="auto">
          {open ? '' : row.preview}
        </span>
        {row.attachments > 0 && <Paperclip size={13} aria-label="With attachments" className="quiet shrink-0" />}
        {row.flagged && <Flag size={13} aria-label="Flagged" fill="currentColor" className="shrink-0 text-accent" />}
        {row.late && <span className="shrink-0 text-xs font-semibold text-accent">late</span>}
        {row.place !== 'inbox' && (
          <span className="quiet shrink-0 text-xs max-sm:hidden">{placeName(row.place, setup.folders)}</span>
        )}
        <time className="quiet shrink-0 text-xs tabular-nums" dateTime={isoTime(row.date)}>
          {exactTime(row.date)}
        </time>
      </button>
      {open && <Near member={member} setup={setup} at={chosen} />}
    </li>
  );
}
