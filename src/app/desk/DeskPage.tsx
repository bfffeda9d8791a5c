import { placeName } from '../../core/mail/place';
import { count } from '../../core/text/sentences';
import { parseQuery } from '../../core/search/query';
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { Row } from '../../mailroom/border/rows';
import type { Act, Selection, View } from '../../mailroom/border/views';
import { mailroom } from '../../mailroom/client';
import {
  attendActs,
  clearTicks,
  goToLane,
  runAct,
  say,
  setChosen,
  setReach,
  tick,
  tickOnly,
  tickRange,
  ticksUnderWay,
  toggleWhy,
  useDesk,
} from '../state/desk';
import { isAmong, rowKey, rowMessages, tickedMessages } from '../state/ticks';
import { contactsFrom } from '../contacts/fromMessages';
import { answerWith } from '../state/drafts';
import { noteOpened } from '../state/opened';
import { useMailbox } from '../state/overview';
import { viewPath } from '../paths';
import type { Rescued } from '../junk/RescueDialog';
import { saveExport } from '../ui/exported';
import { viewExists, viewName } from '../ui/naming';
import { target as targetOf, actsIn, canPutOff, deskActs, type DeskAct, type Target } from './deskActs';
import { DeskBody } from './DeskBody';
import { DeskDialogs, type Question } from './DeskDialogs';
import { DeskEdge, shownFilters, toggleGrouped } from './DeskEdge';
import { HabitOffer } from './HabitOffer';
import type { RowListHandle } from './RowList';
import { StampBar } from './StampBar';
import { openItem } from '../agenda/itemDraft';
import { StampQuestions } from '../stamps/StampQuestions';
import { StampRow } from '../stamps/StampRow';
import { usePress } from '../stamps/usePress';
import { lastingOf, lastingWords, mostDigits, type Stamp } from '../../core/stamps/stamp';
import { useAtPress } from '../ui/press';
import { useKeys, type KeyMap } from '../ui/useKeys';
import { SoughtContext } from '../ui/Marked';
import { HoldStrip } from '../delivery/HoldStrip';
import { useDeskView, type DeskView } from './useDeskView';
import { useRevealing } from './useRevealing';

/** More messages than this are not moved by a key without a question. */
const mostUnasked = 1_000;

/** What is looked for in what is shown; null where nothing is. */
function useSought({ view }: DeskView) {
  const query = view.kind === 'found' ? view.query : null;
  return useMemo(() => {
    const parsed = query === null ? null : parseQuery(query);
    return parsed?.ok ? parsed.query : null;
  }, [query]);
}

/** The acts of the desk on what is ticked or open, and what they ask first. */
function useDeskActs(desk: DeskView, openRow: Row | undefined) {
  const { where, go, goOn, justCame, leave } = desk;
  const { ticked, reach } = useDesk();
  const [asking, setAsking] = useState<Question | null>(null);
  const [rescuing, setRescuing] = useState<Rescued | null>(null);
  const open = where.message;
  const target = targetOf(ticked, open, openRow, reach);
  const pressed = useAtPress(target);

  /**
   * Moves messages. The next one is opened before, not after, the move is done: a key that follows quickly must never
   * fall on the message that has just left.
   */
  const moveAway = async (selection: Selection, move: () => Promise<boolean>) => {
    const ids = new Set('ids' in selection ? selection.ids : []);
    const left = leave((row) => isAmong(row, ids));
    // A tray’s row is open under its own number: it leaves with all that it holds.
    const opened = open !== null && (ids.has(open) || (openRow?.tray && isAmong(openRow, ids)));
    if (opened) goOn((row) => isAmong(row, ids), ids);
    clearTicks();
    const done = await move();
    left.settled();
    if (!done && open !== null) go({ message: open });
  };
  const perform = async (selection: Selection, act: Act, sure = false) => {
    const run = () => runAct(selection, act);
    if (!sure && act.do === 'move' && 'ids' in selection && selection.ids.length > mostUnasked)
      return setAsking({ of: 'many', act, selection });
    // Silencing takes the conversation out of the Inbox, as a move does.
    if (act.do === 'move' || act.do === 'tray' || (act.do === 'silence' && act.value)) await moveAway(selection, run);
    else await run();
  };
  useEffect(() => attendActs(perform));
  /** What an act goes to once everything is ticked that was asked for; at once where that is so. */
  const withTarget = (then: (target: Target) => void) => {
    const waiting = ticksUnderWay();
    const its = pressed();
    if (!waiting) return its && then(its);
    void waiting.then(() => {
      const now = useDesk.getState();
      const its = targetOf(now.ticked, open, openRow, now.reach);
      if (its) then(its);
    });
  };
  const exportTarget = async (format: 'mbox' | 'eml') => {
    const its = pressed();
    if (its) saveExport(await mailroom.exportMail(its.selection, format));
  };
  /** Not junk: the message moves once the one question is answered. */
  const askRescue = async ({ selection }: Target) => {
    const only = selection.ids.length === 1 ? selection.ids[0] : null;
    const message = only === null ? null : await mailroom.open(only, true);
    setRescuing({ selection, address: message?.row.from.address ?? null, listId: message?.listId ?? null });
  };
  /** An act by key or from the bar. */
  const press = (item: DeskAct) =>
    withTarget((its) => void (item.id === 'not-junk' ? askRescue(its) : perform(its.selection, item.act)));
  const ask = (of: 'move' | 'label' | 'due' | 'put off' | 'tray') =>
    withTarget(({ selection }) => setAsking({ of, selection }));
  const surely = ({ selection, act }: Extract<Question, { of: 'many' }>) => {
    setAsking(null);
    void perform(selection, act, true);
  };
  const answered = () => {
    setAsking(null);
    setRescuing(null);
  };
  const setup = useMailbox((s) => s.overview?.setup);
  const stamps = usePress(setup, moveAway);
  const pressStamp = (stamp: Stamp, look: boolean) =>
    withTarget((its) => {
      if (look) return stamps.look(stamp, its.selection.ids);
      // What can’t be undone falls on nobody who stood there before anyone could have seen it.
      if (its.open !== null && justCame() && lastingOf(stamp).size > 0)
        return say({
          text: `“${stamp.name}” was not carried out: it ${lastingWords(stamp)}, and this message came only now. Press once more.`,
          tone: 'trouble',
        });
      stamps.press(stamp, its.selection.ids, conversationsOf(its));
    });
  useEffect(() => setChosen(target?.selection.ids ?? noneChosen));
  return { target, asking, rescuing, answered, moveAway, exportTarget, press, ask, surely, stamps, pressStamp };
}

type DeskActs = ReturnType<typeof useDeskActs>;

/** Of how many conversations, as far as the desk knows. */
const conversationsOf = ({ rows, open }: Target): number => (open === null ? rows : 1);

/** Presses the button of a key; where none is on the screen, says why the key does nothing. */
function pressKeyed(key: string, whyNot?: string): void {
  const button = document.querySelector<HTMLElement>(`[data-key~="${key}"]`);
  if (button) button.click();
  else if (whyNot) say({ text: whyNot, tone: 'trouble' });
}

/** The same for a button of the open message, which may still be on its way: what is pressed at once isn’t lost. */
async function pressSoon(key: string, whyNot: string): Promise<void> {
  for (let waited = 0; waited < 1_000 && !document.querySelector(`[data-key~="${key}"]`); waited += 50)
    await new Promise((resolve) => setTimeout(resolve, 50));
  pressKeyed(key, whyNot);
}

/** The focus goes to the list; where the open message covers it, to that. */
function toList(list: RowListHandle | null): void {
  list?.focus();
  if (!document.activeElement?.matches('[data-rows]')) document.querySelector<HTMLElement>('article')?.focus();
}

const noConversation = 'This goes for a conversation: open one first.';
/** How much of the message one press scrolls, as a share of what is in sight. */
const scrolled = 0.85;

function scrollMessage(by: number): void {
  const body = document.querySelector('[data-reading]');
  body?.scrollBy({ top: by * scrolled * body.clientHeight, behavior: 'smooth' });
}

/** So many messages are forwarded in one at most. */
const mostForwarded = 200;

/** Forwards messages, or says why not. */
function forwardAll(how: 'forward' | 'attach', ids: number[]): void {
  if (ids.length > mostForwarded)
    say({ text: `No more than ${count(mostForwarded)} messages are forwarded at once.`, tone: 'trouble' });
  else if (ids.length) answerWith(how, ids);
  else say({ text: 'Open a message first, or tick some.', tone: 'trouble' });
}

/** The digits of the stamps: 0 before one shows what it would do, first. */
function useStampKeys({ pressStamp }: DeskActs): void {
  const looksFirst = useRef(false);
  const press = (digit: number) => {
    const look = looksFirst.current;
    looksFirst.current = false;
    const stamp = useMailbox.getState().overview?.setup.stamps.at(digit - 1);
    if (stamp) pressStamp(stamp, look);
    else say({ text: `No stamp has the digit ${digit}: make one on the page Stamps.`, tone: 'trouble' });
  };
  const keys: KeyMap = {
    0: () => {
      looksFirst.current = true;
      say({ text: 'Now a digit: what that stamp would do is shown first.', tone: 'done' });
    },
  };
  for (let digit = 1; digit <= mostDigits; digit++) keys[digit] = () => press(digit);
  useKeys(keys);
}

/** Makes a task or an appointment of messages, or says why not. */
function makeOf(kind: 'task' | 'appointment', ids: number[]): void {
  if (ids.length) void openItem(kind, ids);
  else say({ text: 'Open a message first, or tick some.', tone: 'trouble' });
}

/** The keys of the acts in a view; what does nothing there says so. */
function actKeysIn(view: View, press: DeskActs['press']): KeyMap {
  const keys: KeyMap = {};
  const where = view.kind === 'place' ? placeName(view.place, []) : 'this list';
  for (const act of deskActs)
    keys[act.pressed] = () => say({ text: `“${act.word}” does nothing in ${where}.`, tone: 'trouble' });
  for (const act of actsIn(view)) keys[act.pressed] = () => press(act);
  keys.backspace = keys.delete;
  return keys;
}

/** The keys of the desk. */
function useDeskKeys(desk: DeskView, { ask, press, exportTarget, target }: DeskActs, openRow: Row | undefined): void {
  const { where, view, grouping, rows, lanes, go, step } = desk;
  const { ticked, lane } = useDesk();
  const open = where.message;
  const toLane = (by: number) => {
    if (lanes.length) goToLane(Math.max(0, Math.min(lane + by, lanes.length - 1)));
  };
  /** Goes one row on and ticks it, and all from where the range began. */
  const tickOn = (by: number) => {
    const to = step(by);
    if (to) tickRange(view, grouping, { index: to.index, id: to.opens }, to.from);
  };
  const nextFilter = () => {
    const at = shownFilters.findIndex((filter) => filter === where.show);
    go({ show: shownFilters[at + 1] ?? null });
  };
  /** What goes to the one message that is open, and says so where that isn't what one would think. */
  const ofOpen = (key: string, does: string) => {
    if (ticked.size > 0)
      say({ text: `${does}, not of the ${count(ticked.size)} that are ticked. Untick first (Esc).`, tone: 'trouble' });
    else if (open === null) say({ text: `${does}. Open one first.`, tone: 'trouble' });
    else void pressSoon(key, `${does}; of this one there is no sender to go by.`);
  };
  const answer = (how: 'reply' | 'reply all') => {
    if (open !== null && open < 0)
      say({ text: 'A tray can’t be answered: open one of its messages.', tone: 'trouble' });
    else if (open !== null) answerWith(how, [open]);
  };
  /** What is ticked, or else the open message alone, whatever acts go to. */
  const chosenIds = (): number[] =>
    ticked.size > 0 ? [...tickedMessages(ticked)] : open !== null && open >= 0 ? [open] : [];
  const keys: KeyMap = {
    arrowdown: () => step(1),
    arrowup: () => step(-1),
    'shift+arrowdown': () => tickOn(1),
    'shift+arrowup': () => tickOn(-1),
    arrowright: () => toLane(1),
    arrowleft: () => toLane(-1),
    home: () => rows.total && step(-rows.total),
    end: () => rows.total && step(rows.total),
    enter: () => (open === null ? step(1) : document.querySelector<HTMLElement>('article')?.focus()),
    escape: () => (ticked.size ? clearTicks() : open !== null && go({ message: null })),
    ' ': () => openRow && tick(openRow, !ticked.has(rowKey(openRow))),
    'ctrl+a': () => tickOnly(view, grouping, 'all'),
    '.': () => open !== null && target?.open && setReach(open, target.open === 'message' ? 'conversation' : 'message'),
    m: () => ask('move'),
    l: () => ask('label'),
    d: () => ask('due'),
    'shift+d': () =>
      canPutOff(view)
        ? ask('put off')
        : say({ text: 'Only mail of the Inbox, the Archive and folders can be put off.', tone: 'trouble' }),
    'shift+t': () =>
      canPutOff(view)
        ? ask('tray')
        : say({ text: 'Only mail of the Inbox, the Archive and folders can be put in a tray.', tone: 'trouble' }),
    b: () => ofOpen('block', 'B blocks the sender of the open message'),
    'shift+b': () => ofOpen('safe', 'Shift+B marks the sender of the open message as safe'),
    'shift+r': () => ofOpen('sort-like', 'Shift+R makes a rule from the open message'),
    e: () => pressKeyed('unfold', noConversation),
    s: () => pressKeyed('silence', noConversation),
    'shift+s': () => pressKeyed('silence-bin', noConversation),
    h: () => pressKeyed('whole', 'The open message stands in no conversation.'),
    'ctrl+arrowdown': () => scrollMessage(1),
    'ctrl+arrowup': () => scrollMessage(-1),
    x: () => void exportTarget('eml'),
    'shift+x': () => void exportTarget('mbox'),
    t: () => pressKeyed('thin-out', noConversation),
    k: () => pressKeyed('picture', noConversation),
    y: () => answer('reply'),
    'shift+y': () => answer('reply all'),
    'shift+f': () => forwardAll('forward', chosenIds()),
    'shift+o': () => forwardAll('attach', chosenIds()),
    'shift+c': () => {
      const { overview } = useMailbox.getState();
      if (overview) void contactsFrom(chosenIds(), overview.setup);
    },
    'shift+k': () => makeOf('task', chosenIds()),
    'shift+a': () => makeOf('appointment', chosenIds()),
    w: toggleWhy,
    g: () => toggleGrouped(viewPath(where.view)),
    v: () => go({ lanes: !where.lanes }),
    o: nextFilter,
    p: desk.applyAgain,
    '/': () => document.querySelector<HTMLElement>('[data-key="query"]')?.focus(),
    q: () => pressKeyed('query-form'),
    z: () => pressKeyed('clear-out'),
  };
  useKeys({ ...keys, ...actKeysIn(view, press) });
}

/** The row of the open message; also before the mailroom has said where it stands, since a key may follow at once. */
function rowOfOpen({ rows, openIndex }: DeskView, open: number): Row | undefined {
  if (openIndex !== null) return openIndex >= 0 ? rows.at(openIndex) : undefined;
  for (const index of rows.known()) {
    const row = rows.at(index);
    if (row && rowMessages(row).includes(open)) return row;
  }
  return undefined;
}

/** The desk: the rows or lanes of a view, the open message beside or below them, the stamp bar at the bottom. */
export function DeskPage() {
  const overview = useMailbox((s) => s.overview);
  const desk = useDeskView();
  const { where, view, grouping } = desk;
  const list = useRef<RowListHandle>(null);
  const sought = useSought(desk);
  const open = where.message;
  // Before whatever shows it has been drawn.
  useLayoutEffect(() => noteOpened(open), [open]);
  const openRow = open === null ? undefined : rowOfOpen(desk, open);
  const acts = useDeskActs(desk, openRow);
  useDeskKeys(desk, acts, openRow);
  useStampKeys(acts);
  useRevealing(list, desk);

  if (!overview) return null;
  const { setup } = overview;
  if (!desk.known || !viewExists(where.view, setup)) return <NothingHere />;
  const name = viewName(where.view, setup);
  /** What is pressed in the bar: the next key is the list’s, not that button’s, under which another message stands then. */
  const inBar =
    <A extends unknown[]>(press: (...args: A) => unknown) =>
    (...args: A): void => {
      toList(list.current);
      press(...args);
    };
  return (
    <main className="flex min-h-0 min-w-0 flex-1 flex-col">
      <HoldStrip overview={overview} />
      <DeskEdge desk={desk} overview={overview} hidden={open !== null} />
      <SoughtContext value={sought}>
        {/* Known from its row; where the row is out of sight, nothing need be lit. */}
        <DeskBody
          desk={desk}
          overview={overview}
          name={name}
          list={list}
          openConversation={open === null ? null : (openRow?.conversation ?? null)}
          openRow={openRow}
        />
      </SoughtContext>
      <HabitOffer setup={setup} />
      <StampBar
        view={view}
        target={acts.target}
        grouped={grouping.grouped}
        ofConversation={openRow?.tray ? 0 : (openRow?.whole?.ids.length ?? 0)}
        onReach={inBar((of) => open !== null && setReach(open, of))}
        onAct={inBar(acts.press)}
        onMove={inBar(() => acts.ask('move'))}
        onLabel={inBar(() => acts.ask('label'))}
        onDue={inBar(() => acts.ask('due'))}
        onPutOff={inBar(() => acts.ask('put off'))}
        onTray={inBar(() => acts.ask('tray'))}
        onExport={inBar(acts.exportTarget)}
        onUntick={inBar(clearTicks)}
        onTickAll={inBar(() => tickOnly(view, grouping, 'all'))}
        stamps={
          <StampRow
            setup={setup}
            ids={acts.target?.selection.ids ?? noneChosen}
            conversations={acts.target ? conversationsOf(acts.target) : 0}
            onPress={inBar((stamp) => acts.pressStamp(stamp, false))}
            onLook={inBar((stamp) => acts.pressStamp(stamp, true))}
          />
        }
      />
      <StampQuestions press={acts.stamps} />
      <DeskDialogs acts={acts} setup={setup} />
    </main>
  );
}

const noneChosen: readonly number[] = [];

function NothingHere() {
  return (
    <main className="flex flex-1 flex-col items-start gap-3 p-8">
      <h1 className="text-xl font-semibold">There is nothing at this address</h1>
      <p>The folder or label may have been taken away since the address was made.</p>
      <Link className="btn btn-primary btn-sm" to="/inbox">
        To the Inbox
      </Link>
    </main>
  );
}
