// The sorting line: a message rides it once, station after station, and every decision leaves a line behind.
//
//     Register ──▶ Rules ──▶ Inbox
//
// A station either takes the message, and the ride ends, or lets it pass. Each says what it did and by which setting.
import type { Envelope } from '../mail/envelope';
import { placeName, type Place } from '../mail/place';
import { RuleSet } from '../rules/match';
import { conditionWords, ruleName } from '../rules/rule';
import { RegisterIndex } from '../senders/register';
import type { Setup } from './setup';

/** The stations in their order. */
export const stations = ['register', 'rules', 'inbox'] as const;
export type Station = (typeof stations)[number];

/** The stations' names on the screen. */
export const stationNames: Record<Station, string> = { register: 'Register', rules: 'Rules', inbox: 'Inbox' };

/** One line of the answer to “Why here”: which station, by which setting (`entry:ID`, `rule:ID` or none), what. */
export interface TraceLine {
  station: Station;
  by: string | null;
  says: string;
}

/** What the line decided for a message, and why. `labels` are ids; the last line of the trace took the message. */
export interface Decision {
  place: Place;
  labels: string[];
  read: boolean;
  trace: TraceLine[];
}

/** A setup made ready for deciding. */
export class Line {
  private readonly register: RegisterIndex;
  private readonly rules: RuleSet;
  private readonly folderIds: Set<string>;
  private readonly labelNames: Map<string, string>;

  constructor(private readonly setup: Setup) {
    this.register = new RegisterIndex(setup.register);
    this.rules = new RuleSet(setup.rules);
    this.folderIds = new Set(setup.folders.map((f) => f.id));
    this.labelNames = new Map(setup.labels.map((l) => [l.id, l.name]));
  }

  /** Sends one message down the line. Pure: the same message and setup give the same decision. */
  decide(envelope: Envelope): Decision {
    const decision: Decision = { place: 'inbox', labels: [], read: false, trace: [] };
    if (this.passRegister(envelope, decision)) return decision;
    if (this.passRules(envelope, decision)) return decision;
    decision.trace.push({ station: 'inbox', by: null, says: 'No station took it, so it came to the Inbox.' });
    return decision;
  }

  private passRegister(envelope: Envelope, decision: Decision): boolean {
    const { address } = envelope.from;
    const entry = this.register.lookUp(address);
    if (!entry) {
      const says = address ? 'No entry for its sender.' : 'It names no sender to look up.';
      decision.trace.push({ station: 'register', by: null, says });
      return false;
    }
    const by = `entry:${entry.id}`;
    const who = entry.kind === 'domain' ? `The domain ${entry.value}` : entry.value;
    if (entry.standing === 'safe') {
      decision.trace.push({ station: 'register', by, says: `${who} is Safe: never Junk.` });
      return false;
    }
    decision.place = 'junk';
    decision.trace.push({ station: 'register', by, says: `${who} is Blocked, so it went to Junk.` });
    return true;
  }

  private passRules(envelope: Envelope, decision: Decision): boolean {
    const matching = this.rules.matching(envelope);
    if (matching.length === 0) {
      const asked = this.rules.size;
      const says =
        asked === 0
          ? 'There are no rules.'
          : asked === 1
            ? 'The one rule does not match.'
            : `None of the ${asked} rules matches.`;
      decision.trace.push({ station: 'rules', by: null, says });
      return false;
    }
    let moved = false;
    for (const { rule, held } of matching) {
      const done: string[] = [];
      for (const action of rule.then) {
        if (action.do === 'move') {
          const { place } = action;
          if (place.startsWith('folder:') && !this.folderIds.has(place.slice(7))) {
            done.push('could not move it, because its folder is gone');
            continue;
          }
          decision.place = place;
          moved = true;
          done.push(`moved it to ${placeName(place, this.setup.folders)}`);
        } else if (action.do === 'label') {
          const name = this.labelNames.get(action.label);
          if (name === undefined) continue;
          if (!decision.labels.includes(action.label)) decision.labels.push(action.label);
          done.push(`labelled it ${name}`);
        } else {
          decision.read = true;
          done.push('marked it read');
        }
      }
      decision.trace.push({
        station: 'rules',
        by: `rule:${rule.id}`,
        says: `“${ruleName(rule)}” ${done.join(', ') || 'matched'} (${held.map(conditionWords).join(', ')}).`,
      });
    }
    return moved;
  }
}
