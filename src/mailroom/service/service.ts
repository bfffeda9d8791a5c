// The mailroom's service: the border's interface over an open mailbox. What the first rows need is at hand; all else is
// loaded once they are out, or when it is first asked for.
import type { Mailroom } from '../border/mailroom';
import { Mailbox } from './mailbox';
import type { Open, ServiceHost } from './host';
import { firstOf } from './first';
import { PostStanding } from './postStanding';
import type { Opening, Rest } from './rest';
import { guarded, type StorageHearer } from '../storage/guarded';

/** Answers what is at hand itself; for all else it waits for the rest. */
function withRest(first: Partial<Mailroom>, rest: () => Promise<Rest>): Mailroom {
  return new Proxy(first as Mailroom, {
    get: (_, name) => {
      if (name in first) return first[name as keyof Mailroom];
      // A service is no promise, whoever asks whether it is one.
      if (typeof name !== 'string' || name === 'then') return undefined;
      return async (...args: unknown[]) => {
        const known = (await rest())[name as keyof Rest] as ((...args: unknown[]) => unknown) | undefined;
        if (!known) throw new Error(`The mailroom has no ${name}.`);
        return known(...args);
      };
    },
  });
}

/** Opens the mailbox and serves it. Throws NewerStorage where a newer version wrote it. */
export async function openService(host: ServiceHost): Promise<Mailroom> {
  /** What is to hear that the browser dropped the database, or that the disk is full. */
  let hearer: StorageHearer = { lost: () => undefined, full: () => undefined };
  const store = guarded(host.store, host.room, { lost: () => hearer.lost(), full: (now) => hearer.full(now) });
  const openMailbox = (): Promise<Mailbox> => {
    const opened: Promise<Mailbox> = Mailbox.open(
      store,
      host.clock.now,
      () =>
        void opened.then(({ revision }) => {
          host.tell({ kind: 'revision', revision });
          opening.planned();
        }),
      { parse: host.pool.parse, read: host.pool.read, readSoon: host.reader.read },
      (progress) => host.tell({ kind: 'reading', ...progress }),
    );
    return opened.then((it) => {
      it.junk.fetchShipped = host.shippedModel;
      hearer = it.storage;
      it.drafts.changed = () => {
        host.tell({ kind: 'drafts' });
        opening.planned();
      };
      return it;
    });
  };
  const opening: Opening = {
    planned: () => undefined,
    full: (now) => hearer.full(now),
    anew: async (open) => {
      const { mailbox: old } = open;
      await old.exclusive(async () => {
        old.close();
        await store.clear();
      });
      open.mailbox = await openMailbox();
      // No number stands for two mailboxes: what was asked of the old one, and answered only now, is not taken for new.
      open.mailbox.revision += old.revision + 1;
      host.tell({ kind: 'revision', revision: -1 });
    },
  };
  const open: Open = { mailbox: await openMailbox() };
  const standing = new PostStanding(open);
  let rest: Promise<Rest> | null = null;
  const load = async (): Promise<Rest> => {
    const { restOf } = await import('./rest').catch(() => {
      throw new Error('A part of the program could not be fetched. Is the server still running? Then reload the page.');
    });
    return restOf(open, host, standing, opening);
  };
  /** Where it failed, as while the server is away, it is tried again when it is next asked for. */
  const theRest = (): Promise<Rest> =>
    (rest ??= load().catch((error: unknown) => {
      rest = null;
      throw error;
    }));
  // What it fails by is told to whoever asks for something of it.
  void open.mailbox.restBegun.then(theRest).catch(() => undefined);
  return withRest(firstOf(open, host, standing), theRest);
}
