// The sorting line: a message rides it once, station after station, and every decision leaves a line behind.
//
//     Register ──▶ Junk filter ──▶ Rules ──▶ Inbox
//
// A station either takes the message, and the ride ends, or lets it pass. Each says what it did and by which setting.
import type { Envelope } from '../mail/envelopeSchema';
import { lineOf } from '../junk/settings';
import { placeName, type Ink, type Place } from '../mail/place';
import { dueOn } from '../agenda/due';
import { AccountIndex } from '../mail/account';
import { heldBy, RuleSet, type Matcher, type RuleMessage } from '../rules/match';
import type { Action, DeepCondition, Rule } from '../rules/rule';
import { conditionWords, flagDayWords, ruleName } from '../rules/ruleWords';
import { addressedTo } from '../senders/kind';
import { normalAddress } from '../senders/normal';
import { entryWords, RegisterIndex } from '../senders/register';
import type { Setup } from './setup';
import type { Station } from './stations';

/** What the line is told of a message beyond the message itself. */
export interface Knowledge {
  /** Its number where it is one of many (core/rules/table.ts). */
  id?: number;
  /** Its conversation is silenced: answers pass the Inbox by. */
  silenced?: boolean;
  /** Its score by the junk filter, 0 to 100; null or absent where it was not judged. */
  score?: number | null;
  /** The person wrote to its sender before. */
  writtenTo?: boolean;
  /** The moment for which it is decided, milliseconds since 1970; absent: the message's own date. */
  now?: number;
  /** It answers a message of the person's own. */
  answersOwn?: boolean;
  /** Whether a rule's condition on the text or the header holds; absent: it does not. */
  deep?(condition: DeepCondition): boolean;
}

/** One line of the answer to “Why here”: which station, by which setting (`entry:ID`, `rule:ID`, `junk` or none), what. */
export interface TraceLine {
  station: Station | 'silence';
  by: string | null;
  says: string;
}

/** What the line decided for a message, and why. `labels` are ids; the last line of the trace took the message. */
export interface Decision {
  place: Place;
  labels: string[];
  read: boolean;
  /** The ink of its row by a rule; the first that inks it counts. */
  ink: Ink | null;
  /** Flagged by a rule; `due` in milliseconds since 1970, null for no date. The first that flags it counts. */
  flag: { due: number | null } | null;
  trace: TraceLine[];
}

/** A message as the rules see it. What few rules ask for is found when it is asked for. */
class LineMessage implements RuleMessage {
  constructor(
    readonly envelope: Envelope,
    private readonly knowledge: Knowledge,
    private readonly accounts: AccountIndex,
    private readonly register: RegisterIndex,
    private readonly known: boolean | undefined,
  ) {}

  get id() {
    return this.knowledge.id;
  }

  get now() {
    return this.knowledge.now ?? this.envelope.date ?? 0;
  }

  get account() {
    return this.accounts.accounts[this.accounts.of(this.envelope)]?.id ?? null;
  }

  get safe() {
    return this.known ?? this.register.lookUp(this.envelope)?.standing === 'safe';
  }

  get score() {
    return this.knowledge.score ?? null;
  }

  get addressed() {
    return addressedTo(this.envelope, this.accounts);
  }

  get answersOwn() {
    return this.knowledge.answersOwn ?? false;
  }

  deep(condition: DeepCondition) {
    return this.knowledge.deep?.(condition) ?? false;
  }
}

/** That no rule matches, in words. */
function noneOf(asked: number): string {
  if (asked === 0) return 'There are no rules.';
  return asked === 1 ? 'The one rule does not match.' : `None of the ${asked} rules matches.`;
}

const nothing = () => undefined;

type Say = (line: () => TraceLine) => void;

/** A setup made ready for deciding. */
export class Line {
  private readonly register: RegisterIndex;
  private readonly folderIds: Set<string>;
  private readonly labelNames: Map<string, string>;
  private readonly contacts: ReadonlySet<string>;
  private readonly accounts: AccountIndex;

  /** `rules`: who says which rules match; absent, they are asked of each message. */
  constructor(
    private readonly setup: Setup,
    private readonly rules: Matcher = new RuleSet(setup.rules),
  ) {
    this.register = new RegisterIndex(setup.register);
    this.folderIds = new Set(setup.folders.map((f) => f.id));
    this.labelNames = new Map(setup.labels.map((l) => [l.id, l.name]));
    this.contacts = new Set(setup.contacts.map((c) => c.address));
    this.accounts = new AccountIndex(setup.accounts);
  }

  /** Whether the junk filter is on: only then are scores asked for. */
  get judges(): boolean {
    return this.setup.junk.strictness > 0;
  }

  /**
   * Sends one message down the line. Pure: the same message, setup and knowledge give the same decision. Without `told`
   * it leaves no trace, which takes most of the time.
   */
  decide(envelope: Envelope, knowledge: Knowledge = {}, told = true): Decision {
    const decision: Decision = { place: 'inbox', labels: [], read: false, ink: null, flag: null, trace: [] };
    const say: Say = told ? (line) => void decision.trace.push(line()) : nothing;
    const safe = this.passRegister(envelope, decision, say);
    if (safe === null) return decision;
    if (this.passJunk(envelope, knowledge, safe, decision, say)) return decision;
    if (this.passRules(this.ruleMessage(envelope, knowledge, safe !== ''), decision, say)) return decision;
    if (knowledge.silenced) {
      decision.place = 'archive';
      const says = 'Its conversation is silenced, so it passed the Inbox by and went to the Archive.';
      say(() => ({ station: 'silence', by: null, says }));
      return decision;
    }
    say(() => ({ station: 'inbox', by: null, says: 'No station took it, so it came to the Inbox.' }));
    return decision;
  }

  /** A message as the rules see it; `safe` absent: the Register is asked. */
  ruleMessage(envelope: Envelope, knowledge: Knowledge, safe?: boolean): RuleMessage {
    return new LineMessage(envelope, knowledge, this.accounts, this.register, safe);
  }

  private junkPlace(): Place {
    return this.setup.junk.toBin ? 'bin' : 'junk';
  }

  /** Null where it takes the message; else why the message is safe, or an empty text where nothing says so. */
  private passRegister(envelope: Envelope, decision: Decision, say: Say): string | null {
    const entry = this.register.lookUp(envelope);
    if (!entry) {
      const nobody = 'It names no sender to look up, and no other entry fits.';
      say(() => ({ station: 'register', by: null, says: envelope.from.address ? 'No entry for it.' : nobody }));
      return '';
    }
    const by = `entry:${entry.id}`;
    const words = entryWords(entry);
    // An address stays as it is written.
    const who = entry.kind === 'address' ? words : words[0].toUpperCase() + words.slice(1);
    if (entry.standing === 'safe') {
      say(() => ({ station: 'register', by, says: `${who} is Safe: never Junk.` }));
      return `${words} is Safe`;
    }
    decision.place = this.junkPlace();
    const to = this.junkPlaceName();
    say(() => ({ station: 'register', by, says: `${who} is Blocked, so it went to ${to}.` }));
    return null;
  }

  private junkPlaceName(): string {
    return this.setup.junk.toBin ? 'the Bin' : 'Junk';
  }

  private passJunk(envelope: Envelope, knowledge: Knowledge, safe: string, decision: Decision, say: Say): boolean {
    const { junk } = this.setup;
    const line = lineOf(junk.strictness);
    if (line === null) return this.passed(say, () => 'The filter is off.');
    if (safe) return this.passed(say, () => `Not asked, because ${safe}.`);
    const { address } = envelope.from;
    if (junk.contactsSafe && this.contacts.has(normalAddress(address)))
      return this.passed(say, () => `Not asked, because ${address} is in your contacts.`);
    if (junk.writtenToSafe && knowledge.writtenTo)
      return this.passed(say, () => `Not asked, because you wrote to ${address}.`);
    const { score } = knowledge;
    if (score === null || score === undefined) return this.passed(say, () => 'It was not judged.');
    const shown = Math.round(score);
    if (score < line) return this.passed(say, () => `Score ${shown} of 100: below your line at ${line}.`);
    decision.place = this.junkPlace();
    const to = this.junkPlaceName();
    say(() => ({
      station: 'junk',
      by: 'junk',
      says: `Score ${shown} of 100: at or above your line at ${line}, so it went to ${to}.`,
    }));
    return true;
  }

  /** The junk filter lets it pass. */
  private passed(say: Say, says: () => string): false {
    say(() => ({ station: 'junk', by: 'junk', says: says() }));
    return false;
  }

  private passRules(message: RuleMessage, decision: Decision, say: Say): boolean {
    const matching = this.rules.matching(message);
    if (matching.length === 0) {
      say(() => ({ station: 'rules', by: null, says: noneOf(this.rules.size) }));
      return false;
    }
    let moved = false;
    for (const rule of matching) {
      const done: string[] = [];
      for (const action of rule.then) {
        if (this.carryOut(action, message, decision, done)) moved = true;
      }
      say(() => ({ station: 'rules', by: `rule:${rule.id}`, says: this.ruleSays(rule, message, done) }));
    }
    return moved;
  }

  private ruleSays(rule: Rule, message: RuleMessage, done: readonly string[]): string {
    const held = heldBy(rule, message).map((condition) => conditionWords(condition, this.setup));
    const why = held.length ? ` (${held.join(', ')})` : '';
    return `“${ruleName(rule, this.setup)}” ${done.join(', ') || 'matched'}${why}.`;
  }

  /** Carries out one action of a rule, and says so in `done`; whether it took the message. */
  private carryOut(action: Action, { now }: RuleMessage, decision: Decision, done: string[]): boolean {
    switch (action.do) {
      case 'move': {
        const { place } = action;
        if (place.startsWith('folder:') && !this.folderIds.has(place.slice(7))) {
          done.push('could not move it, because its folder is gone');
          return false;
        }
        decision.place = place;
        done.push(`moved it to ${placeName(place, this.setup.folders)}`);
        return true;
      }
      case 'label': {
        const name = this.labelNames.get(action.label);
        if (name === undefined) return false;
        if (!decision.labels.includes(action.label)) decision.labels.push(action.label);
        done.push(`labelled it ${name}`);
        return false;
      }
      case 'ink':
        decision.ink ??= action.ink;
        done.push(`inked its row in ${action.ink}`);
        return false;
      case 'flag':
        decision.flag ??= { due: action.due === 'none' ? null : dueOn(action.due, now) };
        done.push(`flagged it ${flagDayWords[action.due]}`);
        return false;
      case 'read':
        decision.read = true;
        done.push('marked it read');
        return false;
      case 'stop':
        done.push('let no rule below be asked');
        return false;
    }
  }
}
