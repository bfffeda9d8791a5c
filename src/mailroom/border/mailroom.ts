// The border between the page and the mailroom: everything that crosses it, in one file.
//
// The page holds no mail. It asks for windows of rows, opens single messages, sends commands, and hears of revisions.
// Expected failures (a full disk, a file that is no mail) come back as data; only a fault of the program is thrown.
import type { Item } from '../../core/agenda/item';
import type { ItemEdit } from '../../core/agenda/itemEdit';
import type { Stamp } from '../../core/stamps/stamp';
import type { Place } from '../../core/mail/place';
import type { Address } from '../../core/mail/address';
import type { Act, Grouping, Selection, View } from './views';
import type {
  Agenda,
  Dissolving,
  DryRunResult,
  Habit,
  RuleProposals,
  RuleReach,
  RuleSetReport,
  WouldSend,
} from './rules';
import type { ImportReport, ExportResult } from './transfer';
import type { ClearOut } from '../../core/clearout/clearOut';
import type { DatedStretch, ForItem, GivenAnswer, Going, SeenInvitation } from './agenda';
import type { StampReport } from './stamps';
import type { Month } from './months';
import type { ClearOutReport } from './clearOuts';
import type { HeldCounts, Only, RowsHeld } from './held';
import type { UndoState, LogDetail, LogFilter, LogWindow } from './log';
import type { Sender, SenderReport, SendersQuestion, SenderWindow } from './senderTable';
import type { EntryUse, FilterReport, Judgement, SecondLook, WhereWent } from './junk';
import type { Told } from '../../core/senders/told';
import type { Guard } from '../../core/senders/guards';
import type { Entry } from '../../core/senders/register';
import type { SetupEdit } from '../../core/line/setupEdit';
import type { Outcome, SetupRead } from './outcome';
import type { RowWindow } from './rows';
import type { AutomaticAnswer } from '../../core/delivery/automaticAnswer';
import type {
  AnswerReport,
  DeliveryReport,
  DeliveryReportResult,
  GatherChoice,
  Gathering,
  WaitingWhere,
} from './trays';
import type { OpenConversation, ThinLine } from './conversations';
import type { OwnAddresses } from './ownAddresses';
import type { Beginning, Draft, DraftAbout, DraftAsFile, DraftContent, DraftResult, DraftRow, Kept } from './drafts';
import type { ToldReport } from './notifications';
import type { Overview, PostStatus } from './overview';
import type { MessageSource, OpenMessage, WhyLine } from './message';

/** The mailroom, as the page has it. Ids of commands are chosen by the caller; the same id is never done twice. */
export interface Mailroom {
  overview(): Promise<Overview>;
  rows(view: View, grouping: Grouping, from: number, to: number): Promise<RowWindow>;
  /** Where a message, or its conversation, stands in a view, from 0; -1 where it does not. */
  position(view: View, grouping: Grouping, id: number): Promise<number>;
  /** What the rows `from` up to, not including, `to` of a view hold at this moment: all of them, or only some. */
  held(view: View, grouping: Grouping, only: Only, from: number, to: number): Promise<RowsHeld>;
  /** How many rows of a view there are to tick. */
  heldCounts(view: View, grouping: Grouping): Promise<HeldCounts>;
  /** Those of some messages that a view still holds. */
  stillHeld(view: View, ids: Int32Array): Promise<Int32Array>;
  /** The conversation of a message; `elsewhere`: with what of it stands in other places. Null where it is gone. */
  conversation(id: number, view: View, elsewhere: boolean): Promise<OpenConversation | null>;
  /** What thinning out a message's conversation would do, oldest message first. */
  thinning(id: number): Promise<ThinLine[]>;
  /** Bins what stands whole in a later message of the conversation. */
  thinOut(command: string, id: number): Promise<Outcome>;
  /** The drafts in which something was written, what was typed last first. */
  drafts(): Promise<DraftRow[]>;
  /** A draft as it is kept; null where there is none. */
  draft(id: string): Promise<Draft | null>;
  /** Begins a draft, or finds it begun. */
  beginDraft(beginning: Beginning): Promise<DraftResult>;
  /** Keeps what was typed. */
  keepDraft(id: string, content: DraftContent): Promise<Kept>;
  /** Keeps a file that is to go along; the draft names it by its id once it is kept. */
  keepDraftFile(id: string, file: string, bytes: Uint8Array): Promise<Kept>;
  /** The bytes of a draft’s file; null where there are none. */
  draftFile(id: string, file: string): Promise<Uint8Array | null>;
  /** Throws a draft away, or brings it back. */
  throwDraft(id: string, away: boolean): Promise<Kept>;
  /** Has a draft go through the post office at a moment, milliseconds since 1970. `zone`: minutes east of UTC. */
  sendDraft(id: string, due: number, zone: number): Promise<Kept>;
  /** Takes a draft back that has not gone yet. */
  takeBackDraft(id: string): Promise<Kept>;
  /** A draft as a file, for a program that sends: where the mailbox has no post office. */
  draftAsFile(id: string, zone: number): Promise<DraftAsFile>;
  /** What may be regretted about what is written, before it goes: also that it goes to so many people or more. */
  aboutDraft(content: DraftContent, manyPeople: number): Promise<DraftAbout>;
  /** Who could be meant by what was typed into a field of recipients. */
  recipientsLike(typed: string, most: number): Promise<Address[]>;
  /** What the person would have been told of in the last seven days. */
  toldLately(told: Told[]): Promise<ToldReport>;
  open(id: number, plain: boolean): Promise<OpenMessage | null>;
  /** The header fields of a message and its source, as far as it is shown; null where it can’t be read. */
  source(id: number): Promise<MessageSource | null>;
  attachment(id: number, index: number): Promise<{ name: string; type: string; bytes: Uint8Array } | null>;
  whyHere(id: number): Promise<WhyLine[]>;
  /** How much some views hold. */
  counts(views: View[]): Promise<{ total: number; unread: number }[]>;
  /** The months of a view that have rows, the newest first. */
  months(view: View, grouping: Grouping): Promise<Month[]>;
  /** For each message the passage of its text in which stands what a query looks for; null where there is none to show. */
  passages(query: string, ids: number[]): Promise<(string | null)[]>;
  /** Who wrote to the person and is called so, those who write most first. */
  people(typed: string, most: number): Promise<Address[]>;
  /** A stretch of the table of senders. */
  senders(question: SendersQuestion, from: number, to: number): Promise<SenderWindow>;
  /** One sender looked at; null where nothing of it is left. */
  sender(sender: Sender): Promise<SenderReport | null>;
  /** Leaves the mailing list of a message, in a way that it names. `zone`: minutes east of UTC. */
  leaveList(command: string, message: number, by: 'one-click' | 'mail', zone: number): Promise<Outcome>;
  /**
   * What a clear-out would touch. It may take a while, and tells of it; null where the same `asker` asked anew meanwhile.
   */
  clearOutReport(asker: string, choice: ClearOut, of: View | null): Promise<ClearOutReport | null>;
  /** How many messages each of some clear-outs would touch; null where it takes long to know. */
  clearOutCounts(choices: ClearOut[], of: View | null): Promise<(number | null)[]>;
  /** Nobody waits any more for what was asked under that name. */
  drop(asker: string): Promise<void>;
  act(command: string, selection: Selection, act: Act): Promise<Outcome>;
  editSetup(command: string, edits: SetupEdit[], says: string, runHere: boolean): Promise<Outcome>;
  /** `asker`: who asks; their older question is dropped. `most`: how many of the messages are shown. */
  dryRun(edits: SetupEdit[], ruleId: string | null, asker?: string, most?: number): Promise<DryRunResult>;
  /**
   * What changed trays, rules or delivery would have done to what came in the last weeks: what would have waited where.
   */
  deliveryDryRun(edits: SetupEdit[], where: WaitingWhere, asker: string): Promise<DeliveryReportResult>;
  /** What a hold of so many milliseconds would have held back at this time of the week. */
  holdDryRun(length: number): Promise<DeliveryReport>;
  /** Whom the automatic answer would have gone to in the last seven days, had a hold been on. */
  automaticAnswerDryRun(answer: AutomaticAnswer): Promise<AnswerReport>;
  /** What a rule that forwards or answers would have sent of the mail here; null where it does neither. */
  wouldSend(edits: SetupEdit[], rule: string, asker: string): Promise<WouldSend | null>;
  /** How a rule would stand among the others after some edits; null where that can’t be said, or not quickly. */
  ruleReach(edits: SetupEdit[], rule: string): Promise<RuleReach | null>;
  /** What the set of rules does, as it would be after some edits. */
  ruleSetReport(edits: SetupEdit[], most?: number): Promise<RuleSetReport>;
  /** Takes a label or folder off; its mail is kept. */
  dissolve(command: string, what: Dissolving): Promise<Outcome>;
  agenda(): Promise<Agenda>;
  /** What of tasks and appointments stands in a stretch of time, milliseconds since 1970, the end not in it. */
  dated(from: number, to: number, most?: number): Promise<DatedStretch>;
  /** Some tasks and appointments as they are; of those that are not here nothing. */
  items(uids: string[]): Promise<Item[]>;
  /** Tasks and appointments as a calendar (RFC 5545); null for all. `enclosed`: with the messages themselves. */
  exportItems(uids: string[] | null, enclosed: boolean): Promise<string>;
  /** What a message can become, and what is made of it; null where it is gone. */
  forItem(id: number): Promise<ForItem | null>;
  /** What is made of a message already. */
  madeOf(id: number): Promise<ForItem['made']>;
  /** Which appointments are in the way of one, in words. */
  inTheWay(item: Item): Promise<SeenInvitation['clashes']>;
  /** Changes tasks and appointments. `going`: when the invited are told by mail; null: they are not. */
  editItems(command: string, edits: ItemEdit[], says: string, going: Going | null): Promise<Outcome>;
  /** What the calendar of a message means; null where it has none. */
  invitation(id: number): Promise<SeenInvitation | null>;
  /** Answers the invitation of a message. `going`: when whoever invites is told; null: they are not. */
  answerInvitation(command: string, id: number, answer: GivenAnswer, going: Going | null): Promise<Outcome>;
  /** Takes up what the calendar of a message says. */
  takeUpCalendar(command: string, id: number): Promise<Outcome>;
  /** What a stamp would do to messages; null where the same `asker` asked anew meanwhile. */
  stampReport(stamp: Stamp, selection: Selection, asker: string): Promise<StampReport | null>;
  /** Carries a stamp out. `sure`: the person was asked where it sends or deletes; `going`: when what it sends goes. */
  stamp(command: string, stamp: Stamp, selection: Selection, sure: boolean, going: Going): Promise<Outcome>;
  /** Conditions that a message suggests for a rule, the most telling first, and where such mail would go. */
  ruleProposals(id: number): Promise<RuleProposals>;
  /** What the person keeps moving to a place by hand, judged by some messages just moved; null where it is no habit. */
  habit(ids: number[], place: Place): Promise<Habit | null>;
  /** What can be gathered from now on by some messages, and how much of each is in the Inbox besides. */
  gatherChoices(selection: Selection): Promise<GatherChoice[]>;
  /** Puts messages into a tray, and has it gather their like from now on. */
  gather(command: string, selection: Selection, gathering: Gathering): Promise<Outcome>;
  /** Stops delivery to the Inbox until a moment, milliseconds since 1970, or until it is lifted (null). */
  hold(command: string, until: number | null): Promise<Outcome>;
  /** Lifts the hold: what it kept back is delivered at once. */
  lift(command: string): Promise<Outcome>;
  /** Runs the rules over the mail here. */
  runRules(command: string): Promise<Outcome>;
  /** Takes wanted messages out of Junk; `fromNowOn`: what is safe after it. `contact`: with a card for the sender. */
  rescue(
    command: string,
    selection: Selection,
    fromNowOn: 'this' | 'sender' | 'domain' | 'list',
    contact: boolean,
  ): Promise<Outcome>;
  judgement(id: number): Promise<Judgement | null>;
  /** How the filter stands; takes a while on much mail, and tells of it. */
  filterReport(job: string): Promise<FilterReport>;
  secondLook(most: number, answered: number[]): Promise<SecondLook>;
  /** Which addresses may be the person’s own. */
  ownAddresses(): Promise<OwnAddresses>;
  registerUse(): Promise<Record<string, EntryUse>>;
  /** What speaks against some entries that are made or changed together. */
  entryGuards(entries: Entry[]): Promise<Guard[]>;
  /** How many messages are sorted otherwise once an entry is taken off. */
  tookByEntry(id: string): Promise<number>;
  /** Where mail went that is missed: by sender or by words of the subject. */
  whereWent(words: string): Promise<WhereWent>;
  /** The whole setup as one document, with the junk filter's model. */
  exportSetup(): Promise<string>;
  /** What a setup from a file would change here. */
  readSetup(document: string): Promise<SetupRead>;
  /** Takes a setup up: it replaces all that was decided here. */
  importSetup(command: string, document: string): Promise<Outcome>;
  /** Undoes an entry of the Logbook, or whatever the person's last command is by then. */
  undo(command: string, seq: number | 'last'): Promise<Outcome>;
  /** Whether an entry of the Logbook can be undone now, and what it says. */
  undoState(seq: number): Promise<UndoState>;
  /** A stretch of the Logbook, newest first. */
  logbook(filter: LogFilter, from: number, to: number): Promise<LogWindow>;
  /** What an entry touched; null where the Logbook has none of that number. */
  logDetail(seq: number, decidedBy: string | null): Promise<LogDetail | null>;
  importFiles(job: string, files: File[], target: Place | 'line'): Promise<ImportReport>;
  cancelImport(job: string): Promise<void>;
  /** Puts away that an import was cut off. */
  forgetCutOff(): Promise<void>;
  exportMail(selection: Selection, format: 'mbox' | 'eml'): Promise<ExportResult>;
  /** What is still in memory of all messages, where the browser has dropped what it stored. */
  exportMemory(): Promise<ExportResult>;
  /** Begins a mailbox: the demo's, from the post office, or an empty one of the person's own. */
  begin(kind: 'demo' | 'own'): Promise<Outcome>;
  /** Fetches what has arrived. */
  checkNow(): Promise<PostStatus>;
  setPostRate(perMinute: number, paused: boolean): Promise<PostStatus>;
  /** Deletes everything that is stored in this browser. */
  eraseAll(): Promise<void>;
  begun(): Promise<boolean>;
}
