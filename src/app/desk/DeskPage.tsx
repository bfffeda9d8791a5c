import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { Selection } from '../../mailroom/api';
import { mailroom } from '../../mailroom/client';
import { ReadingArea } from '../reading/ReadingArea';
import { clearTicks, runAct, say, tick, tickAll, toggleWhy, useDesk } from '../state/desk';
import { useMailbox } from '../state/mailbox';
import { saveFile } from '../ui/save';
import { count, messages, viewExists, viewName } from '../ui/words';
import { target as targetOf, deskActs, type DeskAct } from './acts';
import { Empty } from './Empty';
import { MoveDialog } from './MoveDialog';
import { RowList, type RowListHandle } from './RowList';
import { StampBar } from './StampBar';
import { useKeys, type KeyMap } from '../ui/useKeys';
import { useDeskView } from './useDeskView';

/** The desk: the rows of a view, the open message beside them, the stamp bar below. */
export function DeskPage() {
  const overview = useMailbox((s) => s.overview);
  const { view, known, open, openIndex, rows, go, step, goOn } = useDeskView();
  const { ticked, allOf } = useDesk();
  const list = useRef<RowListHandle>(null);
  const [moving, setMoving] = useState<Selection | null>(null);
  const target = targetOf(ticked, allOf, open);

  useEffect(() => {
    if (openIndex !== null && openIndex >= 0) list.current?.reveal(openIndex);
  }, [openIndex]);

  /**
   * Moves messages. The next one is opened before, not after, the move is done: a key that follows quickly must never
   * fall on the message that has just left.
   */
  const moveAway = async (selection: Selection, move: () => Promise<boolean>) => {
    const from = open;
    if ('view' in selection) go(null);
    else if (from !== null && selection.ids.includes(from)) goOn(new Set(selection.ids));
    clearTicks();
    if (!(await move()) && from !== null) go(from);
  };
  const perform = async (act: DeskAct) => {
    if (!target) return;
    const run = () => runAct(target.selection, act.act);
    if (act.act.do === 'move') await moveAway(target.selection, run);
    else await run();
  };
  const exportTarget = async (format: 'mbox' | 'eml') => {
    if (!target) return;
    const result = await mailroom.exportMail(target.selection, format);
    if (!result.ok) return say({ text: result.error, tone: 'trouble', undo: null });
    saveFile(result.blob, result.name);
    say({ text: `Exported ${messages(result.count)} to ${result.name}.`, tone: 'done', undo: null });
  };
  const press = (key: string) => document.querySelector<HTMLElement>(`[data-key="${key}"]`)?.click();
  const keys: KeyMap = {
    arrowdown: () => step(1),
    arrowup: () => step(-1),
    home: () => rows.total && step(-rows.total),
    end: () => rows.total && step(rows.total),
    enter: () => (open === null ? step(1) : document.querySelector<HTMLElement>('article')?.scrollIntoView()),
    escape: () => (ticked.size || allOf ? clearTicks() : open !== null && go(null)),
    ' ': () => open !== null && tick(open, !ticked.has(open)),
    'ctrl+a': () => tickAll(view),
    m: () => target && setMoving(target.selection),
    b: () => press('block'),
    w: toggleWhy,
  };
  for (const act of deskActs) keys[act.key] = () => void perform(act);
  keys.backspace = keys.delete;
  useKeys(keys);

  if (!overview) return null;
  const { setup } = overview;
  if (!known || !viewExists(view, setup))
    return (
      <main className="flex flex-1 flex-col items-start gap-3 p-8">
        <h1 className="text-xl font-semibold">There is nothing at this address</h1>
        <p>The folder or label may have been taken away since the address was made.</p>
        <Link className="btn btn-primary btn-sm" to="/inbox">
          To the Inbox
        </Link>
      </main>
    );
  const name = viewName(view, setup);
  const { total, unread } = rows;
  return (
    <main className="flex min-h-0 min-w-0 flex-1 flex-col">
      <header
        className={`min-h-14 items-center gap-3 border-b border-base-300 px-4 py-2 ${open === null ? 'flex' : 'hidden lg:flex'}`}
      >
        <h1 className="text-xl font-semibold">{name}</h1>
        {total !== null && (
          <p className="quiet" aria-live="polite">
            {messages(total)}
            {unread > 0 && ` · ${count(unread)} unread`}
          </p>
        )}
        <div className="ml-auto">
          {total !== null && total > 0 && (
            <button className="btn btn-outline btn-sm" onClick={() => (allOf ? clearTicks() : tickAll(view))}>
              {allOf ? 'Untick all' : 'Tick all'}
            </button>
          )}
        </div>
      </header>
      <div className="flex min-h-0 flex-1">
        <section
          aria-label="Messages"
          className={`min-h-0 min-w-0 flex-col border-r border-base-300 lg:flex lg:w-[27rem] lg:shrink-0 xl:w-[30rem] ${
            open === null ? 'flex flex-1 lg:flex-none' : 'hidden'
          }`}
        >
          {rows.error && <p className="m-4 border-l-4 border-error bg-base-200 px-3 py-2">{rows.error}</p>}
          {total === 0 && <Empty view={view} overview={overview} />}
          {total !== 0 && (
            <RowList view={view} name={name} rows={rows} setup={setup} open={open} onOpen={go} handle={list} />
          )}
        </section>
        <section
          aria-label="Reading"
          className={`min-h-0 min-w-0 flex-1 ${open === null ? 'hidden lg:block' : 'block'}`}
        >
          {open !== null ? (
            <ReadingArea key={open} id={open} view={view} />
          ) : (
            <div className="quiet flex h-full flex-col items-center justify-center gap-2 p-8 text-center">
              <p>Press a message to read it, or go down the list with the arrow keys.</p>
              <p className="text-sm">
                <kbd className="key">?</kbd> shows all keys.
              </p>
            </div>
          )}
        </section>
      </div>
      <StampBar
        target={target}
        total={total ?? 0}
        viewName={name}
        onAct={(act) => void perform(act)}
        onMove={() => target && setMoving(target.selection)}
        onExport={(format) => void exportTarget(format)}
        onUntick={clearTicks}
      />
      {moving && (
        <MoveDialog
          selection={moving}
          setup={setup}
          onClose={() => setMoving(null)}
          onMove={(move) => void moveAway(moving, move)}
        />
      )}
    </main>
  );
}
