import { messages } from '../../core/text/sentences';
import {
  DndContext,
  DragOverlay,
  MouseSensor,
  pointerWithin,
  useSensor,
  useSensors,
  type Active,
  type DragEndEvent,
} from '@dnd-kit/core';
import { CornerDownRight, Keyboard, Menu, Moon, PenLine, Sun, SunMoon } from 'lucide-react';
import { useState, type RefObject } from 'react';
import { Navigate, Outlet, useLocation } from 'react-router';
import { KeySheet } from '../keys/KeySheet';
import type { Overview } from '../../mailroom/border/overview';
import type { Act } from '../../mailroom/border/views';
import type { Target } from '../desk/deskActs';
import { act, undoLast } from '../state/desk';
import { useMailbox } from '../state/overview';
import { useItemDraft } from '../agenda/itemDraft';
import { useDrafts, writeNew } from '../state/drafts';
import { usePreferences } from '../state/preferences';
import { useKeys } from '../ui/useKeys';
import { usePart } from '../ui/usePart';
import { Outgoing } from '../writing/Outgoing';
import { BeginningStrip } from '../welcome/BeginningStrip';
import { ImportStrip } from '../mail/ImportStrip';
import { GoAnywhere } from './GoAnywhere';
import { Line } from './Line';
import { DiskFull, StorageLost, Troubles } from './Troubles';

// Writing comes with the first draft.
const writingPart = () => import('../writing/WritingPanel');
const itemPart = () => import('../agenda/ItemPanel');

const themes = [
  { theme: 'system', next: 'light', icon: SunMoon, word: 'Light and dark as the system has it' },
  { theme: 'light', next: 'dark', icon: Sun, word: 'Light' },
  { theme: 'dark', next: 'system', icon: Moon, word: 'Dark' },
] as const;

/**
 * Where rows are dropped scrolls while one drags, at its very edge only: what is aimed at must not slide away. The rows
 * themselves stay.
 */
const scrollWhileDragging = {
  threshold: { x: 0, y: 0.04 },
  acceleration: 5,
  canScroll: (element: Element) => element.hasAttribute('data-scrolls'),
};

/** What is being dragged: the list names it when it is taken up. */
const draggedTarget = ({ data }: Active): Target | null =>
  (data.current?.target as RefObject<Target | null> | undefined)?.current ?? null;

interface SideProps {
  overview: Overview;
  /** On a narrow screen: whether it is drawn out. */
  drawer: boolean;
  onClose: () => void;
  onKeys: () => void;
  onAnywhere: () => void;
}

/** The line, and below it the sheet of keys and the colours. */
function Side({ overview, drawer, onClose, onKeys, onAnywhere }: SideProps) {
  const { theme, lineFolded } = usePreferences();
  const now = themes.find((t) => t.theme === theme) ?? themes[0];
  return (
    <>
      {drawer && (
        <button className="fixed inset-0 z-15 bg-black/40 lg:hidden" aria-label="Close the line" onClick={onClose} />
      )}
      <div
        className={`flex min-h-0 flex-col border-r border-base-300 bg-base-200 max-lg:fixed max-lg:inset-y-0 max-lg:left-0 max-lg:z-20 max-lg:w-64 ${
          drawer ? '' : 'max-lg:hidden'
        } ${lineFolded ? 'lg:w-14' : 'lg:w-56'} shrink-0`}
      >
        <Line overview={overview} onGo={onClose} />
        <div className={`flex items-center gap-1 border-t border-base-300 p-1.5 ${lineFolded ? 'flex-col' : 'pl-3'}`}>
          <button
            className="flex min-h-8 min-w-0 flex-1 items-center gap-2 rounded border border-base-300 px-2 text-left hover:bg-base-300"
            onClick={onAnywhere}
            title="Go anywhere, do anything: type (:)"
            aria-keyshortcuts=":"
          >
            <CornerDownRight size={16} aria-hidden className="shrink-0" />
            <span className={lineFolded ? 'sr-only' : 'quiet flex-1 whitespace-nowrap'}>Go or do</span>
            {!lineFolded && <kbd className="key">:</kbd>}
          </button>
          <button className="btn btn-square btn-ghost btn-sm" onClick={onKeys} aria-label="Keys" title="Keys (?)">
            <Keyboard size={16} />
          </button>
          <button
            className="btn btn-square btn-ghost btn-sm"
            onClick={() => usePreferences.setState({ theme: now.next })}
            aria-label={`Colours: ${now.word}`}
            title={`Colours: ${now.word}`}
          >
            <now.icon size={16} />
          </button>
        </div>
      </div>
    </>
  );
}

function CannotOpen({ why }: { why: string }) {
  return (
    <main className="flex h-full flex-col items-start gap-3 p-10">
      <h1 className="text-xl font-semibold">The mailroom can’t be opened</h1>
      <p className="max-w-prose">{why}</p>
      <button className="btn btn-primary btn-sm" onClick={() => window.location.reload()}>
        Try again
      </button>
    </main>
  );
}

/** What is under the pointer while rows are dragged. */
function Dragged({ target }: { target: Target }) {
  return (
    <div className="w-44 rounded border-2 border-primary bg-base-100 px-3 py-1.5 font-semibold shadow">
      {messages(target.selection.ids.length)}
    </div>
  );
}

/** Focuses what the person came for, past the line: the list, or else the page. */
function toMain(): void {
  const main = document.querySelector<HTMLElement>('[data-rows]') ?? document.querySelector<HTMLElement>('main');
  if (main && !main.hasAttribute('tabindex')) main.tabIndex = -1;
  main?.focus();
}

/** The frame: the line on the left, and beside it whatever the address says. */
export function Frame() {
  const { overview, begun, broken } = useMailbox();
  const { pathname } = useLocation();
  const [keys, setKeys] = useState(false);
  const [anywhere, setAnywhere] = useState(false);
  const [drawer, setDrawer] = useState(false);
  const [dragged, setDragged] = useState<Target | null>(null);
  const writing = useDrafts((s) => s.open);
  const Writing = usePart(writingPart, writing !== null)?.WritingPanel;
  const item = useItemDraft((s) => s.open !== null);
  const Item = usePart(itemPart, item)?.ItemPanel;
  // Only a mouse drags: on a touch screen the same movement is a swipe. The keyboard moves by M and L.
  const sensors = useSensors(useSensor(MouseSensor, { activationConstraint: { distance: 6 } }));
  const drop = ({ active, over }: DragEndEvent) => {
    setDragged(null);
    const what = over?.data.current?.act as Act | null | undefined;
    const target = draggedTarget(active);
    if (what && target) void act(target.selection, what);
  };
  useKeys({
    '?': () => setKeys(true),
    ':': () => setAnywhere(true),
    'ctrl+z': () => undoLast(),
    'shift+w': () => writeNew(),
  });

  if (broken !== null) return <CannotOpen why={broken} />;
  if (!overview || begun === null)
    return (
      <main className="quiet flex h-full items-center justify-center" aria-busy="true">
        <h1 className="text-base font-normal">Opening the mailroom …</h1>
      </main>
    );
  if (!begun && pathname !== '/welcome') return <Navigate to="/welcome" replace />;
  // Only here is it said where one goes from there: two that say it may each be the last.
  if (begun && pathname === '/welcome')
    return <Navigate to={overview.post.on || overview.total > 0 ? '/inbox' : '/mail'} replace />;
  if (!begun) return <Outlet />;

  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      autoScroll={scrollWhileDragging}
      onDragStart={({ active }) => setDragged(draggedTarget(active))}
      onDragCancel={() => setDragged(null)}
      onDragEnd={drop}
    >
      <div className="flex h-full flex-col">
        <button className="btn sr-only btn-primary btn-sm focus:not-sr-only" onClick={toMain}>
          To the list or page
        </button>
        {overview.lost ? <StorageLost /> : overview.full && <DiskFull />}
        <Troubles list={overview.troubles} />
        <ImportStrip />
        <BeginningStrip overview={overview} />
        <div className="flex min-h-0 flex-1">
          <Side
            overview={overview}
            drawer={drawer}
            onClose={() => setDrawer(false)}
            onKeys={() => setKeys(true)}
            onAnywhere={() => {
              setDrawer(false);
              setAnywhere(true);
            }}
          />
          <div className="flex min-h-0 min-w-0 flex-1 flex-col">
            <div className="flex justify-between border-b border-base-300 px-2 py-1 lg:hidden">
              <button className="btn btn-ghost btn-sm" onClick={() => setDrawer(true)}>
                <Menu size={18} aria-hidden /> Line and places
              </button>
              <button className="btn btn-ghost btn-sm" onClick={() => writeNew()}>
                <PenLine size={16} aria-hidden /> Write
              </button>
            </div>
            <Outgoing />
            <Outlet />
          </div>
          {item && Item && <Item />}
          {writing !== null && Writing && <Writing key={writing} id={writing} />}
        </div>
        {keys && <KeySheet onClose={() => setKeys(false)} />}
        {anywhere && <GoAnywhere overview={overview} onClose={() => setAnywhere(false)} />}
      </div>
      <DragOverlay dropAnimation={null}>{dragged && <Dragged target={dragged} />}</DragOverlay>
    </DndContext>
  );
}
