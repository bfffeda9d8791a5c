// The Logbook as it crosses the border between page and mailroom.
import { z } from 'zod';
import type { Row } from './rows';
import { logKinds, type LogKind } from '../../core/line/logKinds';

export const logFilterSchema = z.object({
  who: z.enum(['all', 'you', 'Wide Sort', 'post office']),
  what: z.enum(logKinds).nullable(),
  /** At this moment or later, and before this one; milliseconds since 1970. */
  since: z.number().nullable(),
  before: z.number().nullable(),
  /** Only what touched this message. */
  message: z.number().int().nonnegative().nullable(),
  /** Only where this decided about some of its messages: `entry:ID`, `rule:ID` or `junk`, as a trace names it. */
  decidedBy: z.string().max(400).nullable(),
  /** What its sentence must say; nothing for all. */
  words: z.string().max(500),
});

export type LogFilter = z.infer<typeof logFilterSchema>;

export const wholeLog: LogFilter = {
  who: 'all',
  what: null,
  since: null,
  before: null,
  message: null,
  decidedBy: null,
  words: '',
};

/** A stretch of the Logbook, newest first. */
export interface LogWindow {
  total: number;
  entries: LogEntry[];
  /** For how many days every entry is kept, however many there are. */
  keptDays: number;
  /** When the oldest entry was made, where older ones have been let go; null where none has. Milliseconds since 1970. */
  keptSince: number | null;
  /** The message that is asked for; null where none is, or it is gone. */
  message: Row | null;
}

/** What an entry touched. */
export interface LogDetail {
  /** The latest of its messages. */
  rows: Row[];
  total: number;
  /** Messages of it that are not here any more. */
  gone: number;
  /** Of those, what can still be named, newest first: deleted for good since the mailbox was opened. */
  named: { id: number; from: string; subject: string; date: number }[];
  /** For what arrived: who decided where it went, and for how many. `setting` as “Why here” names it. */
  decided: { who: string; says: string; setting: string | null; count: number }[];
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
  /** Of how many of its messages {@link LogFilter.decidedBy} decided; null where nothing of the kind was asked. */
  decided: number | null;
  /** Whether it can be undone now. */
  undoable: boolean;
  /** Until when it is kept at the least, and so can be undone; milliseconds since 1970. */
  keptUntil: number;
  /** The entry that undid it, or null. */
  undoneBy: number | null;
  /** The entry that it undid, or null. */
  undoes: number | null;
}

/** Whether an entry can be undone now. */
export interface UndoState {
  says: string;
  /** Why it can’t; null where it can. */
  whyNot: string | null;
}
