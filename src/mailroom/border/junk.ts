// The part of the border (mailroom.ts) that is about junk and the Register: what the mailroom answers.
import type { Figures } from '../../core/junk/evaluate';
import type { Evidence } from '../../core/junk/verdict';
import type { Row } from './rows';

/** What the junk filter makes of a message now. */
export interface Judgement {
  /** 0 to 100, with two decimals. */
  score: number;
  /** The score at which junk begins; null where the filter is off. */
  line: number | null;
  evidence: Evidence[];
  /** What the person marked it as; null where they did not. */
  marked: 'junk' | 'good' | null;
}

/** How the filter stands on the person's own mail. */
export interface FilterReport {
  /** Messages in the Inbox and in Junk by score: of each whole score how many the person marked as junk, as good, or not. */
  spread: { junk: number; good: number; inbox: number; unmarked: number }[];
  /** How many messages there are in the Inbox and in Junk: all are judged. */
  judged: number;
  marked: { junk: number; good: number };
  /** Each marked message judged by a model that had not seen it; empty with fewer than five of each kind. */
  validated: { score: number; junk: boolean }[];
  figures: Figures | null;
  hasShipped: boolean;
}

/** Junk to look through, nearest to the line first. */
export interface SecondLook {
  rows: Row[];
  /** How many wait in all. */
  total: number;
  /** Those of the answered ones that wait again, because the answer was undone. */
  again: number[];
}

/** What an entry of the Register did. */
export interface EntryUse {
  decided: number;
  /** When the last message came that it decided; null where there is none. */
  last: number | null;
}

/** A setting that could have taken a message that is missed, and what it did take. */
export interface Suspect {
  /** `entry:ID`, `rule:ID`, `junk`, `silence`, or null for what the person did by hand. */
  setting: string | null;
  says: string;
  took: number;
  /** Those of them that are not deleted for good, newest first. */
  ids: number[];
  /** The newest of them, at most 20. */
  rows: Row[];
}

export interface WhereWent {
  /** How many messages here fit what was asked for, and how many of them stand in the Inbox. */
  found: number;
  inInbox: number;
  suspects: Suspect[];
}
