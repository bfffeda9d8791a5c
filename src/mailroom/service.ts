// The mailroom's service: the API of api.ts over an open mailbox, with the post office and the import beside it.
import type { Setup } from '../core/line/setup';
import { placeSchema } from '../core/mail/place';
import { entrySchema } from '../core/senders/register';
import { toldSchema } from '../core/senders/told';
import type { Mailroom } from './border/mailroom';
import type { MailroomEvent } from './border/events';
import type { PostStatus } from './border/overview';
import type { Outcome, Receipt } from './border/outcome';
import { type SetupEdit, setupEditSchema, setupEdits } from '../core/line/setupEdit';
import { actSchema, groupingSchema, selectionSchema, viewSchema } from './border/views';
import { dissolvingSchema } from './border/rules';
import { sendAnswer, startAnswer } from './post/answering';
import { act } from './commands/commands';
import { tidy } from './commands/retention';
import { changeSetup } from './commands/changeSetup';
import { thinOut } from './commands/thinOut';
import { openConversation, thinning } from './questions/conversations';
import { exportMail } from './questions/exporting';
import { importFiles, type ImportControl } from './intake/importFiles';
import { addMessages } from './intake/incoming';
import { Mailbox } from './mailbox';
import { NotWritten } from './storage/committing';
import type { ParsePool } from './intake/parsePool';
import { incomingFrom, type PostOffice } from './post/postOffice';
import { attachment, open } from './questions/message';
import { overview } from './questions/overview';
import { position, rows } from './questions/rows';
import * as junkQueries from './questions/junkReport';
import { checkEntry, registerUse } from './questions/registerUse';
import { rescue } from './commands/rescue';
import { importSetup } from './commands/setupFile';
import { exportSetup } from './questions/setupFile';
import type { RecordStore } from './storage/recordStore';
import { whereWent } from './questions/whereWent';
import { toldLately, toTell } from './questions/notifications';
import { dryRun, ruleSetReport } from './questions/dryRuns';
import { ageMail, runRules } from './commands/runRules';
import { agenda, fallenDue } from './questions/agenda';
import { dissolve } from './commands/dissolve';
import { habit, ruleProposals } from './questions/habits';
import { undo } from './commands/undo';
import { clearOutSchema } from '../core/clearout/clearOut';
import { months } from './questions/months';
import { clearOutCounts, clearOutReport } from './questions/clearOutReport';
import { leaveList } from './post/leaveList';
import { lastUndoable, logbook, logDetail } from './questions/logbook';
import { logFilterSchema } from './border/log';
import { passages } from './questions/passages';
import { people, senderReport, senders } from './questions/senders';
import { senderSchema, sendersQuestionSchema } from './border/senderTable';
import { compact } from './commands/compaction';
import { whyHere } from './questions/whyHere';
import { messages } from '../core/text/sentences';

/** What the service needs from where it runs. */
export interface ServiceHost {
  store: RecordStore;
  now: () => number;
  pool: Pick<ParsePool, 'parse' | 'size' | 'end'>;
  post: PostOffice;
  demoSetup: () => Promise<Setup>;
  /** The junk filter's model that comes with the application; null where it can't be had. */
  shippedModel: () => Promise<Uint8Array | null>;
  /** Domains of free mailboxes, which so many share that blocking one is hardly meant. */
  sharedDomains: () => Promise<ReadonlySet<string>>;
  tell: (event: MailroomEvent) => void;
}

/** How often the post office is asked, in milliseconds. */
const checkEvery = 10_000;
const tidyEvery = 3_600_000;
/** How long after everything is in memory the text index is warmed, in milliseconds. */
const warmAfter = 3_000;
/** How often it is looked whether a flag has fallen due, in milliseconds. */
const remindEvery = 15_000;

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
  /** The number of the newest long question that each has asked. */
  const questions = new Map<string, number>();
  const post: PostStatus = { on: mailbox.postOn, lastChecked: null, error: null, perMinute: 0, paused: false };
  let checking: Promise<PostStatus> | null = null;

  /** Says whether a question is still the newest of whoever asks. */
  function askedBy(asker: string): () => boolean {
    const question = (questions.get(asker) ?? 0) + 1;
    questions.set(asker, question);
    return () => questions.get(asker) === question;
  }

  function openMailbox(): Promise<Mailbox> {
    const opened: Promise<Mailbox> = Mailbox.open(
      host.store,
      host.now,
      () => void opened.then(({ revision }) => host.tell({ kind: 'revision', revision })),
      (progress) => host.tell({ kind: 'reading', ...progress }),
    );
    return opened.then((it) => {
      it.junk.fetchShipped = host.shippedModel;
      return it;
    });
  }

  async function fetchNew(): Promise<void> {
    // What one check fetches is one entry of the Logbook, in however many parts it comes.
    const job = `post-${mailbox.seq}-${host.now()}`;
    // Messages are threaded as they come in: what they may answer must be in memory.
    await mailbox.ready();
    // A mailbox that is being filled for the first time has no news.
    const news = mailbox.cursor !== null;
    let arrived = 0;
    for (let more = true, part = 1; more && mailbox.postOn; part++) {
      const changes = await host.post.changes(mailbox.cursor);
      Object.assign(post, { perMinute: changes.perMinute, paused: changes.paused });
      more = changes.more;
      if (changes.messages.length === 0 && changes.cursor === mailbox.cursor) break;
      const incoming = await incomingFrom(changes);
      arrived += incoming.length;
      const ids = await mailbox.exclusive(() =>
        addMessages(mailbox, incoming, {
          command: `${job}/${part}`,
          by: 'post office',
          says: `${messages(arrived)} arrived`,
          cursor: changes.cursor,
        }),
      );
      const told = news ? toTell(mailbox, ids) : [];
      if (told.length) host.tell({ kind: 'told', rows: told });
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

  /** Waits for a check that is under way, which may have begun too early, then checks. */
  async function checkAgain(): Promise<void> {
    await checking;
    await check();
  }

  const tidyUp = () =>
    void mailbox
      .exclusive(async () => {
        await tidy(mailbox);
        await ageMail(mailbox);
        await compact(mailbox);
      })
      .catch(() => undefined);
  let remindedAt = host.now();
  const remind = async () => {
    const [from, to] = [remindedAt, host.now()];
    remindedAt = to;
    const rows = await fallenDue(mailbox, from, to);
    if (rows.length) host.tell({ kind: 'due', rows });
  };
  void mailbox
    .ready()
    .then(tidyUp)
    // Once all is in memory and nothing else begins, the first search is made ready.
    .then(() => setTimeout(() => void mailbox.finding.warm().catch(() => undefined), warmAfter));
  setInterval(() => void remind(), remindEvery);
  setInterval(tidyUp, tidyEvery);
  setInterval(() => void check(), checkEvery);
  void check();

  return {
    overview: async () => overview(mailbox, { ...post, on: mailbox.postOn }, dayStart(host.now())),
    rows: (view, grouping, from, to) => rows(mailbox, viewSchema.parse(view), groupingSchema.parse(grouping), from, to),
    position: (view, grouping, id) => position(mailbox, viewSchema.parse(view), groupingSchema.parse(grouping), id),
    conversation: (id, view, elsewhere) => openConversation(mailbox, id, viewSchema.parse(view), elsewhere),
    thinning: (id) => thinning(mailbox, id),
    thinOut: (command, id) => outcome(() => mailbox.exclusive(() => thinOut(mailbox, command, id))),
    startAnswer: (id, all, when) => startAnswer(mailbox, id, all, when),
    sendAnswer: (command, answer, zone) => sendAnswer(mailbox, host.post, command, answer, zone, checkAgain),
    toldLately: (told) => toldLately(mailbox, toldSchema.array().parse(told)),
    open: (id, plain) => open(mailbox, id, plain),
    attachment: (id, index) => attachment(mailbox, id, index),
    whyHere: (id) => whyHere(mailbox, id),
    counts: async (views) => {
      const out: { total: number; unread: number }[] = [];
      for (const view of viewSchema.array().parse(views)) {
        await mailbox.views.ready(view);
        out.push(mailbox.views.countOf(view));
      }
      return out;
    },
    months: (view, grouping) => months(mailbox, viewSchema.parse(view), groupingSchema.parse(grouping)),
    passages: (query, ids) => passages(mailbox, query, ids.slice(0, 500)),
    people: (typed, most) => people(mailbox, typed, most),
    senders: (question, from, to) => senders(mailbox, sendersQuestionSchema.parse(question), from, to),
    sender: (sender) => senderReport(mailbox, senderSchema.parse(sender)),
    leaveList: (command, message, by, zone) =>
      outcome(() => leaveList(mailbox, { post: host.post, check: checkAgain, zone }, command, message, by)),
    clearOutReport: (asker, choice, of) => {
      const wanted = askedBy(asker);
      const reading = (done: number, total: number) => {
        if (wanted()) host.tell({ kind: 'progress', job: asker, done, total });
        return wanted();
      };
      return clearOutReport(mailbox, clearOutSchema.parse(choice), of && viewSchema.parse(of), reading);
    },
    clearOutCounts: (choices, of) =>
      clearOutCounts(mailbox, clearOutSchema.array().parse(choices), of && viewSchema.parse(of)),
    drop: async (asker) => void askedBy(asker),
    act: (command, selection, what) =>
      outcome(() =>
        mailbox.exclusive(() => act(mailbox, command, selectionSchema.parse(selection), actSchema.parse(what))),
      ),
    editSetup: (command, edits, says, runHere) => {
      const checked: SetupEdit[] = setupEditSchema.array().parse(edits);
      return outcome(() => mailbox.exclusive(() => changeSetup(mailbox, command, checked, says, runHere)));
    },
    dryRun: (edits, ruleId, asker) => {
      const checked = setupEditSchema.array().safeParse(edits);
      if (!checked.success) return Promise.resolve({ ok: false, error: checked.error.issues[0].message });
      return dryRun(mailbox, checked.data, ruleId, asker === undefined ? () => true : askedBy(asker));
    },
    ruleSetReport: (edits) => ruleSetReport(mailbox, setupEditSchema.array().parse(edits)),
    dissolve: (command, what) =>
      outcome(() => mailbox.exclusive(() => dissolve(mailbox, command, dissolvingSchema.parse(what)))),
    agenda: () => agenda(mailbox),
    ruleProposals: (id) => ruleProposals(mailbox, id),
    habit: (ids, place) => habit(mailbox, ids, placeSchema.parse(place)),
    runRules: (command) => outcome(() => mailbox.exclusive(() => runRules(mailbox, command))),
    rescue: (command, selection, fromNowOn, contact) =>
      outcome(() =>
        mailbox.exclusive(() => rescue(mailbox, command, selectionSchema.parse(selection), fromNowOn, contact)),
      ),
    judgement: (id) => junkQueries.judgement(mailbox, id),
    filterReport: (job) =>
      junkQueries.filterReport(mailbox, (done, total) => host.tell({ kind: 'progress', job, done, total })),
    secondLook: (most) => junkQueries.secondLook(mailbox, most),
    registerUse: () => registerUse(mailbox),
    checkEntry: async (entry) => checkEntry(mailbox, entrySchema.parse(entry), await host.sharedDomains()),
    whereWent: (words) => whereWent(mailbox, words),
    exportSetup: () => exportSetup(mailbox),
    importSetup: (command, document) => outcome(() => mailbox.exclusive(() => importSetup(mailbox, command, document))),
    undo: (command, seq) =>
      outcome(() =>
        mailbox.exclusive(async () => {
          await mailbox.journalReady();
          const entry = seq === 'last' ? lastUndoable(mailbox)?.seq : seq;
          if (entry === undefined) return { ok: false, error: 'There is nothing left to undo.' };
          return undo(mailbox, command, entry);
        }),
      ),
    logbook: (filter, from, to) => logbook(mailbox, logFilterSchema.parse(filter), from, to),
    logDetail: (seq) => logDetail(mailbox, seq),
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
      const edits = setupEdits(setup);
      const says = kind === 'demo' ? 'Began with the demo mailbox' : 'Began with an empty mailbox';
      const result = await outcome(() =>
        mailbox.exclusive(async () => {
          const seq = await mailbox.commit({
            command: `begin-${kind}-${mailbox.seq}`,
            by: 'Wide Sort',
            says,
            final: true,
            // From now on junk has its date.
            setup:
              kind === 'demo' ? edits : [{ list: 'junk', id: 'junk', item: { ...setup.junk, keepFrom: host.now() } }],
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
