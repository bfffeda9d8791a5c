// Tasks, appointments and invitations as they cross the border.
import { z } from 'zod';
import { momentSchema } from '../../core/data/id';
import type { FoundDate } from '../../core/agenda/foundDates';
import type { InvitedAnswer, Item, ItemKind } from '../../core/agenda/item';
import type { Place } from '../../core/mail/place';

/** A task or appointment as the Agenda shows it, each of a series by itself. Times in milliseconds since 1970. */
export interface DatedItem {
  uid: string;
  kind: ItemKind;
  /** Which of a series; null for what comes once. */
  on: string | null;
  title: string;
  place: string;
  /** When it begins, or is due; null for a task without a date. */
  at: number | null;
  end: number;
  wholeDay: boolean;
  done: boolean;
  late: boolean;
  status: Item['status'];
  /** How it comes again, in words; empty for what comes once. */
  repeats: string;
  /** How many messages are kept with it, and the first of them that is here. */
  messages: number;
  message: { id: number; place: Place } | null;
  /** How many were invited, and what they answered, in words; empty where nobody was. */
  invited: string;
  /** Who invites, where that is somebody else. */
  by: string;
  /** What the person answered, where they were invited. */
  mine: InvitedAnswer | null;
}

/** What of tasks and appointments stands in a stretch of time. */
export interface DatedStretch {
  /** In their order, and how many there are: of very many the last are left out. */
  items: DatedItem[];
  total: number;
  /** Tasks that were due before it and are not done, and those without a date. */
  late: DatedItem[];
  /** How many there are of these in all: the list has the last of them. */
  lateTotal: number;
  undated: DatedItem[];
  undatedTotal: number;
  /** Tasks that were done lately, the last first. */
  done: DatedItem[];
  /** When trays and the timetable deliver. */
  rounds: { at: number; name: string }[];
}

/** What a calendar that came with a message means, as the message shows it. */
export interface SeenInvitation {
  is: 'invitation' | 'cancelled' | 'answer' | 'shown' | 'old' | 'wrong';
  /** What is to be said first: “You are invited”, or what is wrong. */
  says: string;
  title: string;
  /** When, in words; empty where it names no time. */
  when: string;
  place: string;
  note: string;
  repeats: string;
  /** Who invites, and what the invited answered, in words. */
  by: string;
  invited: string;
  /** What the person answered; null where they are not asked. */
  mine: InvitedAnswer | null;
  /** By which address the answer would go; empty where none is. */
  as: string;
  /** It is in the Agenda as it came. */
  here: boolean;
  /** Its UID, where something of it is in the Agenda. */
  uid: string | null;
  /** What else is in the way at that time, the first few of `clashesInAll`. */
  clashes: { uid: string; title: string; when: string }[];
  clashesInAll: number;
  /** What of the calendar could not be read. */
  remarks: string[];
}

/** What of a message can become a task or an appointment. */
export interface ForItem {
  title: string;
  messageId: string;
  dates: FoundDate[];
  /** What is made of it already. */
  made: { uid: string; kind: ItemKind; title: string }[];
}

/** When mail that follows from an act goes, and in which zone, minutes east of UTC. */
export const goingSchema = z.object({ due: momentSchema, zone: z.number().int().min(-1_440).max(1_440) });
export type Going = z.infer<typeof goingSchema>;

export const answerSchema = z.enum(['accepted', 'tentative', 'declined']);
export type GivenAnswer = z.infer<typeof answerSchema>;
