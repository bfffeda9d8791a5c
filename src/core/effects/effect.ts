// An effect: one thing that a decision does to a message. Each kind of effect is one file, and says everything of it: how
// it is written down, its words, how it is carried out, what changes when one decision stands in another's place, and
// what a mail server is told of it. Whatever goes by effects (rules, dry runs, their counts, Sieve, the columns of the
// mailroom) goes over their list (effects.ts).
import type { z } from 'zod';
import type { PutOffTime } from '../agenda/putOffTimes';
import type { Ink } from '../mail/label';
import type { Place } from '../mail/place';

/** What a message bears: what effects change. `labels` are ids. */
export interface Bearing {
  place: Place;
  labels: readonly string[];
  read: boolean;
  /** The ink of its row by a rule. */
  ink: Ink | null;
  /** `due` in milliseconds since 1970, null for no date. */
  flag: { due: number | null } | null;
  /** The id of the tray in which it is gathered; null for none. */
  tray: string | null;
}

/** What is decided of a message, effect by effect. */
export interface Decided extends Bearing {
  labels: string[];
  /** When it comes to the Inbox, where it waits for that: milliseconds since 1970, Infinity for never by itself. */
  until: number | null;
  /** When it was delivered, where that was later than it came, milliseconds since 1970; null where it was not. */
  delivered: number | null;
  /** Until when a rule puts it off; null where none does. */
  putOff: PutOffTime | null;
  /** What rules send because of it, where it comes in. */
  sends: Send[];
  /** What else rules do because of it, where it comes in, beyond the message itself. */
  follows: Follow[];
}

/**
 * Within what bounds rules send: so many messages a day, by all rules together, so that one wrong rule does not write to
 * all the world; whoever was answered, not again for so many days (RFC 5230, section 4.2).
 */
export const sendLimits = { messagesADay: 50, answeredForDays: 7 } as const;

/** What a rule sends: the message on to somebody else, or an answer to whoever wrote it. */
export type Send = { do: 'forward'; to: string; form: 'text' | 'file' } | { do: 'answer'; block: string };

/** What a rule does beyond the message: it leaves its conversation, makes a task of it, or decides about its sender. */
export type Follow =
  | { do: 'silence'; place: 'archive' | 'bin' }
  | { do: 'standing'; of: StandingOf; standing: 'safe' | 'blocked' }
  | { do: 'task'; due: TaskDue };

/** Of whom a standing is decided: by the sender's address, its domain, or the mailing list. */
export const standingOfs = ['address', 'domain', 'list'] as const;
export type StandingOf = (typeof standingOfs)[number];

/** For when a task is made, counted from the day on which it is made; `ask`: it opens, to be filled in. */
export const taskDues = ['none', 'today', 'tomorrow', 'this week', 'next week', 'ask'] as const;
export type TaskDue = (typeof taskDues)[number];

/** A message that is here, as far as a changed decision asks. */
export interface Present {
  place: Place;
  labels: readonly string[];
  read: boolean;
  flagged?: boolean;
  ink?: Ink | null;
  tray?: string | null;
  /** Whether the person, not the line, put it where it is. Such a message stays where it is. */
  byHand: boolean;
}

/** What names the ids in an effect. */
export interface EffectNames {
  folders: readonly { id: string; name: string }[];
  labels: readonly { id: string; name: string }[];
  trays?: readonly { id: string; name: string }[];
  blocks?: readonly { id: string; name: string }[];
  stamps?: readonly { id: string; name: string; acts: readonly { do: string }[] }[];
  /** Who has which role, and is in which group. */
  contacts?: readonly { name: string; address: string; role: string | null; groups: readonly string[] }[];
}

/** How a script of a mail server calls labels and inks. */
export interface Keywords {
  label(id: string): string;
  ink(ink: Ink): string;
}

/** What carrying out came to: what it did, in words; null where there is nothing to say. */
export interface CarriedOut {
  did: string | null;
  /** The message was put in its place: no station after this one is asked. */
  takes?: boolean;
}

/** A kind of effect. `A`: how it stands in a rule; `C`: what of a message it changes. */
export interface EffectKind<Do extends string = string, A extends { do: Do } = { do: Do }, C = unknown> {
  /** Its name in files and in the code. */
  readonly do: Do;
  readonly schema: z.ZodType<A> & z.core.$ZodTypeDiscriminable;
  /** As it is chosen: “move it to”. */
  readonly verb: string;
  /** A rule can do it several times. */
  readonly repeats?: boolean;
  /** Who carries it out: rules, as mail comes in, or stamps, where they are pressed. Absent: both. */
  readonly only?: 'rule' | 'stamp';
  /** Why it wants a person, to be put behind “A rule can’t do that: ”; null where it wants none. */
  asks?(action: A): string | null;
  /** What of it no Undo takes back: what is sent, what is deleted. Null for none. */
  lasting?(action: A): 'sent' | 'deleted' | null;
  /** A rule that does it ends the station: the rules below are not asked. */
  readonly ends?: boolean;
  /** As it is when it has just been chosen; `label` is the id of one that may still have to be made. */
  fresh(names: EffectNames, label: string): A;
  /** In words: “move it to Weather”. */
  words(action: A, names: EffectNames): string;
  /** What it speaks of that is not there, in words, and in which field; null where all is there. */
  missing?(action: A, names: EffectNames): { field: string; says: string } | null;
  /** Carries it out on what is decided. `now`: the moment for which it is decided, milliseconds since 1970. */
  carryOut(action: A, decided: Decided, names: EffectNames, now: number): CarriedOut;
  /**
   * What changes of a message when one decision stands where another stood; undefined where nothing does. Asked of a
   * great many: the decisions are compared before the message is looked at.
   */
  change?(message: Present, was: Bearing, is: Bearing): C | undefined;
  /** What a dry run says of the messages that it changes: “would be labelled”. Absent for moves, which name places. */
  readonly would?: string;
  /** What two rules that both match can't both have their way about, and what each does: “inks”. Absent where they can. */
  readonly clash?: { readonly does: string; of(action: A): string };
  /** What a Sieve script is told of it. */
  readonly sieve?: {
    /** The flag or keyword that it sets (RFC 5232). */
    flag?(action: A, keywords: Keywords): string;
    /** The system flag of which a script's own flags are taken for it (RFC 9051, section 2.3.2). */
    readonly systemFlag?: string;
    ofSystemFlag?(): A;
    /** What of it Sieve has no words for; null where it has. */
    unsaid?(action: A): string | null;
  };
}

/** A kind of effect, its types found by the compiler. */
export const effectKind = <const Do extends string, A extends { do: Do }, C = undefined>(
  kind: EffectKind<Do, A, C>,
): EffectKind<Do, A, C> => kind;

const indexes = new WeakMap<readonly object[], Map<string, string>>();

/** The name of an id in a list; undefined where it is not in it. A list that was asked once must not be changed. */
export function nameOf(list: readonly { id: string; name: string }[], id: string): string | undefined {
  let index = indexes.get(list);
  if (!index) indexes.set(list, (index = new Map(list.map((item) => [item.id, item.name]))));
  return index.get(id);
}
