// The keys of the desk.
import { placeName } from '../../core/mail/place';
import { count } from '../../core/text/sentences';
import { useRef } from 'react';
import type { Row } from '../../mailroom/border/rows';
import type { View } from '../../mailroom/border/views';
import { clearTicks, goToLane, say, setReach, tick, tickOnly, tickRange, toggleWhy, useDesk } from '../state/desk';
import { rowKey, tickedMessages } from '../state/ticks';
import { contactsFrom } from '../contacts/fromMessages';
import { answerWith } from '../state/drafts';
import { useMailbox } from '../state/overview';
import { viewPath } from '../paths';
import { actsIn, canPutOff, deskActs } from './deskActs';
import { shownFilters, toggleGrouped } from './DeskEdge';
import { openItem } from '../agenda/itemDraft';
import { mostDigits } from '../../core/stamps/stamp';
import { useKeys, type KeyMap } from '../ui/useKeys';
import type { DeskActs } from './useDeskActs';
import type { DeskView } from './useDeskView';

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
export function useStampKeys({ pressStamp }: DeskActs): void {
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
export function useDeskKeys(
  desk: DeskView,
  { ask, press, exportTarget, target }: DeskActs,
  openRow: Row | undefined,
): void {
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
