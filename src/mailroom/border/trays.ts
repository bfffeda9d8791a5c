// Trays, and what is held back, as they cross the border. Times are milliseconds since 1970.
import { z } from 'zod';
import { traySchema } from '../../core/delivery/tray';
import type { Row } from './rows';

/** What a tray holds. */
export interface TrayCounts {
  /** Its id. */
  tray: string;
  /** How many wait in it. */
  waits: number;
  /** How many it has delivered that are in the Inbox, and how many of those are unread. */
  here: number;
  unread: number;
  /** When its round is next; null where it has none. */
  next: number | null;
}

/** How delivery stands at this moment. */
export interface WaitingCounts {
  /** The person’s time zone. */
  zone: string;
  /** How many are held back by the hold, by quiet or by the timetable, and how many wait in trays alone. */
  waits: number;
  inTrays: number;
  /** What holds delivery back now; null where nothing does. */
  by: 'hold' | 'quiet' | 'timetable' | null;
  /** Until when; null until it is lifted, or where nothing holds it back. */
  until: number | null;
  /** When the next of what waits is delivered; null where nothing waits for a moment. */
  next: number | null;
}

/** What a tray is to gather besides some messages: nothing, or what comes from their senders, domains or mailing lists. */
export const gatheredBy = ['this', 'sender', 'domain', 'list'] as const;
export type Gathered = (typeof gatheredBy)[number];

/** What can be gathered from now on: by which addresses, domains or lists, and how many more of them are in the Inbox. */
export interface GatherChoice {
  of: Exclude<Gathered, 'this'>;
  names: string[];
  more: number;
}

/** Putting into a tray; one that is not there yet is made. `more`: with what else of them is in the Inbox. */
export const gatheringSchema = z.object({ tray: traySchema, of: z.enum(gatheredBy), more: z.boolean() });
export type Gathering = z.infer<typeof gatheringSchema>;

/** What a dry run is of: a tray, by its id, what the hold, quiet and the timetable keep back, or what rules put off. */
export const waitingWhereSchema = z.discriminatedUnion('in', [
  z.object({ in: z.literal('tray'), tray: z.string() }),
  z.object({ in: z.literal('hold') }),
  z.object({ in: z.literal('put off') }),
]);
export type WaitingWhere = z.infer<typeof waitingWhereSchema>;

/** What trays or delivery as they are written would have done to what came in the last days. Times are milliseconds since 1970. */
export interface DeliveryReport {
  days: number;
  /** How many messages came that could have come to the Inbox, and how many of them would have waited. */
  came: number;
  waits: number;
  /** How many of those would wait for nothing by itself. */
  never: number;
  /** When the others would have come, and how many at once; the newest first. */
  deliveries: { at: number; count: number }[];
  /** What would have waited longest. */
  longest: { row: Row; until: number | null }[];
  /** What the person answered or flagged within two hours, and would have got only later. */
  sooner: { row: Row; until: number | null; did: 'answered' | 'flagged'; after: number }[];
  soonerTotal: number;
}
export type DeliveryReportResult = { ok: true; report: DeliveryReport } | { ok: false; error: string };

/** Whom the automatic answer would have gone to in the last days, had a hold been on, and why not to the others. */
export interface AnswerReport {
  days: number;
  /** How many messages a hold would have kept. */
  held: number;
  /** The first of `total`. */
  answered: { to: string; row: Row }[];
  total: number;
  not: { why: string; count: number }[];
}
