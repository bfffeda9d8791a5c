import { Archive, Flag, FlagOff, FolderInput, Mail, MailOpen, Trash2, Undo2, X } from 'lucide-react';
import type { ReactNode } from 'react';
import { undoEntry, useDesk } from '../state/desk';
import { useMailbox } from '../state/mailbox';
import { count } from '../ui/words';
import type { Selection } from '../../mailroom/api';
import { deskActs, type DeskAct } from './acts';

const icons: Record<string, ReactNode> = {
  archive: <Archive size={16} aria-hidden />,
  bin: <Trash2 size={16} aria-hidden />,
  read: <MailOpen size={16} aria-hidden />,
  unread: <Mail size={16} aria-hidden />,
  flag: <Flag size={16} aria-hidden />,
  'clear-flag': <FlagOff size={16} aria-hidden />,
};

interface StampBarProps {
  target: { selection: Selection; count: number | null } | null;
  total: number;
  viewName: string;
  onAct: (act: DeskAct) => void;
  onMove: () => void;
  onExport: (format: 'mbox' | 'eml') => void;
  onUntick: () => void;
}

/** The bar below the desk: what is chosen, the acts for it, and Undo, always in the same spot. */
export function StampBar({ target, total, viewName, onAct, onMove, onExport, onUntick }: StampBarProps) {
  const { ticked, allOf } = useDesk();
  const many = allOf ? `All ${count(total)} in ${viewName}` : ticked.size ? `${count(ticked.size)} ticked` : null;
  const act = 'btn btn-ghost btn-sm gap-1 px-2 font-normal';
  return (
    <footer className="flex min-h-12 items-center max-lg:flex-wrap gap-x-1 gap-y-1 border-t border-base-300 bg-base-200 px-3 py-1">
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
        </span>
      )}
      {target ? (
        <div role="toolbar" aria-label="Acts" className="flex shrink-0 items-center">
          {deskActs.map((item) => (
            <button key={item.id} className={act} onClick={() => onAct(item)} aria-keyshortcuts={item.keyWord}>
              {icons[item.id]}
              <span className="max-md:sr-only">{item.word}</span>
              <kbd className="key max-xl:hidden">{item.keyWord}</kbd>
            </button>
          ))}
          <button className={act} onClick={onMove} aria-keyshortcuts="M">
            <FolderInput size={16} aria-hidden />
            <span className="max-md:sr-only">Move</span>
            <kbd className="key max-xl:hidden">M</kbd>
          </button>
          <button className={`${act} max-md:hidden`} onClick={() => onExport('eml')} title="As the bytes that came in">
            Save .eml
          </button>
          {many && (
            <button
              className={`${act} max-md:hidden`}
              onClick={() => onExport('mbox')}
              title="As the bytes that came in"
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

/** What was just done, and Undo for it. */
export function UndoSpot() {
  const notice = useDesk((s) => s.notice);
  const last = useMailbox((s) => s.overview?.undo ?? null);
  const seq = notice?.undo ?? last?.seq ?? null;
  const what = notice?.text ?? '';
  return (
    <div className="ml-auto flex min-w-0 items-center gap-2">
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
