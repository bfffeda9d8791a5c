import { Link } from 'react-router';
import { BellOff, BellRing, ChevronsDownUp, ChevronsUpDown, ListTree, Scissors, Layers } from 'lucide-react';
import { useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import { stack, tree } from '../../core/conversations/order';
import type { Setup } from '../../core/line/setup';
import type { ConversationMember, OpenConversation } from '../../mailroom/border/conversations';
import { act } from '../state/desk';
import { prefer, usePreferences } from '../state/preferences';
import { conversationWords } from '../ui/naming';
import { messages } from '../../core/text/sentences';
import { Attachments } from './Attachments';
import { MemberItem, whoWrote } from './MemberItem';
import { ThinDialog } from './ThinDialog';

interface ConversationProps {
  id: number;
  open: OpenConversation;
  setup: Setup;
  elsewhere: boolean;
  onElsewhere: (on: boolean) => void;
  /** Back to the single message; null where rows are conversations. */
  onSingle: (() => void) | null;
}

/** So many lines are on the page at once; more at a press. */
const most = 60;
const more = 200;
/** Unread messages that open by themselves; of a hundred nobody reads all at once. */
const mostOpen = 6;

/** All attachments of a conversation in one strip, each at hand without looking for its message. */
function Strip({ members }: { members: readonly ConversationMember[] }) {
  const all = members.flatMap(({ row, attachments }) =>
    attachments.map((attachment, index) => ({
      id: row.id,
      index,
      attachment,
      from: row.from.name || row.from.address,
    })),
  );
  if (all.length === 0) return null;
  return (
    <div className="border-b border-base-300 px-4 py-2">
      <Attachments
        label="Attachments of the conversation"
        list={all}
        className="max-h-24 overflow-y-auto max-md:max-h-40"
      />
    </div>
  );
}

interface ToolbarProps extends Omit<ConversationProps, 'setup'> {
  /** Whether all that is in sight is open. */
  allOpen: boolean;
  onOpenAll: () => void;
  onThin: () => void;
}

/** What can be done with a conversation, and how it is shown. */
function Toolbar({ id, open, elsewhere, onElsewhere, onSingle, allOpen, onOpenAll, onThin }: ToolbarProps) {
  const { newestFirst, picture } = usePreferences();
  const button = 'btn btn-ghost btn-xs';
  const silence = (value: boolean, place: 'archive' | 'bin') =>
    void act({ ids: [id] }, { do: 'silence', value, place });
  return (
    <div className="flex flex-wrap items-center gap-1" role="toolbar" aria-label="Conversation">
      <button
        className={button}
        data-key="picture"
        aria-pressed={picture === 'tree'}
        onClick={() => prefer({ picture: picture === 'tree' ? 'stack' : 'tree' })}
        title="Stack or tree (K)"
      >
        {picture === 'tree' ? <Layers size={14} aria-hidden /> : <ListTree size={14} aria-hidden />}
        {picture === 'tree' ? 'As a stack' : 'As a tree'}
      </button>
      <button className={button} onClick={() => prefer({ newestFirst: !newestFirst })} aria-pressed={newestFirst}>
        {newestFirst ? 'Newest first' : 'Oldest first'}
      </button>
      <button className={button} data-key="unfold" onClick={onOpenAll} title="Open all, close all (E)">
        {allOpen ? <ChevronsDownUp size={14} aria-hidden /> : <ChevronsUpDown size={14} aria-hidden />}
        {allOpen ? 'Close all' : 'Open all'}
      </button>
      <button className={button} data-key="thin-out" onClick={onThin} title="Thin out (T)">
        <Scissors size={14} aria-hidden /> Thin out …
      </button>
      {open.silenced ? (
        <button className={button} data-key="silence" onClick={() => silence(false, 'archive')} title="(S)">
          <BellRing size={14} aria-hidden /> End the silence
        </button>
      ) : (
        <>
          <button
            className={button}
            data-key="silence"
            onClick={() => silence(true, 'archive')}
            title="To the Archive, and later answers pass the Inbox by (S)"
          >
            <BellOff size={14} aria-hidden /> Silence
          </button>
          <button
            className={button}
            data-key="silence-bin"
            onClick={() => silence(true, 'bin')}
            title="To the Bin, and later answers pass the Inbox by (Shift+S)"
          >
            Silence and bin
          </button>
        </>
      )}
      {(open.elsewhere > 0 || elsewhere) && (
        <label className="flex items-center gap-1.5 px-2 text-xs" title="For this conversation, this once">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={elsewhere}
            onChange={(event) => onElsewhere(event.target.checked)}
          />
          With other places{open.elsewhere > 0 && ` (${open.elsewhere} more)`}
        </label>
      )}
      {onSingle && (
        <button className={button} data-key="whole" onClick={onSingle} title="(H)">
          This message alone
        </button>
      )}
    </div>
  );
}

const hands = ['wheel', 'pointerdown', 'touchmove'] as const;

/**
 * Brings the open message into sight, and keeps it there while the texts above it come, until somebody moves on. `picture`:
 * how the messages stand; in another, and as all are opened or closed, it is sought anew.
 */
function useInSight(list: RefObject<HTMLElement | null>, id: number, picture: string): void {
  useEffect(() => {
    const show = () => document.getElementById(`member-${id}`)?.scrollIntoView({ block: 'start' });
    const scroller = list.current?.closest<HTMLElement>('[data-reading]');
    show();
    const grown = new ResizeObserver(show);
    const stop = () => grown.disconnect();
    if (list.current) grown.observe(list.current);
    for (const hand of hands) scroller?.addEventListener(hand, stop, { passive: true });
    // The list has the focus while keys scroll the message.
    addEventListener('keydown', stop);
    return () => {
      stop();
      removeEventListener('keydown', stop);
      for (const hand of hands) scroller?.removeEventListener(hand, stop);
    };
  }, [list, id, picture]);
}

function ShowMore({ of, onShow }: { of: string; onShow: () => void }) {
  return (
    <p className="px-4 py-2">
      <button className="link text-sm" onClick={onShow}>
        Show more of the {of} these
      </button>
    </p>
  );
}

/** A conversation: what it holds in words, what can be done with it, and its messages as a stack or as a tree. */
export function Conversation({ id, open, setup, elsewhere, onElsewhere, onSingle }: ConversationProps) {
  const { newestFirst, picture } = usePreferences();
  const { members } = open;
  const [opened, setOpened] = useState<ReadonlySet<number>>(() => {
    const unread = members.filter(({ row }) => row.unread).slice(-mostOpen);
    return new Set([id, ...unread.map(({ row }) => row.id)]);
  });
  const [shown, setShown] = useState(most);
  const [thinning, setThinning] = useState(false);
  const placed = useMemo(() => {
    const list = members.map((member) => ({
      id: member.row.id,
      parent: member.parent,
      date: member.row.date,
      member,
    }));
    return (picture === 'tree' ? tree : stack)(list, newestFirst);
  }, [members, newestFirst, picture]);
  // The open message is among what is shown, wherever it stands.
  const at = placed.findIndex(({ member }) => member.id === id);
  const from = Math.max(0, Math.min(at - Math.floor(shown / 2), placed.length - shown));
  const inSight = placed.slice(from, from + shown);
  const list = useRef<HTMLOListElement>(null);
  const [unfolded, setUnfolded] = useState(0);
  useInSight(list, id, `${picture} ${newestFirst} ${unfolded}`);
  const answered = (parent: number | null) => {
    const found = members.find(({ row }) => row.id === parent);
    return found ? whoWrote(found.row) : null;
  };
  const toggle = (member: number) => {
    const next = new Set(opened);
    if (!next.delete(member)) next.add(member);
    setOpened(next);
  };
  const showMore = () => setShown(shown + more);
  const allOpen = inSight.every(({ member }) => opened.has(member.id));
  return (
    <div>
      <header className="sticky top-0 z-10 flex flex-col gap-1 border-b border-base-300 bg-base-100 px-4 py-2 max-lg:static">
        <h2 className="line-clamp-2 text-lg leading-snug font-semibold [overflow-wrap:anywhere]" dir="auto">
          {members[0]?.row.subject || 'No subject'}
        </h2>
        <p className="text-sm">
          {conversationWords(open)}
          {open.unread > 0 && <span className="font-semibold"> · {open.unread} unread</span>}
          {open.silenced && (
            <span className="font-semibold">
              {' '}
              · silenced: answers pass the Inbox by (
              <Link className="link" to="/silenced">
                all that are
              </Link>
              )
            </span>
          )}
        </p>
        <Toolbar
          id={id}
          open={open}
          elsewhere={elsewhere}
          onElsewhere={onElsewhere}
          onSingle={onSingle}
          allOpen={allOpen}
          onOpenAll={() => {
            setOpened(allOpen ? new Set([id]) : new Set(inSight.map(({ member }) => member.id)));
            setUnfolded(unfolded + 1);
          }}
          onThin={() => setThinning(true)}
        />
      </header>
      <Strip members={members} />
      {from > 0 && <ShowMore of={`${messages(from)} before`} onShow={showMore} />}
      <ol ref={list} aria-label={picture === 'tree' ? 'Who answered whom' : 'Messages of the conversation'}>
        {inSight.map(({ member, depth }) => (
          <MemberItem
            key={member.id}
            member={member.member}
            depth={depth}
            answers={picture === 'tree' ? answered(member.parent) : null}
            asTree={picture === 'tree'}
            chosen={member.id === id}
            open={opened.has(member.id)}
            setup={setup}
            onToggle={() => toggle(member.id)}
          />
        ))}
      </ol>
      {from + inSight.length < placed.length && (
        <ShowMore of={`${messages(placed.length - from - inSight.length)} after`} onShow={showMore} />
      )}
      {thinning && <ThinDialog id={id} onClose={() => setThinning(false)} />}
    </div>
  );
}
