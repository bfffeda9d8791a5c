// How this browser shows things: not mail, not setup, so it is kept by the page itself, alike in all its tabs.
import { create } from 'zustand';
import { createJSONStorage, persist } from 'zustand/middleware';
import type { Order } from '../../mailroom/border/views';
import { lenient } from './lenientStorage';

export interface Preferences {
  theme: 'system' | 'light' | 'dark';
  /** The line on the left folded to a strip. */
  lineFolded: boolean;
  /** The parts of the line that are closed, by their names. */
  closedParts: string[];
  density: 'roomy' | 'tight';
  textSize: 'small' | 'medium' | 'large';
  /** Where the reading area is; off: a message takes the place of the rows. */
  reading: 'right' | 'below' | 'off';
  /** The rows' share of the room, in per cent, beside and above the reading area. */
  rowsWidth: number;
  rowsHeight: number;
  /** When a message counts as read: as soon as it is opened, after some seconds, or only by hand. */
  markRead: 'opened' | 'seconds' | 'hand';
  markReadSeconds: number;
  /** What is open after the open message was moved away. */
  goOn: 'next' | 'previous' | 'list';
  /** What comes first in a row. */
  rowFirst: 'people' | 'subject';
  /** Acts shown on a row under the pointer, and done by a swipe to the left or right: ids of desk/acts.ts. */
  hoverActs: string[];
  swipeLeft: string;
  swipeRight: string;
  /** Whether rows are conversations: everywhere, and by the view's address where it was chosen for that alone. */
  groupedAll: boolean;
  grouped: Record<string, boolean>;
  /** Whether a conversation shows what of it stands in other places. */
  elsewhere: boolean;
  /** The order of the rows, by the view's address where another was chosen than the newest first. */
  orders: Record<string, Order>;
  /** Of the messages of a conversation. */
  newestFirst: boolean;
  picture: 'stack' | 'tree';
  /** Opening a conversation marks all of it as read. */
  readAll: boolean;
  /** What the number beside a place or label counts, by its address; unread where nothing was chosen. */
  counts: Record<string, 'unread' | 'total'>;
  /** Being told of chosen mail, by a banner and a sound. */
  banner: boolean;
  sound: boolean;
  /** To be told when a flag falls due, by the same banner and sound. */
  dueTold: boolean;
  /** Whether rules are offered for what is moved by hand again and again, and for what one was offered. */
  offers: boolean;
  offered: string[];
  /** Whether rich text is written, where nothing else is chosen for one message. */
  writeRich: boolean;
  /** So many seconds a message waits after Send, and can be taken back. */
  sendWait: number;
  /** From so many recipients on a message says, before it goes, how many they are. */
  manyPeople: number;
  /** What stood here before a setup brought other settings, by that command's number in the Logbook. */
  replaced: { seq: number; settings: Partial<Preferences> } | null;
  /** What was put away of the offers to begin well with: `own`, `junk`. */
  begun: string[];
}

const name = 'wide-sort-preferences';

export const usePreferences = create<Preferences>()(
  persist(
    (): Preferences => ({
      theme: 'system',
      lineFolded: false,
      closedParts: [],
      density: 'roomy',
      textSize: 'medium',
      reading: 'right',
      rowsWidth: 44,
      rowsHeight: 45,
      markRead: 'opened',
      markReadSeconds: 30,
      goOn: 'next',
      rowFirst: 'people',
      hoverActs: ['archive', 'bin', 'flag'],
      swipeLeft: 'bin',
      swipeRight: 'archive',
      groupedAll: false,
      grouped: {},
      elsewhere: true,
      orders: {},
      newestFirst: false,
      picture: 'stack',
      readAll: false,
      counts: {},
      banner: false,
      sound: false,
      dueTold: false,
      offers: true,
      offered: [],
      writeRich: true,
      sendWait: 10,
      manyPeople: 20,
      replaced: null,
      begun: [],
    }),
    { name, storage: createJSONStorage(() => lenient(localStorage)) },
  ),
);

/** Sets some preferences. */
export function prefer(some: Partial<Preferences>): void {
  usePreferences.setState(some);
}

/** All is shown again as at first: what was chosen was chosen for a mailbox that is no more. */
export const forgetPreferences = () => usePreferences.setState(usePreferences.getInitialState(), true);

/** Whether the rows of a view are conversations, by its address; what is silenced are conversations. */
export const isGrouped = ({ grouped, groupedAll }: Preferences, path: string): boolean =>
  grouped[path] ?? (path === '/silenced' || groupedAll);

/** Puts back what stood here before a setup was taken up, once that is undone. */
export function restorePreferences(seq: number): void {
  const { replaced } = usePreferences.getState();
  if (replaced?.seq === seq) prefer({ ...replaced.settings, replaced: null });
}

// What is chosen in one tab holds in the others.
window.addEventListener('storage', (event) => {
  if (event.key === name) void usePreferences.persist.rehydrate();
});

const dark = window.matchMedia('(prefers-color-scheme: dark)');
const sizes = { small: '0.875rem', medium: '0.9375rem', large: '1.0625rem' };

function applyLook(): void {
  const { theme, textSize } = usePreferences.getState();
  const night = theme === 'dark' || (theme === 'system' && dark.matches);
  document.documentElement.dataset.theme = night ? 'night' : 'paper';
  document.documentElement.style.setProperty('--text-size', sizes[textSize]);
}

/** Puts theme and text size on the page, now and whenever they change. */
export function followLook(): void {
  applyLook();
  usePreferences.subscribe(applyLook);
  dark.addEventListener('change', applyLook);
}
