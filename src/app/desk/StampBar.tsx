import { CalendarClock, FolderInput, Tags, Undo2, X, type LucideIcon } from 'lucide-react';
import type { View } from '../../mailroom/border/views';
import { undoEntry, useDesk } from '../state/desk';
import { useMailbox } from '../state/overview';
import { count, messages } from '../../core/text/sentences';
import { actsIn, type DeskAct, type Target } from './deskActs';

interface StampBarProps {
  view: View;
  target: Target | null;
  /** Whether rows are conversations. */
  grouped: boolean;
  /** What all of the view that is ticked is called: `All 143 messages in Inbox`. */
  allWords: string;
  onAct: (act: DeskAct) => void;
  onMove: () => void;
  onLabel: () => void;
  onDue: () => void;
  onExport: (format: 'mbox' | 'eml') => void;
  onUntick: () => void;
  onTickAll: () => void;
}

const style = 'btn gap-1 px-1.5 font-normal btn-ghost btn-sm';

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
      <span className="max-xl:sr-only">{word}</span>
      <kbd className="key max-2xl:hidden">{keyWord}</kbd>
    </button>
  );
}

/** The bar below the desk: what is chosen, the acts for it, and Undo, always in the same spot. */
export function StampBar(props: StampBarProps) {
  const { view, target, grouped, allWords, onAct, onMove, onLabel, onDue, onExport, onUntick, onTickAll } = props;
  const { ticked, allOf } = useDesk();
  const things = (n: number) =>
    grouped ? `${count(n)} conversation${n === 1 ? '' : 's'} ticked` : `${count(n)} ticked`;
  const many = allOf ? allWords : ticked.size ? things(ticked.size) : null;
  return (
    <footer className="flex min-h-12 flex-wrap items-center gap-x-0.5 gap-y-1 border-t border-base-300 bg-base-200 px-3 py-1">
      {many && (
        <span className="mr-2 flex shrink-0 items-center gap-1 font-semibold" role="status">
          {many}
          <button
            className="btn btn-square btn-ghost btn-xs"
            onClick={onUntick}
            aria-label="Untick all"
            title="Untick all (Esc)"
          >
            <X size={14} />
          </button>
          {!allOf && (
            <button className="btn btn-ghost btn-xs" onClick={onTickAll} title="Also beyond what is in sight (Ctrl+A)">
              Tick all
            </button>
          )}
        </span>
      )}
      {target ? (
        <div role="toolbar" aria-label="Acts" className="flex flex-wrap items-center">
          {actsIn(view).map((item) => (
            <Stamp key={item.id} {...item} onPress={() => onAct(item)} />
          ))}
          <Stamp word="Due" icon={CalendarClock} keyWord="D" onPress={onDue} />
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
    </footer>
  );
}

/** All of a view in words, as it is ticked. */
export function allOfWords(allOf: View | null, name: string, held: { messages: number }): string {
  const only = allOf?.filter?.applied === null ? allOf.filter.by : null;
  return only ? `All ${only} in ${name}` : `All ${messages(held.messages)} in ${name}`;
}

/** What was just done, and Undo for it. */
export function UndoSpot() {
  const notice = useDesk((s) => s.notice);
  const last = useMailbox((s) => s.overview?.undo ?? null);
  const seq = notice?.undo ?? last?.seq ?? null;
  const what = notice?.text ?? '';
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
      {seq !== null && (
        <button
          className="btn btn-outline btn-sm"
          onClick={() => void undoEntry(seq)}
          title={last && seq === last.seq ? `Undo: ${last.says} (Ctrl+Z)` : 'Undo (Ctrl+Z)'}
          aria-keyshortcuts="Control+Z"
        >
          <Undo2 size={16} aria-hidden /> Undo
        </button>
      )}
    </div>
  );
}
