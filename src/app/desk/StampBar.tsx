import {
  CalendarClock,
  GalleryVerticalEnd,
  Hourglass,
  FolderInput,
  Tags,
  Undo2,
  X,
  type LucideIcon,
} from 'lucide-react';
import type { ReactNode } from 'react';
import type { View } from '../../mailroom/border/views';
import { undoLast, useDesk, type Reach } from '../state/desk';
import { lastDone, useUndoing } from '../state/undoing';
import { useAnswer } from '../ui/useAnswer';
import { useMailbox } from '../state/overview';
import { count, sentence } from '../../core/text/sentences';
import { actsIn, canPutOff, heldWords, type DeskAct, type Target } from './deskActs';

interface StampBarProps {
  view: View;
  target: Target | null;
  /** Whether rows are conversations. */
  grouped: boolean;
  /** How many messages of the open one's conversation are here; 0 where rows are no conversations. */
  ofConversation: number;
  onReach: (of: Reach) => void;
  onAct: (act: DeskAct) => void;
  onMove: () => void;
  onLabel: () => void;
  onDue: () => void;
  onPutOff: () => void;
  onTray: () => void;
  onExport: (format: 'mbox' | 'eml') => void;
  onUntick: () => void;
  onTickAll: () => void;
  /** The stamps, below the acts. */
  stamps: ReactNode;
}

/** On a telephone the word stands under its icon. */
const style =
  'btn gap-1 px-1.5 font-normal btn-ghost btn-sm max-md:h-11 max-md:min-w-0 max-md:flex-col max-md:gap-0 max-md:px-0';

interface StampProps {
  word: string;
  icon: LucideIcon;
  keyWord: string;
  onPress: () => void;
}

function Stamp({ word, icon: Icon, keyWord, onPress }: StampProps) {
  return (
    <button className={style} onClick={onPress} aria-keyshortcuts={keyWord} title={`${word} (${keyWord})`}>
      <Icon size={16} aria-hidden />
      <span className="max-md:max-w-full max-md:truncate max-md:text-xs md:max-xl:sr-only md:@max-3xl:sr-only">
        {word}
      </span>
      <kbd className="key max-2xl:hidden">{keyWord}</kbd>
    </button>
  );
}

/** Whether an act goes to the open message alone, or to all of its conversation that is here. */
function ReachChoice({ of, all, onReach }: { of: Reach; all: number; onReach: (of: Reach) => void }) {
  const choices: [Reach, string][] = [
    ['message', 'This message'],
    ['conversation', `All ${count(all)} here`],
  ];
  return (
    <div className="join mr-2 shrink-0" role="group" aria-label="Acts go to">
      {choices.map(([one, words]) => (
        <button
          key={one}
          className={`btn join-item btn-xs font-normal ${of === one ? 'btn-primary' : 'btn-outline border-base-300'}`}
          aria-pressed={of === one}
          onClick={() => onReach(one)}
          title={`What is done goes to ${one === 'message' ? 'the open message alone' : 'all of its conversation that is here'} (.)`}
        >
          {words}
        </button>
      ))}
    </div>
  );
}

/** The bar below the desk: what is chosen, the acts for it, and Undo, always in the same spot. */
export function StampBar(props: StampBarProps) {
  const {
    view,
    target,
    grouped,
    ofConversation,
    onReach,
    onAct,
    onMove,
    onLabel,
    onDue,
    onPutOff,
    onTray,
    onExport,
    onUntick,
    onTickAll,
    stamps,
  } = props;
  const many =
    target && target.open === null
      ? `${heldWords({ rows: target.rows, trays: target.trays, messages: target.selection.ids.length }, grouped)} ticked`
      : null;
  return (
    <footer className="@container flex min-h-12 flex-wrap items-center max-md:min-h-0 gap-x-0.5 gap-y-1 border-t border-base-300 bg-base-200 px-3 py-1">
      {many && (
        <span className="mr-2 flex shrink-0 items-center gap-1 font-semibold" role="status">
          <span>{many}</span>
          <button
            className="btn btn-square btn-ghost btn-xs"
            onClick={onUntick}
            aria-label="Untick all"
            title="Untick all (Esc)"
          >
            <X size={14} />
          </button>
          <button className="btn btn-ghost btn-xs" onClick={onTickAll} title="Also beyond what is in sight (Ctrl+A)">
            Tick all
          </button>
        </span>
      )}
      {target?.open && ofConversation > 1 && <ReachChoice of={target.open} all={ofConversation} onReach={onReach} />}
      {target ? (
        <div
          role="toolbar"
          aria-label="Acts"
          className="flex flex-wrap items-center max-md:grid max-md:w-full max-md:grid-cols-5"
        >
          {actsIn(view).map((item) => (
            <Stamp key={item.id} {...item} onPress={() => onAct(item)} />
          ))}
          <Stamp word="Due" icon={CalendarClock} keyWord="D" onPress={onDue} />
          {canPutOff(view) && <Stamp word="Put off" icon={Hourglass} keyWord="Shift D" onPress={onPutOff} />}
          {canPutOff(view) && <Stamp word="Tray" icon={GalleryVerticalEnd} keyWord="Shift T" onPress={onTray} />}
          <Stamp word="Label" icon={Tags} keyWord="L" onPress={onLabel} />
          <Stamp word="Move" icon={FolderInput} keyWord="M" onPress={onMove} />
          <button
            className={`${style} max-md:hidden`}
            onClick={() => onExport('eml')}
            aria-keyshortcuts="X"
            title="As the bytes that came in (X)"
          >
            Save .eml
          </button>
          {many && (
            <button
              className={`${style} max-md:hidden`}
              onClick={() => onExport('mbox')}
              aria-keyshortcuts="Shift+X"
              title="As the bytes that came in (Shift+X)"
            >
              Save .mbox
            </button>
          )}
        </div>
      ) : (
        <span className="quiet text-sm max-md:sr-only">
          Open or tick messages: what can be done with them stands here.
        </span>
      )}
      <UndoSpot />
      {stamps}
    </footer>
  );
}

/** What was just done, and Undo, which says what it would take back. */
export function UndoSpot() {
  const notice = useDesk((s) => s.notice);
  const revision = useMailbox((s) => s.revision);
  const last = useUndoing((s) => s.done.at(-1) ?? null);
  const { value } = useAnswer(lastDone, `${last && ('seq' in last ? last.seq : `draft ${last.thrown}`)} ${revision}`);
  // One that was taken back meanwhile is not offered while that is found out.
  const next = value === last ? value : null;
  const what = notice?.text ?? '';
  const says = next && what !== sentence(next.says) ? next.says : null;
  return (
    <div className="ml-auto flex max-w-full min-w-0 items-center gap-2">
      <span
        role="status"
        aria-live="polite"
        className={`min-w-0 truncate text-sm ${notice?.tone === 'trouble' ? 'font-semibold whitespace-normal text-error' : ''}`}
        title={what}
      >
        {what}
      </span>
      {next && (
        <button
          className="btn max-w-72 min-w-0 flex-nowrap btn-outline btn-sm"
          onClick={undoLast}
          title={`Undo: ${next.says} (Ctrl+Z)`}
          aria-label={`Undo: ${next.says}`}
          aria-keyshortcuts="Control+Z"
        >
          <Undo2 size={16} aria-hidden className="shrink-0" /> {says ? 'Undo:' : 'Undo'}
          {says && <span className="min-w-0 truncate font-normal max-md:hidden">{says}</span>}
        </button>
      )}
    </div>
  );
}
