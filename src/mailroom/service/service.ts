// The mailroom's service: the border's interface over an open mailbox, with the post office, imports and moments beside it.
import type { Mailroom } from '../border/mailroom';
import { Mailbox } from './mailbox';
import { Moments } from '../time/moments';
import { commandsOf } from './commands';
import type { Open, ServiceHost } from './host';
import { momentsOf } from './moments';
import { settleFollowing } from '../post/following';
import { Outbox } from '../post/sending';
import { PostRoom } from './post';
import { questionsOf } from './questions';
import { transferOf } from './transfer';
import { guarded, type StorageHearer } from '../storage/guarded';
import { margin } from '../storage/room';
import { reasonOf } from '../../core/text/sentences';

/** How long after everything is in memory the text index is warmed, in milliseconds. */
const warmAfter = 3_000;

/** Opens the mailbox and serves it. Throws NewerStorage where a newer version wrote it. */
export async function openService(host: ServiceHost): Promise<Mailroom> {
  /** What is to hear that the browser dropped the database, or that the disk is full. */
  let hearer: StorageHearer = { lost: () => undefined, full: () => undefined };
  const store = guarded(host.store, host.room, { lost: () => hearer.lost(), full: (now) => hearer.full(now) });
  /** What hears of every change; set once there is something to plan. */
  let planned: () => void = () => undefined;
  const openMailbox = (): Promise<Mailbox> => {
    const opened: Promise<Mailbox> = Mailbox.open(
      store,
      host.clock.now,
      () =>
        void opened.then(({ revision }) => {
          host.tell({ kind: 'revision', revision });
          planned();
        }),
      { parse: host.pool.parse, read: host.pool.read, readSoon: host.reader.read },
      (progress) => host.tell({ kind: 'reading', ...progress }),
    );
    return opened.then((it) => {
      it.junk.fetchShipped = host.shippedModel;
      hearer = it.storage;
      it.drafts.changed = () => {
        host.tell({ kind: 'drafts' });
        planned();
      };
      return it;
    });
  };
  const open: Open = { mailbox: await openMailbox() };
  const post = new PostRoom(open, host);
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
      if (!host.room.has(margin)) hearer.full(true);
      planned = () => moments.changed();
      // What waits to be sent is planned once it is known; drafts that can’t be read hold up nothing else.
      void settleFollowing(open.mailbox).catch((error: unknown) =>
        open.mailbox.tell(`Drafts could not be read: ${reasonOf(error)}`),
      );
      return moments.wake();
    })
    // Once all is in memory and nothing else begins, the first search is made ready.
    .then(() => host.clock.after(warmAfter, () => void open.mailbox.finding.warm().catch(() => undefined)));
  return {
    ...questionsOf(open, host, post.status, outbox),
    ...commandsOf(open, host, post, outbox),
    ...transferOf(open, host),
    checkNow: post.check,
    setPostRate: post.setRate,
    eraseAll: async () => {
      await open.mailbox.exclusive(async () => {
        open.mailbox.close();
        await store.clear();
      });
      open.mailbox = await openMailbox();
      host.tell({ kind: 'revision', revision: -1 });
    },
  };
}
