// What the first rows don't need: all other questions, the commands, the post office, imports and moments.
import type { Mailroom } from '../border/mailroom';
import { Moments } from '../time/moments';
import { settleFollowing } from '../post/following';
import { Outbox } from '../post/sending';
import { reasonOf } from '../../core/text/sentences';
import { commandsOf } from './commands';
import type { firstOf } from './first';
import type { Open, ServiceHost } from './host';
import { momentsOf } from './moments';
import { PostRoom } from './post';
import type { PostStanding } from './postStanding';
import { questionsOf } from './questions';
import { transferOf } from './transfer';

export type Rest = Omit<Mailroom, keyof ReturnType<typeof firstOf>>;

/** What the opening of a mailbox leaves to be done. */
export interface Opening {
  /** Hears of every change once there is something to plan. */
  planned: () => void;
  /** Hears that the disk is full, or is not any more. */
  full: (now: boolean) => void;
  /** Deletes everything, and begins with an empty mailbox. */
  anew: (open: Open) => Promise<void>;
}

/** How long after everything is in memory the text index is warmed, in milliseconds. */
const warmAfter = 3_000;

/** Everything besides the first questions; begins to look after the post office, the moments and the drafts. */
export function restOf(open: Open, host: ServiceHost, standing: PostStanding, opening: Opening): Rest {
  const post = new PostRoom(open, host, standing);
  const outbox = new Outbox(
    () => open.mailbox,
    host.post,
    post.checkAgain,
    (says, ok) => host.tell({ kind: 'sent', says, ok }),
  );
  const moments = new Moments(host.clock, momentsOf(open, host, post, outbox));
  void post.check();
  void open.mailbox
    .ready()
    .then(() => {
      // Said before anything is refused: a browser that is short of room may drop all when it is started anew.
      if (!host.room.has(0)) opening.full(true);
      opening.planned = () => moments.changed();
      // What waits to be sent is planned once it is known; drafts that can’t be read hold up nothing else.
      void settleFollowing(open.mailbox).catch((error: unknown) =>
        open.mailbox.tell(`Drafts could not be read: ${reasonOf(error)}`),
      );
      return moments.wake();
    })
    // Once all is in memory and nothing else begins, the first search is made ready.
    .then(() => host.clock.after(warmAfter, () => void open.mailbox.finding.warm().catch(() => undefined)));
  return {
    ...questionsOf(open, host, outbox),
    ...commandsOf(open, host, post, outbox),
    ...transferOf(open, host),
    checkNow: post.check,
    setPostRate: post.setRate,
    eraseAll: () => opening.anew(open),
  };
}
