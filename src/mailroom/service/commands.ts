// The commands that the page may give: each is looked through at the border, then carried out by its room, one after
// another.
import { z } from 'zod';
import { itemSchema } from '../../core/agenda/item';
import { itemEditSchema } from '../../core/agenda/itemEdit';
import { stampSchema } from '../../core/stamps/stamp';
import { momentSchema } from '../../core/data/id';
import { contentSchema, nameSchema } from '../../core/writing/draft';
import { checkSetup } from '../../core/line/setup';
import { setupEdits, setupEditSchema } from '../../core/line/setupEdit';
import type { Mailroom } from '../border/mailroom';
import type { Outcome, Receipt } from '../border/outcome';
import { answerSchema, goingSchema } from '../border/agenda';
import { beginningSchema } from '../border/drafts';
import { dissolvingSchema } from '../border/rules';
import { gatheringSchema } from '../border/trays';
import { actSchema, selectionSchema } from '../border/views';
import { act } from '../commands/acts';
import { changeSetup } from '../commands/changeSetup';
import { hold, lift } from '../commands/delivering';
import { dissolve } from '../commands/dissolve';
import { gather } from '../commands/gathering';
import { rescue } from '../commands/rescue';
import { runRules } from '../commands/runRules';
import { importSetup } from '../commands/setupFile';
import { thinOut } from '../commands/thinOut';
import { undo, undoState } from '../commands/undo';
import type { Mailbox } from './mailbox';
import { beginDraft, keepDraft, keepDraftFile, throwDraft } from '../post/drafts';
import { answerInvitation, editItems, mostEdits, takeUpCalendar } from '../post/itemMail';
import { applyStamp } from '../post/stamping';
import type { Outbox } from '../post/sending';
import { leaveList } from '../post/leaveList';
import { lastUndoable } from '../questions/logbook';
import { outcome, type Open, type ServiceHost } from './host';
import type { PostRoom } from './post';

/** The id of a command: it stands in the journal. */
const commandSchema = z.string().min(1).max(300);
/** What the Logbook says of a command. */
const saysSchema = z.string().max(2_000);
/** Minutes east of UTC. */
const zoneSchema = z.number().int().min(-1_440).max(1_440);
const entrySchema = z.union([z.number().int(), z.literal('last')]);

/** Undoes an entry, or whatever the person's last command is by then. */
async function undoEntry(mailbox: Mailbox, command: string, seq: number | 'last'): Promise<Outcome> {
  await mailbox.journalReady();
  const entry = seq === 'last' ? lastUndoable(mailbox)?.seq : seq;
  if (entry === undefined) return { ok: false, error: 'There is nothing left to undo.' };
  return undo(mailbox, command, entry);
}

async function demoSetup(host: ServiceHost) {
  const checked = checkSetup(await host.demo.setup().catch(() => null));
  if (!checked.ok) throw new Error('The demo’s setup could not be fetched from the server.');
  return checked.setup;
}

/** Begins a mailbox. */
async function begin(open: Open, host: ServiceHost, kind: 'demo' | 'own'): Promise<Receipt> {
  const { mailbox } = open;
  const setup = kind === 'demo' ? await demoSetup(host) : mailbox.setup;
  const items = kind === 'demo' ? itemSchema.array().parse(await host.demo.agenda().catch(() => [])) : [];
  const says = kind === 'demo' ? 'Began with the demo mailbox' : 'Began with an empty mailbox';
  const seq = await mailbox.exclusive(() =>
    mailbox.commit({
      command: `begin-${kind}-${mailbox.seq}`,
      by: 'Wide Sort',
      says,
      final: true,
      setup:
        kind === 'demo'
          ? setupEdits(setup)
          : // From now on junk has its date.
            [{ list: 'junk', id: 'junk', item: { ...setup.junk, keepFrom: host.clock.now() } }],
      ...(items.length ? { items: items.map((item) => ({ uid: item.uid, item })) } : {}),
      postOn: kind === 'demo',
    }),
  );
  return { seq, count: 0, says };
}

/** All commands. */
export function commandsOf(open: Open, host: ServiceHost, post: PostRoom, outbox: Outbox) {
  /** Carries a command out when its turn comes. */
  const inTurn = async (command: string, work: (mailbox: Mailbox) => Promise<Receipt | Outcome>): Promise<Outcome> => {
    commandSchema.parse(command);
    return outcome(() => open.mailbox.exclusive(() => work(open.mailbox)));
  };
  return {
    act: async (command, selection, what) => {
      const [chosen, checked] = [selectionSchema.safeParse(selection), actSchema.safeParse(what)];
      if (!chosen.success || !checked.success) return { ok: false, error: 'That act, or what it is for, is none.' };
      return inTurn(command, (mailbox) => act(mailbox, command, chosen.data, checked.data));
    },
    editItems: async (command, edits, says, going) => {
      const checked = itemEditSchema.array().max(mostEdits).safeParse(edits);
      if (!checked.success) return { ok: false, error: checked.error.issues[0].message };
      saysSchema.parse(says);
      const when = goingSchema.nullable().parse(going);
      return inTurn(command, (mailbox) => editItems(mailbox, command, checked.data, says, when));
    },
    answerInvitation: (command, id, answer, going) => {
      const [given, when] = [answerSchema.parse(answer), goingSchema.nullable().parse(going)];
      return inTurn(command, (mailbox) => answerInvitation(mailbox, command, z.number().parse(id), given, when));
    },
    takeUpCalendar: (command, id) =>
      inTurn(command, (mailbox) => takeUpCalendar(mailbox, command, z.number().parse(id))),
    stamp: async (command, stamp, selection, sure, going) => {
      const [read, chosen] = [stampSchema.safeParse(stamp), selectionSchema.safeParse(selection)];
      if (!read.success || !chosen.success) return { ok: false, error: 'That stamp, or what it is for, is none.' };
      const [asked, when] = [z.boolean().parse(sure), goingSchema.parse(going)];
      const shared = await host.sharedDomains();
      return inTurn(command, (mailbox) => applyStamp(mailbox, command, read.data, chosen.data, asked, when, shared));
    },
    thinOut: (command, id) => inTurn(command, (mailbox) => thinOut(mailbox, command, id)),
    editSetup: async (command, edits, says, runHere) => {
      const checked = setupEditSchema.array().parse(edits);
      saysSchema.parse(says);
      return inTurn(command, (mailbox) => changeSetup(mailbox, command, checked, says, runHere));
    },
    importSetup: (command, document) => inTurn(command, (mailbox) => importSetup(mailbox, command, document)),
    dissolve: async (command, what) => {
      const checked = dissolvingSchema.parse(what);
      return inTurn(command, (mailbox) => dissolve(mailbox, command, checked));
    },
    runRules: (command) => inTurn(command, (mailbox) => runRules(mailbox, command)),
    gather: (command, selection, gathering) => {
      const [chosen, checked] = [selectionSchema.parse(selection), gatheringSchema.parse(gathering)];
      return inTurn(command, (mailbox) => gather(mailbox, command, chosen, checked));
    },
    hold: (command, until) => inTurn(command, (mailbox) => hold(mailbox, command, z.number().nullable().parse(until))),
    lift: (command) => inTurn(command, (mailbox) => lift(mailbox, command)),
    rescue: async (command, selection, fromNowOn, contact) => {
      const chosen = selectionSchema.parse(selection);
      return inTurn(command, (mailbox) => rescue(mailbox, command, chosen, fromNowOn, contact));
    },
    undoState: (seq) => undoState(open.mailbox, z.number().int().parse(seq)),
    undo: (command, seq) => inTurn(command, (mailbox) => undoEntry(mailbox, command, entrySchema.parse(seq))),
    beginDraft: (beginning) => beginDraft(open.mailbox, beginningSchema.parse(beginning)),
    keepDraft: (id, content) => keepDraft(open.mailbox, nameSchema.parse(id), contentSchema.parse(content)),
    keepDraftFile: (id, file, bytes) =>
      keepDraftFile(open.mailbox, nameSchema.parse(id), nameSchema.parse(file), z.instanceof(Uint8Array).parse(bytes)),
    throwDraft: (id, away) => throwDraft(open.mailbox, nameSchema.parse(id), z.boolean().parse(away)),
    sendDraft: (id, due, zone) => outbox.send(nameSchema.parse(id), momentSchema.parse(due), zoneSchema.parse(zone)),
    takeBackDraft: (id) => outbox.takeBack(nameSchema.parse(id)),
    leaveList: async (command, message, by, zone) =>
      outcome(() =>
        leaveList(
          open.mailbox,
          { post: host.post, check: post.checkAgain, zone },
          commandSchema.parse(command),
          message,
          by,
        ),
      ),
    begin: async (kind) => {
      const result = await outcome(() => begin(open, host, kind));
      if (result.ok) void post.check();
      return result;
    },
  } satisfies Partial<Mailroom>;
}
