// The dry run: what a changed setup would do to the mail that is here, before it counts.
import type { Envelope } from '../mail/envelope';
import type { Place } from '../mail/place';
import { Line, type Decision } from './decide';
import type { Setup } from './setup';

/** A message as the dry run needs it. */
export interface Candidate {
  id: number;
  envelope: Envelope;
  place: Place;
  /** Label ids that it bears. */
  labels: readonly string[];
  read: boolean;
  /** Whether the person, not the line, put it where it is. Such a message stays where it is. */
  byHand: boolean;
}

/** What would become of one message. */
export interface DryRunChange {
  id: number;
  from: Place;
  to: Place;
  addLabels: string[];
  markRead: boolean;
  decision: Decision;
}

/** Places whose mail the line did not sort: what the person wrote, and what is thrown away. */
const outsideTheLine: ReadonlySet<Place> = new Set<Place>(['sent', 'drafts', 'bin']);

/**
 * Compares two setups over the mail here. A message changes when the new setup decides otherwise than the old one;
 * labels and read marks are only ever added. Mail that the person put somewhere by hand keeps its place, and so does
 * mail that the old setup would not have put where it is: only what the line decided does the line decide again.
 */
export function dryRun(candidates: Iterable<Candidate>, before: Setup, after: Setup): DryRunChange[] {
  const old = new Line(before);
  const next = new Line(after);
  const changes: DryRunChange[] = [];
  for (const candidate of candidates) {
    if (outsideTheLine.has(candidate.place)) continue;
    const decision = next.decide(candidate.envelope);
    const was = old.decide(candidate.envelope);
    const mayMove = !candidate.byHand && decision.place !== candidate.place && decision.place !== was.place;
    const to = mayMove ? decision.place : candidate.place;
    const addLabels = decision.labels.filter((l) => !candidate.labels.includes(l) && !was.labels.includes(l));
    const markRead = decision.read && !was.read && !candidate.read;
    if (to !== candidate.place || addLabels.length || markRead)
      changes.push({ id: candidate.id, from: candidate.place, to, addLabels, markRead, decision });
  }
  return changes;
}
