// The mailroom's service: the API of api.ts over an open mailbox, with the post office and the import beside it.
import type { Setup } from '../core/line/setup';
import type { Mailroom, MailroomEvent, Outcome, PostStatus, Receipt, SetupEdit } from './api';
import { actSchema, selectionSchema, setupEditSchema, viewSchema } from './api';
import { act, changeSetup, tidyBin } from './commands';
import { exportMail } from './exporting';
import { importFiles, type ImportControl } from './importing';
import { addMessages } from './incoming';
import { Mailbox, NotWritten } from './mailbox';
import type { ParsePool } from './parsePool';
import { incomingFrom, type PostOffice } from './postOffice';
import * as queries from './queries';
import type { RecordStore } from './storage';
import { undo } from './undo';
import { messages } from './words';

/** What the service needs from where it runs. */
export interface ServiceHost {
  store: RecordStore;
  now: () => number;
  pool: Pick<ParsePool, 'parse' | 'size' | 'end'>;
  post: PostOffice;
  demoSetup: () => Promise<Setup>;
  tell: (event: MailroomEvent) => void;
}

/** How often the post office is asked, in milliseconds. */
const checkEvery = 10_000;
const tidyEvery = 3_600_000;

async function outcome(
  work: () => Promise<Receipt | { ok: false; error: string } | { ok: true; receipt: Receipt }>,
): Promise<Outcome> {
  try {
    const result = await work();
    return 'ok' in result ? result : { ok: true, receipt: result };
  } catch (error) {
    if (error instanceof NotWritten) return { ok: false, error: error.message };
    throw error;
  }
}

function dayStart(now: number): number {
  const day = new Date(now);
  day.setHours(0, 0, 0, 0);
  return day.getTime();
}

/** Opens the mailbox and serves it. */
export async function openService(host: ServiceHost): Promise<Mailroom> {
  let mailbox = await openMailbox();
  const imports = new Map<string, ImportControl>();
  const post: PostStatus = { on: mailbox.postOn, lastChecked: null, error: null, perMinute: 0, paused: false };
  let checking: Promise<PostStatus> | null = null;

  function openMailbox(): Promise<Mailbox> {
    const opened: Promise<Mailbox> = Mailbox.open(
      host.store,
      host.now,
      () => void opened.then(({ revision }) => host.tell({ kind: 'revision', revision })),
    );
    return opened;
  }

  async function fetchNew(): Promise<void> {
    // What one check fetches is one entry of the Logbook, in however many parts it comes.
    const job = `post-${mailbox.seq}-${host.now()}`;
    let arrived = 0;
    for (let more = true, part = 1; more && mailbox.postOn; part++) {
      const changes = await host.post.changes(mailbox.cursor);
      Object.assign(post, { perMinute: changes.perMinute, paused: changes.paused });
      more = changes.more;
      if (changes.messages.length === 0 && changes.cursor === mailbox.cursor) break;
      const incoming = await incomingFrom(changes);
      arrived += incoming.length;
      await mailbox.exclusive(() =>
        addMessages(mailbox, incoming, {
          command: `${job}/${part}`,
          by: 'post office',
          says: `${messages(arrived)} arrived`,
          cursor: changes.cursor,
        }),
      );
    }
  }

  function check(): Promise<PostStatus> {
    post.on = mailbox.postOn;
    if (!post.on) return Promise.resolve({ ...post });
    checking ??= fetchNew()
      .then(() => Object.assign(post, { lastChecked: host.now(), error: null }))
      .catch((error: unknown) => Object.assign(post, { error: error instanceof Error ? error.message : String(error) }))
      .then(() => {
        checking = null;
        host.tell({ kind: 'revision', revision: mailbox.revision });
        return { ...post };
      });
    return checking;
  }

  const tidy = () => void mailbox.exclusive(() => tidyBin(mailbox)).catch(() => undefined);
  void mailbox.ready().then(tidy);
  setInterval(tidy, tidyEvery);
  setInterval(() => void check(), checkEvery);
  void check();

  return {
    overview: async () => queries.overview(mailbox, { ...post, on: mailbox.postOn }, dayStart(host.now())),
    rows: (view, from, to) => queries.rows(mailbox, viewSchema.parse(view), from, to),
    position: async (view, id) => queries.position(mailbox, viewSchema.parse(view), id),
    open: (id, plain) => queries.open(mailbox, id, plain),
    attachment: (id, index) => queries.attachment(mailbox, id, index),
    whyHere: (id) => queries.whyHere(mailbox, id),
    act: (command, selection, what) =>
      outcome(() =>
        mailbox.exclusive(() => act(mailbox, command, selectionSchema.parse(selection), actSchema.parse(what))),
      ),
    editSetup: (command, edits, says, runHere) => {
      const checked: SetupEdit[] = setupEditSchema.array().parse(edits);
      return outcome(() => mailbox.exclusive(() => changeSetup(mailbox, command, checked, says, runHere)));
    },
    dryRun: (edits, ruleId) => {
      const checked = setupEditSchema.array().safeParse(edits);
      if (!checked.success) return Promise.resolve({ ok: false, error: checked.error.issues[0].message });
      return queries.dryRun(mailbox, checked.data, ruleId);
    },
    undo: (command, seq) =>
      outcome(() =>
        mailbox.exclusive(async () => {
          await mailbox.journalReady();
          const entry = seq === 'last' ? queries.lastUndoable(mailbox)?.seq : seq;
          if (entry === undefined) return { ok: false, error: 'There is nothing left to undo.' };
          return undo(mailbox, command, entry);
        }),
      ),
    logbook: async (who, from, to) => {
      await mailbox.journalReady();
      return queries.logbook(mailbox, who, from, to);
    },
    importFiles: async (job, files, target) => {
      const control: ImportControl = { cancelled: false };
      imports.set(job, control);
      try {
        return await importFiles(
          mailbox,
          job,
          files,
          target,
          host.pool.parse,
          host.pool.size + 1,
          control,
          (progress) => host.tell({ kind: 'import', progress }),
        );
      } finally {
        imports.delete(job);
        if (imports.size === 0) host.pool.end();
      }
    },
    cancelImport: async (job) => {
      const control = imports.get(job);
      if (control) control.cancelled = true;
    },
    exportMail: (selection, format) => exportMail(mailbox, selectionSchema.parse(selection), format),
    begin: async (kind) => {
      const setup = kind === 'demo' ? await host.demoSetup() : mailbox.setup;
      const edits: SetupEdit[] = [
        ...setup.folders.map((item): SetupEdit => ({ list: 'folders', id: item.id, item })),
        ...setup.labels.map((item): SetupEdit => ({ list: 'labels', id: item.id, item })),
        ...setup.register.map((item): SetupEdit => ({ list: 'register', id: item.id, item })),
        ...setup.rules.map((item): SetupEdit => ({ list: 'rules', id: item.id, item })),
      ];
      const says = kind === 'demo' ? 'Began with the demo mailbox' : 'Began with an empty mailbox';
      const result = await outcome(() =>
        mailbox.exclusive(async () => {
          const seq = await mailbox.commit({
            command: `begin-${kind}-${mailbox.seq}`,
            by: 'Wide Sort',
            says,
            final: true,
            setup: kind === 'demo' ? edits : [],
            postOn: kind === 'demo',
          });
          return { seq, count: 0, says };
        }),
      );
      if (result.ok) void check();
      return result;
    },
    checkNow: check,
    setPostRate: async (perMinute, paused) => {
      try {
        Object.assign(post, await host.post.setRate(perMinute, paused), { error: null });
      } catch (error) {
        post.error = error instanceof Error ? error.message : String(error);
      }
      host.tell({ kind: 'revision', revision: mailbox.revision });
      return { ...post, on: mailbox.postOn };
    },
    eraseAll: async () => {
      await mailbox.exclusive(async () => {
        mailbox.close();
        await host.store.clear();
      });
      mailbox = await openMailbox();
      host.tell({ kind: 'revision', revision: -1 });
    },
    begun: async () => mailbox.seq > 0,
  };
}
