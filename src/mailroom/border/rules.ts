// What crosses the border between page and mailroom about rules, labels, folders and flags: types of the border that only
// their pages need.
import { z } from 'zod';
import type { Changes } from '../../core/effects/effects';
import { placeSchema, type Place } from '../../core/mail/place';
import type { Contradiction, Unreached } from '../../core/rules/reach';
import type { Condition } from '../../core/rules/rule';
import type { Row } from './rows';

/** What a changed setup would do to the mail here. */
export interface DryRunReport {
  /** How many messages would change in any way. */
  total: number;
  moves: { from: Place; to: Place; count: number }[];
  /** How many messages each effect would change; moves are told by their places, above. */
  effects: Partial<Record<keyof Changes, number>>;
  /** Of those that would go to Junk or the Bin: from people the person wrote to, flagged, unread. */
  wanted: { writtenTo: number; flagged: number; unread: number };
  /**
   * The messages, as many as were asked for: newest first, wanted ones before the others; where the junk filter’s line
   * decides, nearest to it first, with their scores.
   */
  sample: { row: Row; to: Place; score: number | null }[];
  /** For a rule: how many messages here match its conditions, whatever becomes of them. */
  matching: number | null;
  /** For a rule: how many each of its conditions holds for by itself, in the order of conditionsOf. */
  conditions: number[];
}

/** What a rule that forwards or answers would have sent of the mail here, had it come in now. */
export interface WouldSend {
  /** Messages of others that it matches, and how many of them were looked at: the newest. */
  of: number;
  looked: number;
  /** How many people it would have answered, each once, and the first of them. */
  answered: number;
  people: string[];
  /** How many messages would have gone on. */
  forwarded: number;
}

/** How a rule stands among the others. */
export interface RuleReach {
  never: Unreached | null;
  /** Those in which it takes part. */
  contradictions: Contradiction[];
  /** Rules that could be reached without it, as they stood before. */
  shadows: string[];
}

export type DryRunResult = { ok: true; report: DryRunReport } | { ok: false; error: string };

/** What the whole set of rules does with the mail here. */
export interface RuleSetReport {
  rules: {
    id: string;
    /** Messages that it matches, and of these those that it acts on. */
    matches: number;
    acts: number;
    /** The earlier rules that took the others. */
    lostTo: { rule: string; count: number }[];
    /** Why it can never act, whatever mail there is; null where it can. */
    never: Unreached | null;
  }[];
  contradictions: Contradiction[];
  /** What running them over the mail here would change. */
  here: DryRunReport;
}

/** What one message suggests for a rule. */
export interface RuleProposals {
  /** Each with how many messages here it holds for. */
  conditions: { condition: Condition; count: number }[];
  /** Where most such mail was put by hand; null where none was. */
  place: Place | null;
}

/** A move that the person made by hand again and again, which a rule could make. */
export interface Habit {
  /** The message that stands for the others. */
  id: number;
  /** The sender’s address, or the identifier of the mailing list. */
  of: string;
  place: Place;
  count: number;
}

/**
 * A label that goes into another, or off all its messages (null); a folder whose mail goes to another place; a tray whose
 * mail goes into another, or to the Inbox (null).
 */
export const dissolvingSchema = z.discriminatedUnion('of', [
  z.object({ of: z.literal('label'), id: z.string(), into: z.string().nullable() }),
  z.object({ of: z.literal('folder'), id: z.string(), into: placeSchema }),
  z.object({ of: z.literal('tray'), id: z.string(), into: z.string().nullable() }),
]);
export type Dissolving = z.infer<typeof dissolvingSchema>;

/** All flagged mail. */
export interface Agenda {
  total: number;
  /** By due date, those without one last; at most 2,000. */
  rows: Row[];
  /** What was flagged and is done, the newest mail first, at most 20 of `doneTotal`. */
  done: Row[];
  doneTotal: number;
  /** What is put off, what comes back first at the top, at most 2,000 of `putOffTotal`. */
  putOff: Row[];
  putOffTotal: number;
}
