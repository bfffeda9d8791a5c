// The border between the page and the mailroom: everything that crosses it, in one file.
//
// The page holds no mail. It asks for windows of rows, opens single messages, sends commands, and hears of revisions.
// Expected failures (a full disk, a file that is no mail) come back as data; only a fault of the program is thrown.
import { z } from 'zod';
import type { Ink, Place } from '../core/mail/place';
import type { Address } from '../core/mail/address';
import type { ThinReason } from '../core/conversations/thinning';
import type { AttachmentInfo, BodyBlock } from '../core/mail/body';
import type { Setup } from '../core/line/setup';
import type { Station } from '../core/line/stations';
import { accountSchema } from '../core/mail/account';
import { laneSchema } from '../core/search/lane';
import { savedSearchSchema } from '../core/search/saved';
import { leftListSchema } from '../core/senders/leaving';
import { junkSettingsSchema } from '../core/junk/settings';
import { contactSchema } from '../core/senders/contact';
import type { Suspicion } from '../core/senders/suspicion';
import type { Act, Grouping, Selection, View } from './viewsApi';
import type { Agenda, Dissolving, DryRunResult, Habit, RuleProposals, RuleSetReport } from './rulesApi';
import type { ImportProgress, ImportReport, ExportResult } from './inOutApi';
import type { ClearOut } from '../core/clearout/clearOut';
import type { Month } from './calendar';
import type { ClearOutReport } from './clearOutApi';
import type { LogDetail, LogFilter, LogKind, LogWindow } from './logbookApi';
import type { Sender, SenderReport, SendersQuestion, SenderWindow } from './sendersApi';
import type { EntryCheck, EntryUse, FilterReport, Judgement, SecondLook, WhereWent } from './junkApi';
import { toldSchema, type Told } from '../core/senders/telling';
import { entrySchema, type Entry, type Registered } from '../core/senders/register';
import { ruleSchema } from '../core/rules/rule';
import { folderSchema, labelSchema } from '../core/mail/place';

/** One change of the setup: the item as it is to be, or null to take it off. `at`: its position, the end if absent. */
export const setupEditSchema = z.discriminatedUnion('list', [
  z.object({ list: z.literal('register'), id: z.string(), item: entrySchema.nullable(), at: z.number().optional() }),
  z.object({ list: z.literal('rules'), id: z.string(), item: ruleSchema.nullable(), at: z.number().optional() }),
  z.object({ list: z.literal('folders'), id: z.string(), item: folderSchema.nullable(), at: z.number().optional() }),
  z.object({ list: z.literal('labels'), id: z.string(), item: labelSchema.nullable(), at: z.number().optional() }),
  z.object({ list: z.literal('accounts'), id: z.string(), item: accountSchema.nullable(), at: z.number().optional() }),
  z.object({ list: z.literal('lanes'), id: z.string(), item: laneSchema.nullable(), at: z.number().optional() }),
  z.object({
    list: z.literal('searches'),
    id: z.string(),
    item: savedSearchSchema.nullable(),
    at: z.number().optional(),
  }),
  z.object({ list: z.literal('left'), id: z.string(), item: leftListSchema.nullable(), at: z.number().optional() }),
  z.object({ list: z.literal('contacts'), id: z.string(), item: contactSchema.nullable(), at: z.number().optional() }),
  // There is one of it, and it is never taken off.
  z.object({ list: z.literal('junk'), id: z.literal('junk'), item: junkSettingsSchema }),
  z.object({ list: z.literal('told'), id: z.string(), item: toldSchema.nullable(), at: z.number().optional() }),
]);
export type SetupEdit = z.infer<typeof setupEditSchema>;

/** What a command did. `seq` is its number in the Logbook; null where there was nothing to do. */
export interface Receipt {
  seq: number | null;
  /** How many messages it touched. */
  count: number;
  /** What it did, in words. */
  says: string;
}

export type Outcome = { ok: true; receipt: Receipt } | { ok: false; error: string };

/** What a conversation holds, each count by itself. Counted: what is neither in Junk, the Bin nor Drafts. */
export interface ConversationCounts {
  received: number;
  own: number;
  unread: number;
  flagged: number;
  late: number;
  attachments: number;
}

/** A conversation as one row shows it. */
export interface RowConversation extends ConversationCounts {
  /** How many of its messages the view holds. */
  here: number;
  /** Who wrote in it, who wrote last comes last; at most four names. */
  people: { name: string; unread: boolean }[];
}

/** A message as one row shows it. Times are milliseconds since 1970. */
export interface Row {
  id: number;
  from: Address;
  to: Address[];
  subject: string;
  preview: string;
  date: number;
  unread: boolean;
  flagged: boolean;
  /** What it was flagged for is done. */
  done: boolean;
  /** When it is due, where its flag has a date. */
  due: number | null;
  /** Flagged, and past due. */
  late: boolean;
  attachments: number;
  labels: string[];
  place: Place;
  /** The id of the account by which it came, or null. */
  account: string | null;
  /** Sent by the person. */
  own: boolean;
  /** The number of its conversation: the lowest id of its messages. */
  conversation: number;
  silenced: boolean;
  /** The ink of the whole row, by a rule or a label; null for none. */
  ink: Ink | null;
  /** All of the conversation, where the row stands for it; null where it stands for one message. */
  whole: RowConversation | null;
  damage: string | null;
  /** When it is deleted for good, for a message in the Bin or in Junk; else null. */
  deletedOn: number | null;
  /** In Junk: the score that the filter gave it, 0 to 100; null elsewhere, or where it was not judged. */
  score: number | null;
}

/** A window of a view, rows `from` up to, not including, `from + rows.length`. */
export interface RowWindow {
  revision: number;
  /** How many rows there are in all. */
  total: number;
  /** How many messages they stand for, and how many of those are unread. */
  messages: number;
  unread: number;
  from: number;
  rows: Row[];
}

/** A message within its conversation, and what it carries. */
export interface ConversationMember {
  row: Row;
  /** The id of what it answers, whether that is shown or not; null for a beginning. */
  parent: number | null;
  attachments: AttachmentInfo[];
}

/** A conversation opened for reading. */
export interface OpenConversation extends ConversationCounts {
  number: number;
  /** Oldest first. */
  members: ConversationMember[];
  silenced: boolean;
  /** How many more of its messages stand in other places that are not asked for. */
  elsewhere: number;
}

/** What thinning a conversation out would do to one of its messages. */
export interface ThinLine {
  row: Row;
  goes: boolean;
  /** The message in which it stands whole. */
  standsIn: Row | null;
  reason: ThinReason;
}

/** An answer as it was written. */
export const answerSchema = z.object({
  /** The message that is answered. */
  to: z.number().int().nonnegative(),
  account: z.string(),
  recipients: z.string(),
  copies: z.string(),
  subject: z.string().max(2_000),
  text: z.string().max(5_000_000),
});
export type Answer = z.infer<typeof answerSchema>;

/** What an answer begins with. */
export interface AnswerStart {
  account: string | null;
  recipients: string;
  copies: string;
  subject: string;
  text: string;
  /** Messages of the conversation that others sent after the one that is answered; the newest of them, or null. */
  newer: number;
  newest: Row | null;
}

/** What being told would have meant over the last seven days. */
export interface ToldReport {
  total: number;
  /** The latest of them, at most 50. */
  sample: Row[];
}

/** Counts for the line on the left. */
export interface Overview {
  revision: number;
  /** Messages in all places. */
  total: number;
  places: { place: Place; total: number; unread: number }[];
  /** What each account has in the Inbox. */
  accounts: { account: string; total: number; unread: number }[];
  labels: { label: string; total: number; unread: number }[];
  damaged: number;
  /** Junk that the line took and nobody has read or marked. */
  newJunk: number;
  /** How many of today's messages each station took. */
  today: Record<Station, number>;
  setup: Setup;
  post: PostStatus;
  /** Troubles to be told, oldest first: spoilt records, refused storage. */
  troubles: string[];
  /** The command that Undo would take back, or null. */
  undo: LogEntry | null;
}

/** The post office as seen from here. */
export interface PostStatus {
  on: boolean;
  lastChecked: number | null;
  /** Why the last check failed, or null. */
  error: string | null;
  perMinute: number;
  paused: boolean;
}

/** A message opened for reading. */
export interface OpenMessage {
  row: Row;
  cc: Address[];
  replyTo: Address[];
  listId: string;
  blocks: BodyBlock[];
  /** Whether the sender gave the same text as plain and as HTML. */
  alternatives: boolean;
  attachments: AttachmentInfo[];
  /** Pictures that came within the message, as data: URLs by Content-ID. */
  pictures: Record<string, string>;
  size: number;
  /** What the Register goes by. */
  registered: Registered;
  /** What looks false about it, the worst first. */
  suspicions: Suspicion[];
  /** Its links are shown with where they go, and lead nowhere: it is junk, or looks gravely false. */
  dead: boolean;
}

/** One line of “Why here”. `setting` is `entry:ID` or `rule:ID` where a setting decided that still exists. */
export interface WhyLine {
  at: number | null;
  who: string;
  says: string;
  setting: string | null;
  /** Its number in the Logbook, for what was done after the message had arrived. */
  seq: number | null;
}

/** An entry of the Logbook. */
export interface LogEntry {
  seq: number;
  at: number;
  /** `you`, `Wide Sort`, or `post office`. */
  by: string;
  says: string;
  count: number;
  kinds: readonly LogKind[];
  /** Whether it can be undone now. */
  undoable: boolean;
  /** The entry that undid it, or null. */
  undoneBy: number | null;
  /** The entry that it undid, or null. */
  undoes: number | null;
}

/** How many messages were read into memory: what rows say of them, or their texts for finding. */
export interface ReadingProgress {
  what: 'rows' | 'texts';
  done: number;
  total: number;
}

/** What the mailroom tells without being asked. */
export type MailroomEvent =
  | { kind: 'revision'; revision: number }
  // Of what arrived, what the person wants to be told of.
  | { kind: 'told'; rows: Row[] }
  // Flags that have just fallen due.
  | { kind: 'due'; rows: Row[] }
  | { kind: 'import'; progress: ImportProgress }
  // How far long work is that was asked for.
  | { kind: 'progress'; job: string; done: number; total: number }
  // How much of the mailbox is in memory; as many as in all at the end.
  | ({ kind: 'reading' } & ReadingProgress)
  | { kind: 'role'; writer: boolean };

/** The mailroom, as the page has it. Ids of commands are chosen by the caller; the same id is never done twice. */
export interface Mailroom {
  overview(): Promise<Overview>;
  rows(view: View, grouping: Grouping, from: number, to: number): Promise<RowWindow>;
  /** Where a message, or its conversation, stands in a view, from 0; -1 where it does not. */
  position(view: View, grouping: Grouping, id: number): Promise<number>;
  /** The conversation of a message; `elsewhere`: with what of it stands in other places. Null where it is gone. */
  conversation(id: number, view: View, elsewhere: boolean): Promise<OpenConversation | null>;
  /** What thinning out a message's conversation would do, oldest message first. */
  thinning(id: number): Promise<ThinLine[]>;
  /** Bins what stands whole in a later message of the conversation. */
  thinOut(command: string, id: number): Promise<Outcome>;
  /** What an answer to a message begins with; `when` is its time in words. */
  startAnswer(id: number, all: boolean, when: string): Promise<AnswerStart | null>;
  /** Sends an answer through the post office; it stands in Sent afterwards. `zone`: minutes east of UTC. */
  sendAnswer(command: string, answer: Answer, zone: number): Promise<Outcome>;
  /** What the person would have been told of in the last seven days. */
  toldLately(told: Told[]): Promise<ToldReport>;
  open(id: number, plain: boolean): Promise<OpenMessage | null>;
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
  /** `asker`: who asks; their older question is dropped. */
  dryRun(edits: SetupEdit[], ruleId: string | null, asker?: string): Promise<DryRunResult>;
  /** What the set of rules does, as it would be after some edits. */
  ruleSetReport(edits: SetupEdit[]): Promise<RuleSetReport>;
  /** Takes a label or folder off; its mail is kept. */
  dissolve(command: string, what: Dissolving): Promise<Outcome>;
  agenda(): Promise<Agenda>;
  /** Conditions that a message suggests for a rule, the most telling first, and where such mail would go. */
  ruleProposals(id: number): Promise<RuleProposals>;
  /** What the person keeps moving to a place by hand, judged by some messages just moved; null where it is no habit. */
  habit(ids: number[], place: Place): Promise<Habit | null>;
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
  secondLook(most: number): Promise<SecondLook>;
  registerUse(): Promise<Record<string, EntryUse>>;
  checkEntry(entry: Entry): Promise<EntryCheck>;
  /** Where mail went that is missed: by sender or by words of the subject. */
  whereWent(words: string): Promise<WhereWent>;
  /** The whole setup as one document, with the junk filter's model. */
  exportSetup(): Promise<string>;
  /** What taking a setup up would do, and, with a command, takes it up: it replaces all that was decided here. */
  importSetup(command: string, document: string): Promise<Outcome>;
  /** Undoes an entry of the Logbook, or whatever the person's last command is by then. */
  undo(command: string, seq: number | 'last'): Promise<Outcome>;
  /** A stretch of the Logbook, newest first. */
  logbook(filter: LogFilter, from: number, to: number): Promise<LogWindow>;
  /** What an entry touched; null where the Logbook has none of that number. */
  logDetail(seq: number): Promise<LogDetail | null>;
  importFiles(job: string, files: File[], target: Place | 'line'): Promise<ImportReport>;
  cancelImport(job: string): Promise<void>;
  exportMail(selection: Selection, format: 'mbox' | 'eml'): Promise<ExportResult>;
  /** Begins a mailbox: the demo's, from the post office, or an empty one of the person's own. */
  begin(kind: 'demo' | 'own'): Promise<Outcome>;
  /** Fetches what has arrived. */
  checkNow(): Promise<PostStatus>;
  setPostRate(perMinute: number, paused: boolean): Promise<PostStatus>;
  /** Deletes everything that is stored in this browser. */
  eraseAll(): Promise<void>;
  begun(): Promise<boolean>;
}
