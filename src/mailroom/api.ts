// The border between the page and the mailroom: everything that crosses it, in one file.
//
// The page holds no mail. It asks for windows of rows, opens single messages, sends commands, and hears of revisions.
// Expected failures (a full disk, a file that is no mail) come back as data; only a fault of the program is thrown.
import { z } from 'zod';
import { placeSchema, type Place } from '../core/mail/place';
import type { Address } from '../core/mail/address';
import type { AttachmentInfo, BodyBlock } from '../core/mail/body';
import type { Setup } from '../core/line/setup';
import type { Station } from '../core/line/decide';
import { entrySchema } from '../core/senders/register';
import { ruleSchema } from '../core/rules/rule';
import { folderSchema, labelSchema } from '../core/mail/place';

/** What a list of rows shows: a place, a label, or what is damaged wherever it is. */
export const viewSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('place'), place: placeSchema }),
  z.object({ kind: z.literal('label'), label: z.string() }),
  z.object({ kind: z.literal('damaged') }),
]);
export type View = z.infer<typeof viewSchema>;

/** Messages to act on: by id, or all that a view holds, also those that were never in sight. */
export const selectionSchema = z.union([
  z.object({ ids: z.array(z.number().int().nonnegative()) }),
  z.object({ view: viewSchema }),
]);
export type Selection = z.infer<typeof selectionSchema>;

/** An act on messages. */
export const actSchema = z.discriminatedUnion('do', [
  z.object({ do: z.literal('move'), place: placeSchema }),
  // `opened`: read because it was opened, so it is not the person's own act, and not what Undo takes back.
  z.object({ do: z.literal('read'), value: z.boolean(), opened: z.boolean().optional() }),
  z.object({ do: z.literal('flag'), value: z.boolean() }),
  z.object({ do: z.literal('label'), label: z.string(), value: z.boolean() }),
]);
export type Act = z.infer<typeof actSchema>;

/** One change of the setup: the item as it is to be, or null to take it off. `at`: its position, the end if absent. */
export const setupEditSchema = z.discriminatedUnion('list', [
  z.object({ list: z.literal('register'), id: z.string(), item: entrySchema.nullable(), at: z.number().optional() }),
  z.object({ list: z.literal('rules'), id: z.string(), item: ruleSchema.nullable(), at: z.number().optional() }),
  z.object({ list: z.literal('folders'), id: z.string(), item: folderSchema.nullable(), at: z.number().optional() }),
  z.object({ list: z.literal('labels'), id: z.string(), item: labelSchema.nullable(), at: z.number().optional() }),
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
  attachments: number;
  labels: string[];
  place: Place;
  damage: string | null;
  /** When it is deleted for good, for a message in the Bin; else null. */
  deletedOn: number | null;
}

/** A window of a view, rows `from` up to, not including, `from + rows.length`. */
export interface RowWindow {
  revision: number;
  total: number;
  unread: number;
  from: number;
  rows: Row[];
}

/** Counts for the line on the left. */
export interface Overview {
  revision: number;
  /** Messages in all places. */
  total: number;
  places: { place: Place; total: number; unread: number }[];
  labels: { label: string; total: number }[];
  damaged: number;
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
  /** Whether it can be undone now. */
  undoable: boolean;
  /** The entry that undid it, or null. */
  undoneBy: number | null;
  /** The entry that it undid, or null. */
  undoes: number | null;
}

/** What a changed setup would do to the mail here. */
export interface DryRunReport {
  /** How many messages would change in any way. */
  total: number;
  moves: { from: Place; to: Place; count: number }[];
  labelled: number;
  markedRead: number;
  /** Of those that would go to Junk or the Bin: from people the person wrote to, flagged, unread. */
  wanted: { writtenTo: number; flagged: number; unread: number };
  /** The messages, newest first, wanted ones before the others; at most 200. */
  sample: { row: Row; to: Place }[];
  /** For a rule: how many messages here match its conditions, whatever becomes of them. */
  matching: number | null;
}

export type DryRunResult = { ok: true; report: DryRunReport } | { ok: false; error: string };

/** How an import stands. Bytes and messages are of all its files. */
export interface ImportProgress {
  job: string;
  file: string;
  fileIndex: number;
  files: number;
  bytesDone: number;
  bytesTotal: number;
  added: number;
  already: number;
  damaged: number;
}

/** What an import came to. */
export interface ImportReport {
  added: number;
  /** Messages that were here before, and were not added again. */
  already: number;
  damaged: number;
  /** Files that could not be taken, each with the reason. */
  refused: { file: string; reason: string }[];
  cancelled: boolean;
  /** Why it ended early, where it did not end by itself: a full disk, say. */
  error: string | null;
}

export type ExportResult = { ok: true; blob: Blob; name: string; count: number } | { ok: false; error: string };

/** What the mailroom tells without being asked. */
export type MailroomEvent =
  | { kind: 'revision'; revision: number }
  | { kind: 'import'; progress: ImportProgress }
  | { kind: 'role'; writer: boolean };

/** The mailroom, as the page has it. Ids of commands are chosen by the caller; the same id is never done twice. */
export interface Mailroom {
  overview(): Promise<Overview>;
  rows(view: View, from: number, to: number): Promise<RowWindow>;
  /** Where a message stands in a view, from 0; -1 where it does not. */
  position(view: View, id: number): Promise<number>;
  open(id: number, plain: boolean): Promise<OpenMessage | null>;
  attachment(id: number, index: number): Promise<{ name: string; type: string; bytes: Uint8Array } | null>;
  whyHere(id: number): Promise<WhyLine[]>;
  act(command: string, selection: Selection, act: Act): Promise<Outcome>;
  editSetup(command: string, edits: SetupEdit[], says: string, runHere: boolean): Promise<Outcome>;
  dryRun(edits: SetupEdit[], ruleId: string | null): Promise<DryRunResult>;
  /** Undoes an entry of the Logbook, or whatever the person's last command is by then. */
  undo(command: string, seq: number | 'last'): Promise<Outcome>;
  /** A stretch of the Logbook, newest first: everything, or only what the person did. */
  logbook(who: 'all' | 'you', from: number, to: number): Promise<{ total: number; entries: LogEntry[] }>;
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
