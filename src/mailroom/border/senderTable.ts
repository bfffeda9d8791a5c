// Senders as they cross the border between page and mailroom.
import { z } from 'zod';
import { type LeavingWay, type LeftList } from '../../core/senders/leavingWays';
import type { Row } from './rows';

/** One sender: an address, or a domain that somebody registered, with all below it. In normal form. */
export const senderSchema = z.object({ by: z.enum(['address', 'domain']), value: z.string().min(1).max(500) });
export type Sender = z.infer<typeof senderSchema>;

export const senderOrders = ['name', 'messages', 'inbox', 'unread', 'last', 'answered', 'size', 'trend'] as const;
export type SenderOrder = (typeof senderOrders)[number];

/** Of which senders the table is. `quiet`: none of theirs was ever read. */
export const senderSorts = ['all', 'lists', 'written', 'never', 'quiet'] as const;

export const sendersQuestionSchema = z.object({
  by: z.enum(['address', 'domain']),
  only: z.enum(senderSorts),
  /** What name or address must contain; nothing for all. */
  words: z.string().max(500),
  order: z.enum(senderOrders),
  /** The smallest first. */
  turned: z.boolean(),
});
export type SendersQuestion = z.infer<typeof sendersQuestionSchema>;

/** Weeks that the trend is counted over, and those of each half that are compared. */
export const trendWeeks = 12;

/** A line of the table. Counted is what is neither in Junk nor in the Bin, and not the person’s own. */
export interface SenderLine {
  sender: Sender;
  /** The last name under which it wrote; for a domain the number of its addresses in words is the page’s. */
  name: string;
  /** How many addresses of a domain wrote; 1 for an address. */
  addresses: number;
  messages: number;
  inbox: number;
  unread: number;
  /** Milliseconds since 1970. */
  last: number;
  bytes: number;
  /** How many of its messages the person answered, and whether they ever wrote to it. */
  answered: number;
  written: boolean;
  /** Some came by a mailing list. */
  list: boolean;
  /** Messages in each of the last {@link trendWeeks} weeks, the oldest first. */
  weeks: number[];
  /** The list was left. */
  left: boolean;
}

export interface SenderWindow {
  total: number;
  /** Messages of all of them. */
  messages: number;
  /** Messages that count for no sender: one's own, those in Junk, the Bin or Drafts, and those that name none. */
  notCounted: { own: number; elsewhere: number; nameless: number };
  from: number;
  lines: SenderLine[];
}

/** One sender looked at. */
export interface SenderReport {
  line: SenderLine;
  /** The last twelve months, the oldest first; `month` as 2026-09. */
  months: { month: string; messages: number; unread: number }[];
  /** Its latest messages. */
  latest: Row[];
  /** How its list can be left, by what the newest message that says so says; null where none does. */
  leaving: { message: number; listId: string; ways: LeavingWay[] } | null;
  /** Lists of it that were left, each with what came after. */
  left: { list: LeftList; after: number; latest: number | null }[];
}
