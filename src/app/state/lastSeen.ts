// What was here when the mailbox was last seen, kept apart from its database: a browser that is short of room may throw
// that away as a whole while nobody looks, and an empty mailbox is then not taken for a first run. What a browser evicts
// is what its quota counts (Storage Standard, section 7); `localStorage` is not in it.
import { z } from 'zod';
import type { Overview } from '../../mailroom/border/overview';
import { lenient } from './lenientStorage';

const lastSeenSchema = z.object({
  /** Messages in all places. */
  messages: z.number().int().nonnegative(),
  at: z.number(),
  /** The setup as a document that can be taken up; null where it is too large to be kept twice. */
  setup: z.string().nullable(),
});

export type LastSeen = z.infer<typeof lastSeenSchema>;

const name = 'wide-sort-last-seen';

/** A larger setup is not kept twice, in characters: the browser gives the page some millions. */
const mostSetup = 1_000_000;
const mostItems = 5_000;

/** How often it is written down at most, in milliseconds: the overview comes anew with every act. */
const every = 2_000;

const storage = lenient(localStorage);

/** What was here; null where nothing was, or where it can't be read. */
export function lastSeen(): LastSeen | null {
  try {
    return lastSeenSchema.parse(JSON.parse(String(storage.getItem(name))));
  } catch {
    return null;
  }
}

let pending: Overview | null = null;
let timer: ReturnType<typeof setTimeout> | null = null;

function write(): void {
  if (timer !== null) clearTimeout(timer);
  timer = null;
  if (!pending) return;
  const { total, setup } = pending;
  pending = null;
  // Not even written out where that takes a while: the page is waited for.
  const small = setup.register.length + setup.contacts.length + setup.rules.length <= mostItems;
  const document = small ? JSON.stringify(setup) : '';
  const seen = { messages: total, at: Date.now(), setup: small && document.length <= mostSetup ? document : null };
  void storage.setItem(name, JSON.stringify(seen satisfies LastSeen));
}

/** Notes what is here. What is no more to be trusted, since the browser dropped it, is not noted. */
export function noteSeen(overview: Overview): void {
  if (overview.lost) return;
  pending = overview;
  // The first time at once: a page that is closed soon has noted it, too.
  if (!lastSeen()?.messages) write();
  timer ??= setTimeout(write, every);
}

/** Forgets it: the person knows, or deleted all. */
export function forgetSeen(): void {
  pending = null;
  void storage.removeItem(name);
}
