// What the screen knows of the mailbox as a whole: its counts and setup, never its mail.
import { create } from 'zustand';
import type { Overview, ReadingProgress } from '../../mailroom/border/overview';
import type { ImportProgress, ImportReport } from '../../mailroom/border/transfer';
import { mailroom, onMailroom } from '../../mailroom/client';
import { reasonOf } from '../../core/text/sentences';
import { noteSeen } from './lastSeen';

interface MailboxState {
  /** Goes up whenever anything in the mailbox changed: what was fetched before is old. */
  revision: number;
  /** Null until the mailroom has answered. */
  overview: Overview | null;
  begun: boolean | null;
  /** Why the mailroom can't be opened, in words; null where it can. */
  broken: string | null;
  /** The import that is under way, or null. */
  importing: ImportProgress | null;
  /** How much of the mailbox was read into memory; null once all of it is. */
  reading: ReadingProgress | null;
  /** What the last import came to, until it is put away. */
  imported: ImportReport | null;
}

export const useMailbox = create<MailboxState>(() => ({
  revision: 0,
  overview: null,
  begun: null,
  broken: null,
  importing: null,
  reading: null,
  imported: null,
}));

let refreshing = false;
let stale = false;
/** Settled once the last that was asked is answered. */
let answered: Promise<void> = Promise.resolve();
/** How long the last answer took, in milliseconds. */
let took = 0;

async function askAnew(): Promise<void> {
  refreshing = true;
  try {
    do {
      stale = false;
      const asked = performance.now();
      const [overview, begun] = await Promise.all([mailroom.overview(), mailroom.begun()]);
      took = performance.now() - asked;
      if (begun) noteSeen(overview);
      useMailbox.setState({ overview, begun, revision: overview.revision, broken: null });
    } while (stale);
  } catch (error) {
    useMailbox.setState({ broken: reasonOf(error) });
  } finally {
    refreshing = false;
  }
}

/** Asks for the counts again; calls that come while one is under way are answered by one more. Settled once they are there. */
export function refresh(): Promise<void> {
  if (refreshing) stale = true;
  else answered = askAnew();
  return answered;
}

/** So soon after a change the counts are asked for again, in milliseconds. */
const shortly = 40;
const longest = 2_000;

/**
 * While mail comes in all changes several times a second, and the answer takes longer the more there is: asking is given a
 * fifth of the time at most, the rest is for what comes in. How long to wait, in milliseconds.
 */
const untilNext = (took: number): number => Math.min(longest, Math.max(shortly, 4 * took));

let soon: ReturnType<typeof setTimeout> | null = null;

onMailroom((event) => {
  if (event.kind === 'import') {
    // Only of the import that this page began, and that has not ended: the last word may come after the end.
    if (useMailbox.getState().importing?.job === event.progress.job) useMailbox.setState({ importing: event.progress });
    return;
  }
  if (event.kind === 'reading') {
    const { what, done, total } = event;
    useMailbox.setState({ reading: done < total ? { what, done, total } : null });
    return;
  }
  // How far a job is, whoever asked for it hears.
  if (event.kind === 'progress') return;
  // Drafts are no mail yet (drafts.ts).
  if (event.kind === 'drafts') return;
  // Many small changes in a row are one refresh.
  soon ??= setTimeout(
    () => {
      soon = null;
      void refresh();
    },
    useMailbox.getState().importing ? untilNext(took) : shortly,
  );
});
void refresh();
