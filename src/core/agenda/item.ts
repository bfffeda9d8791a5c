// Tasks and appointments: what a message asks for, with its day (vocabulary: task, appointment; RFC 5545, VTODO and VEVENT).
import { z } from 'zod';
import { momentSchema } from '../data/id';
import { numberOf, isDay, whenSchema, type When } from './wallTime';

const itemKinds = ['task', 'appointment'] as const;
export type ItemKind = (typeof itemKinds)[number];

/** What somebody who is invited has answered (RFC 5545, section 3.2.12). */
export const answers = ['needs-action', 'accepted', 'tentative', 'declined'] as const;
export type InvitedAnswer = (typeof answers)[number];

const personSchema = z.object({ name: z.string().max(2_000), address: z.string().max(400) });

const invitedSchema = personSchema.extend({
  answer: z.enum(answers),
  /** When that was said, milliseconds since 1970; 0 where nothing was. */
  at: momentSchema,
});
export type Invited = z.infer<typeof invitedSchema>;

/** The most people who are invited. */
export const mostInvited = 1_000;
/** The most days on which a series is left out, or comes besides. */
export const mostExceptions = 2_000;

const title = z.string().max(2_000);
const place = z.string().max(2_000);
const note = z.string().max(20_000);

/** One of a series that is otherwise than the rest. */
const changedSchema = z.object({
  /** Which one: the wall time at which it would have begun (RFC 5545, RECURRENCE-ID). */
  on: z.string().max(30),
  title,
  place,
  note,
  start: whenSchema,
  end: whenSchema.nullable(),
  cancelled: z.boolean(),
  sequence: z.number().int().nonnegative(),
});
export type ChangedOccurrence = z.infer<typeof changedSchema>;

export const itemSchema = z
  .object({
    /** By which it is known everywhere (RFC 5545, section 3.8.4.7). */
    uid: z.string().min(1).max(1_000),
    kind: z.enum(itemKinds),
    title,
    place,
    note,
    /** When an appointment begins; from when on a task can be done. */
    start: whenSchema.nullable(),
    /** When an appointment ends (the first day or moment after it); by when a task is due. */
    end: whenSchema.nullable(),
    /** So many minutes before it begins, or before a task is due, one is told of it; null for never. */
    reminder: z.number().int().min(-525_600).max(525_600).nullable(),
    /** How it comes again, as RFC 5545 writes it; null for never. */
    repeats: z.string().max(2_000).nullable(),
    /** Wall times at which it doesn't come, though it would. */
    except: z.array(z.string().max(30)).max(mostExceptions),
    /** Wall times at which it comes besides. */
    besides: z.array(z.string().max(30)).max(mostExceptions),
    changed: z.array(changedSchema).max(mostExceptions),
    /** Of a series whose rest is not here: which one it is (RFC 5545, RECURRENCE-ID). Null for all else. */
    only: whenSchema.nullable(),
    /** When a task was done, milliseconds since 1970; null where it is not. */
    done: momentSchema.nullable(),
    status: z.enum(['confirmed', 'tentative', 'cancelled']),
    /** The Message-IDs of the messages that are kept with it (RFC 2392, `mid:`). */
    messages: z.array(z.string().min(1).max(1_000)).max(1_000),
    /** Who invites; null where nobody is invited. */
    organizer: personSchema.nullable(),
    invited: z.array(invitedSchema).max(mostInvited),
    /** How often it was changed in a way that the invited must know (RFC 5545, section 3.8.7.4). */
    sequence: z.number().int().nonnegative(),
    /** When it was made, and changed at last, milliseconds since 1970. */
    made: momentSchema,
    edited: momentSchema,
    /** Lines of it that nothing here is made of, kept for whoever reads it next. */
    kept: z.array(z.string().max(100_000)).max(500),
  })
  .superRefine((item, context) => {
    const trouble = itemTrouble(item);
    if (trouble !== null) context.addIssue({ code: 'custom', message: trouble });
  });
export type Item = z.infer<typeof itemSchema>;

/** What is not as it must be about the times of something; null where all is. */
export function itemTrouble({
  kind,
  start,
  end,
  repeats,
}: Pick<Item, 'kind' | 'start' | 'end' | 'repeats'>): string | null {
  if (kind === 'appointment' && !start) return 'An appointment begins at some time.';
  if (start && end) {
    if (isDay(start) !== isDay(end)) return 'Begin and end are both days, or both times.';
    // Clocks of two zones can’t be compared without knowing them: only what is meant by one is.
    if (start.zone === end.zone && numberOf(end.at) < numberOf(start.at))
      return kind === 'task' ? 'It is due before it can be begun.' : 'It ends before it begins.';
  }
  if (repeats !== null && !anchorOf({ start, end })) return 'What comes again has a first day.';
  return null;
}

/** The time by which something stands in the Agenda: an appointment's beginning; of a task when it is due, else its start. */
export const standsAt = ({ kind, start, end }: Pick<Item, 'kind' | 'start' | 'end'>): When | null =>
  kind === 'appointment' ? start : (end ?? start);

/** From where a recurrence counts: DTSTART, and DUE where a task has none. */
export const anchorOf = ({ start, end }: Pick<Item, 'start' | 'end'>): When | null => start ?? end;

/** Something new. */
export const newItem = (uid: string, kind: ItemKind, now: number): Item => ({
  uid,
  kind,
  title: '',
  place: '',
  note: '',
  start: null,
  end: null,
  reminder: null,
  repeats: null,
  except: [],
  besides: [],
  changed: [],
  only: null,
  done: null,
  status: 'confirmed',
  messages: [],
  organizer: null,
  invited: [],
  sequence: 0,
  made: now,
  edited: now,
  kept: [],
});

const toSecond = (moment: number): number => Math.floor(moment / 1_000) * 1_000;

/** An item with its moments to the second, as a calendar has them: written and read again it is the same. */
export const inSeconds = (item: Item): Item => ({
  ...item,
  made: toSecond(item.made),
  edited: toSecond(item.edited),
  done: item.done === null ? null : toSecond(item.done),
  invited: item.invited.map((one) => ({ ...one, at: toSecond(one.at) })),
});

/** What something is called where it has no title. */
export const itemTitle = ({ title, kind }: Pick<Item, 'title' | 'kind'>): string =>
  title || (kind === 'task' ? 'A task' : 'An appointment');

/** `12 tasks`, `1 appointment`. */
export const kindWords = (n: number, kind: ItemKind): string => `${n} ${kind}${n === 1 ? '' : 's'}`;
