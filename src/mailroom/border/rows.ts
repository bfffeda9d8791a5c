// Rows as they cross the border: messages and conversations as a list shows them, in windows.
import type { Place } from '../../core/mail/place';
import type { Ink } from '../../core/mail/label';
import type { Address } from '../../core/mail/address';

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
  /** The messages for which the row stands: those that the view holds with all that narrows it, oldest first. */
  ids: number[];
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
  /**
   * The tray for which the row stands, with the number of its senders, null where there are too many to count; the row’s
   * `id` is below 0 then, and `whole` says the rest.
   */
  tray: { id: string; name: string; senders: number | null } | null;
  damage: string | null;
  /** When it comes to the Inbox, where it is held: put off, in a tray, or held back; else null. */
  until: number | null;
  /** When it came back to the Inbox, where it was put off before; else null. */
  back: number | null;
  /** When it was delivered to the Inbox, where that was later than it came; else null. */
  delivered: number | null;
  /** When it is deleted for good, for a message in the Bin or in Junk; else null. */
  deletedOn: number | null;
  /** In Junk: the score that the filter gave it, 0 to 100; null elsewhere, or where it was not judged. */
  score: number | null;
}

/** A window of a view, rows `from` up to, not including, `from + rows.length`. */
export interface RowWindow {
  revision: number;
  /** Mail that was here before is being brought in, or found: what stands above what was there is no news. */
  filling: boolean;
  /** How many of all messages were looked through so far, where the rows are not yet all that is asked for; else null. */
  looked: { done: number; of: number } | null;
  /** How many rows there are in all. */
  total: number;
  /** How many of them stand for trays. */
  trays: number;
  /** How many messages they stand for, and how many of those are unread. */
  messages: number;
  unread: number;
  from: number;
  rows: Row[];
}
