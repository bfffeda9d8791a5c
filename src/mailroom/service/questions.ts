// The questions that the page may ask: each is looked through at the border, then answered by its room.
import { itemSchema } from '../../core/agenda/item';
import { stampSchema } from '../../core/stamps/stamp';
import { clearOutSchema } from '../../core/clearout/clearOut';
import { setupEditSchema } from '../../core/line/setupEdit';
import { placeSchema } from '../../core/mail/place';
import { z } from 'zod';
import { entrySchema } from '../../core/senders/register';
import { toldSchema } from '../../core/senders/told';
import { logFilterSchema } from '../border/log';
import type { Mailroom } from '../border/mailroom';
import { senderSchema, sendersQuestionSchema } from '../border/senderTable';
import { groupingSchema, selectionSchema, viewSchema } from '../border/views';
import { aboutDraft, recipientsLike } from '../post/aboutDraft';
import { wouldSend } from '../post/wouldSend';
import { stampReport } from '../post/stamping';
import { draftRow } from '../post/drafts';
import { draftAsFile, type Outbox } from '../post/sending';
import { contentSchema, nameSchema } from '../../core/writing/draft';
import { agenda } from '../questions/agenda';
import { dated } from '../questions/dated';
import { exportItems } from '../questions/exportItems';
import { forItem, inTheWay, madeOf, seenInvitation } from '../questions/invitation';
import { clearOutCounts, clearOutReport } from '../questions/clearOutReport';
import { openConversation, thinning } from '../questions/conversations';
import { automaticAnswerSchema } from '../../core/delivery/automaticAnswer';
import { waitingWhereSchema } from '../border/trays';
import { automaticAnswerDryRun } from '../post/automaticAnswers';
import { gatherChoices } from '../commands/gathering';
import { deliveryDryRun, holdDryRun } from '../questions/deliveryDryRun';
import { dryRun, ruleReach, ruleSetReport } from '../questions/dryRuns';
import { exportMemory } from '../questions/memory';
import { exportMail } from '../questions/exporting';
import { habit, ruleProposals } from '../questions/habits';
import { filterReport, judgement, secondLook } from '../questions/junkReport';
import { logbook, logDetail } from '../questions/logbook';
import { attachment, open as openMessage, source } from '../questions/message';
import { held, heldCounts, stillHeld } from '../questions/held';
import { onlySchema } from '../border/held';
import { months } from '../questions/months';
import { toldLately } from '../questions/notifications';
import { ownAddresses } from '../questions/ownAddresses';
import { passages } from '../questions/passages';
import { readSetup } from '../commands/setupFile';
import { entryGuards, registerUse, tookByEntry } from '../questions/registerUse';
import { position } from '../questions/rows';
import { people, senderReport, senders } from '../questions/senders';
import { exportSetup } from '../questions/setupFile';
import { whereWent } from '../questions/whereWent';
import { whyHere } from '../questions/whyHere';
import type { Open, ServiceHost } from './host';
import { progressOf } from './progress';

/** Long questions of which only the newest of each asker is still wanted. */
class NewestOnly {
  private readonly questions = new Map<string, number>();

  /** Says whether a question is still the newest of whoever asks. */
  ask(asker: string): () => boolean {
    const question = (this.questions.get(asker) ?? 0) + 1;
    this.questions.set(asker, question);
    return () => this.questions.get(asker) === question;
  }
}

/** Of rows, conversations and messages. */
function ofMail(open: Open) {
  return {
    position: (view, grouping, id) =>
      position(open.mailbox, viewSchema.parse(view), groupingSchema.parse(grouping), id),
    held: (view, grouping, only, from, to) =>
      held(open.mailbox, viewSchema.parse(view), groupingSchema.parse(grouping), onlySchema.parse(only), from, to),
    heldCounts: (view, grouping) => heldCounts(open.mailbox, viewSchema.parse(view), groupingSchema.parse(grouping)),
    stillHeld: (view, ids) => stillHeld(open.mailbox, viewSchema.parse(view), Int32Array.from(ids)),
    months: (view, grouping) => months(open.mailbox, viewSchema.parse(view), groupingSchema.parse(grouping)),
    counts: async (views) => {
      const out: { total: number; unread: number }[] = [];
      for (const view of viewSchema.array().parse(views)) {
        await open.mailbox.views.ready(view);
        out.push(open.mailbox.views.countOf(view));
      }
      return out;
    },
    passages: (query, ids) => passages(open.mailbox, query, ids.slice(0, 500)),
    conversation: (id, view, elsewhere) => openConversation(open.mailbox, id, viewSchema.parse(view), elsewhere),
    thinning: (id) => thinning(open.mailbox, id),
    open: (id, plain) => openMessage(open.mailbox, id, plain),
    source: (id) => source(open.mailbox, id),
    attachment: (id, index) => attachment(open.mailbox, id, index),
    exportMemory: async () => exportMemory(open.mailbox),
    exportMail: (selection, format) => exportMail(open.mailbox, selectionSchema.parse(selection), format),
  } satisfies Partial<Mailroom>;
}

/** Of senders, junk and the Register. */
function ofSenders(open: Open, host: ServiceHost) {
  return {
    people: (typed, most) => people(open.mailbox, typed, most),
    senders: (question, from, to) => senders(open.mailbox, sendersQuestionSchema.parse(question), from, to),
    sender: (sender) => senderReport(open.mailbox, senderSchema.parse(sender)),
    toldLately: (told) => toldLately(open.mailbox, toldSchema.array().parse(told)),
    judgement: (id) => judgement(open.mailbox, id),
    filterReport: (job) => filterReport(open.mailbox, progressOf(host, job)),
    secondLook: (most, answered) => secondLook(open.mailbox, most, z.array(z.number()).parse(answered)),
    ownAddresses: () => ownAddresses(open.mailbox),
    registerUse: () => registerUse(open.mailbox),
    entryGuards: async (entries) =>
      entryGuards(open.mailbox, z.array(entrySchema).parse(entries), await host.sharedDomains()),
    tookByEntry: (id) => tookByEntry(open.mailbox, id),
  } satisfies Partial<Mailroom>;
}

/** Of what was done, and why; of what would be done. */
function ofDecisions(open: Open, host: ServiceHost) {
  const newest = new NewestOnly();
  return {
    whyHere: (id) => whyHere(open.mailbox, id),
    whereWent: (words) => whereWent(open.mailbox, words),
    logbook: (filter, from, to) => logbook(open.mailbox, logFilterSchema.parse(filter), from, to),
    logDetail: (seq, decidedBy) =>
      logDetail(
        open.mailbox,
        seq,
        z
          .string()
          .nullable()
          .parse(decidedBy ?? null),
      ),
    agenda: () => agenda(open.mailbox),
    exportSetup: () => exportSetup(open.mailbox),
    readSetup: async (document) => {
      // What stands in which folder is known once everything is read.
      await open.mailbox.ready();
      return readSetup(open.mailbox, document);
    },
    dryRun: (edits, ruleId, asker, most) => {
      const checked = setupEditSchema.array().safeParse(edits);
      if (!checked.success) return Promise.resolve({ ok: false, error: checked.error.issues[0].message });
      const wanted = asker === undefined ? () => true : newest.ask(asker);
      return dryRun(open.mailbox, checked.data, ruleId, wanted, shownSchema.parse(most));
    },
    deliveryDryRun: (edits, where, asker) => {
      const checked = setupEditSchema.array().safeParse(edits);
      if (!checked.success) return Promise.resolve({ ok: false, error: checked.error.issues[0].message });
      return deliveryDryRun(open.mailbox, checked.data, waitingWhereSchema.parse(where), newest.ask(asker));
    },
    holdDryRun: (length) => holdDryRun(open.mailbox, z.number().positive().parse(length)),
    automaticAnswerDryRun: (answer) => automaticAnswerDryRun(open.mailbox, automaticAnswerSchema.parse(answer)),
    gatherChoices: (selection) => gatherChoices(open.mailbox, selectionSchema.parse(selection)),
    wouldSend: async (edits, rule, asker) =>
      wouldSend(open.mailbox, setupEditSchema.array().parse(edits), z.string().parse(rule), newest.ask(asker)),
    ruleReach: async (edits, rule) =>
      ruleReach(open.mailbox, setupEditSchema.array().parse(edits), z.string().parse(rule)),
    ruleSetReport: (edits, most) =>
      ruleSetReport(open.mailbox, setupEditSchema.array().parse(edits), shownSchema.parse(most)),
    ruleProposals: (id) => ruleProposals(open.mailbox, id),
    habit: (ids, place) => habit(open.mailbox, ids, placeSchema.parse(place)),
    clearOutReport: (asker, choice, of) => {
      const wanted = newest.ask(asker);
      const told = progressOf(host, asker);
      const reading = (done: number, total: number) => {
        if (wanted()) told(done, total);
        return wanted();
      };
      return clearOutReport(open.mailbox, clearOutSchema.parse(choice), of && viewSchema.parse(of), reading);
    },
    clearOutCounts: (choices, of) =>
      clearOutCounts(open.mailbox, clearOutSchema.array().parse(choices), of && viewSchema.parse(of)),
    drop: async (asker) => void newest.ask(asker),
  } satisfies Partial<Mailroom>;
}

const uidsSchema = z.string().array().max(100_000);

/** Of tasks, appointments and invitations. */
function ofItems(open: Open, host: ServiceHost) {
  const newest = new NewestOnly();
  return {
    dated: (from, to, most) =>
      dated(open.mailbox, z.number().parse(from), z.number().parse(to), z.number().int().min(0).optional().parse(most)),
    items: async (uids) => uidsSchema.parse(uids).flatMap((uid) => open.mailbox.items.all.get(uid) ?? []),
    exportItems: (uids, enclosed) =>
      exportItems(open.mailbox, uidsSchema.nullable().parse(uids), z.boolean().parse(enclosed)),
    forItem: (id) => forItem(open.mailbox, z.number().parse(id)),
    madeOf: (id) => madeOf(open.mailbox, z.number().parse(id)),
    inTheWay: (item) => inTheWay(open.mailbox, itemSchema.parse(item)),
    invitation: (id) => seenInvitation(open.mailbox, z.number().parse(id)),
    stampReport: async (stamp, selection, asker) => {
      const wanted = newest.ask(z.string().parse(asker));
      const shared = await host.sharedDomains();
      if (!wanted()) return null;
      return stampReport(open.mailbox, stampSchema.parse(stamp), selectionSchema.parse(selection), shared);
    },
  } satisfies Partial<Mailroom>;
}

/** How many messages of a dry run are shown. */
const shownSchema = z.number().int().min(1).max(1_000_000).optional();

/** Of what is written. */
function ofWriting(open: Open, outbox: Outbox) {
  return {
    drafts: async () => {
      await open.mailbox.drafts.ready();
      return open.mailbox.drafts.list().map((draft) => draftRow(draft, draft.gone || outbox.isGoing(draft.id)));
    },
    draft: async (id) => {
      await open.mailbox.drafts.ready();
      return open.mailbox.drafts.get(nameSchema.parse(id));
    },
    draftFile: (id, file) => open.mailbox.drafts.file(nameSchema.parse(id), nameSchema.parse(file)),
    draftAsFile: (id, zone) => draftAsFile(open.mailbox, nameSchema.parse(id), z.number().int().parse(zone)),
    aboutDraft: (content, manyPeople) =>
      aboutDraft(open.mailbox, contentSchema.parse(content), z.number().min(2).parse(manyPeople)),
    recipientsLike: (typed, most) =>
      recipientsLike(open.mailbox, z.string().max(1_000).parse(typed), z.number().int().parse(most)),
  } satisfies Partial<Mailroom>;
}

/** All questions besides the first (first.ts). */
export function questionsOf(open: Open, host: ServiceHost, outbox: Outbox) {
  return {
    ...ofWriting(open, outbox),
    ...ofMail(open),
    ...ofSenders(open, host),
    ...ofDecisions(open, host),
    ...ofItems(open, host),
  } satisfies Partial<Mailroom>;
}
