// What a station is: one step of the sorting line. It takes a message, and the ride ends, or lets it pass; either way it
// says what it did and by which setting.
import type { Deliveries } from '../../delivery/delivery';
import type { Decided } from '../../effects/effect';
import type { AccountIndex } from '../../mail/account';
import type { Envelope } from '../../mail/envelopeSchema';
import type { Matcher, RuleMessage } from '../../rules/match';
import type { DeepCondition } from '../../rules/rule';
import type { RegisterIndex } from '../../senders/register';
import type { Setup } from '../setup';

/** What the line is told of a message beyond the message itself. */
export interface Knowledge {
  /** Its number where it is one of many (core/rules/messageTable.ts). */
  id?: number;
  /** Its conversation is silenced: answers pass the Inbox by. */
  silenced?: boolean;
  /** Its score by the junk filter, 0 to 100; null or absent where it was not judged. */
  score?: number | null;
  /** The person wrote to its sender before. */
  writtenTo?: boolean;
  /**
   * When it was sent to the person, as far as that is known, milliseconds since 1970: a tray’s round counts from then, so
   * that old mail that is brought in does not wait for a round that it has had. Absent: the moment for which it is decided.
   */
  came?: number;
  /** When it comes in, milliseconds since 1970: what holds delivery back then keeps it. Absent: it is here already. */
  arrives?: number;
  /** The moment for which it is decided, milliseconds since 1970; absent: the message's own date. */
  now?: number;
  /** It answers a message of the person's own. */
  answersOwn?: boolean;
  /** Whether a rule's condition on the text or the header holds; absent: it does not. */
  deep?(condition: DeepCondition): boolean;
}

/** What a station says of a message: by which setting (`entry:ID`, `rule:ID`, `tray:ID`, `junk`, `delivery` or none), what it did. */
export interface Said {
  by: string | null;
  says: string;
  /** Who says so, where it is not the station itself. */
  station?: 'silence';
}

/** A message on its ride. */
export interface Ride {
  readonly envelope: Envelope;
  readonly knowledge: Knowledge;
  /** What is decided so far; a station that takes the message puts it in its place. */
  readonly decided: Decided;
  /** Why the message is never junk, by what the Register holds; empty where nothing says so. */
  safe: string;
  /** Leaves a line of trace; it is only made where it is told. */
  say(line: () => Said): void;
}

/** A setup as the stations look it up. */
export interface LineIndex {
  readonly setup: Setup;
  readonly register: RegisterIndex;
  readonly accounts: AccountIndex;
  /** Addresses of the contacts, in normal form. */
  readonly contacts: ReadonlySet<string>;
  /** Addresses of those contacts whose mail no hold keeps, in normal form. */
  readonly throughContacts: ReadonlySet<string>;
  /** Who says which rules match. */
  readonly rules: Matcher;
  /** Who says which trays gather a message, and whether it is let through (core/delivery/letThrough.ts). */
  readonly gathered: Matcher;
  readonly deliveries: Deliveries;
  /** A message as the rules see it; `safe` absent: the Register is asked. */
  ruleMessage(envelope: Envelope, knowledge: Knowledge, safe?: boolean): RuleMessage;
}

/** A station as a value. */
export interface Station<Id extends string = string> {
  readonly id: Id;
  /** Its name on the screen. */
  readonly name: string;
  /** The page on which it is set, as the path of its address. */
  readonly page: string;
  /** Sends a message through it; whether it takes the message. Pure. */
  pass(ride: Ride, index: LineIndex): boolean;
}
