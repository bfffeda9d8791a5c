// The sorting line: a message rides it once, station after station (stations.ts), and every decision leaves a line
// behind. A station either takes the message, and the ride ends, or lets it pass. Each says what it did and by which
// setting.
import { contactAddresses, type Contact } from '../contacts/contact';
import { deliveriesOf } from '../delivery/delivery';
import { gatheringRules } from '../delivery/letThrough';
import type { Decided } from '../effects/effect';
import { nothingDecided } from '../effects/effects';
import { AccountIndex } from '../mail/account';
import type { Envelope } from '../mail/envelopeSchema';
import { RuleSet, type Matcher, type RuleMessage } from '../rules/match';
import type { DeepCondition, Rule } from '../rules/rule';
import { rulesRun } from '../rules/stampsRun';
import { addressedTo } from '../senders/kind';
import { RegisterIndex } from '../senders/register';
import type { Setup } from './setup';
import { stations, type StationId } from './stations';
import type { Knowledge, LineIndex, Ride } from './stations/station';

/** One line of the answer to “Why here”: which station, by which setting (`entry:ID`, `rule:ID`, `tray:ID`, `junk`, `delivery` or none), what. */
export interface TraceLine {
  station: StationId | 'silence';
  by: string | null;
  says: string;
}

/** What the line decided for a message, and why. The last line of the trace took the message. */
export interface Decision extends Decided {
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

const nothing = () => undefined;

/** The contacts whose mail no hold keeps: all, or those in some groups. */
function throughContacts({ contacts, delivery: { letThrough } }: Setup): readonly Contact[] {
  if (letThrough.contacts) return contacts;
  const groups = new Set(letThrough.groups);
  return groups.size === 0 ? [] : contacts.filter((one) => one.groups.some((group) => groups.has(group)));
}

/** A setup made ready for deciding. */
export class Line {
  private readonly index: LineIndex;

  /** `matcherOf`: who says which of some rules match; absent, they are asked of each message. */
  constructor(
    private readonly setup: Setup,
    matcherOf: (rules: readonly Rule[]) => Matcher = (rules) => new RuleSet(rules),
  ) {
    const register = new RegisterIndex(setup.register);
    const accounts = new AccountIndex(setup.accounts);
    this.index = {
      setup,
      register,
      accounts,
      contacts: contactAddresses(setup.contacts),
      throughContacts: contactAddresses(throughContacts(setup)),
      rules: matcherOf(rulesRun(setup)),
      gathered: matcherOf(gatheringRules(setup)),
      deliveries: deliveriesOf(setup),
      ruleMessage: (envelope, knowledge, safe) => new LineMessage(envelope, knowledge, accounts, register, safe),
    };
  }

  /** Whether the junk filter is on: only then are scores asked for. */
  get judges(): boolean {
    return this.setup.junk.strictness > 0;
  }

  /** Sends one message down the line. Pure: the same message, setup and knowledge give the same decision. */
  decide(envelope: Envelope, knowledge: Knowledge = {}): Decision {
    const trace: TraceLine[] = [];
    return { ...this.ride(envelope, knowledge, trace), trace };
  }

  /** What `decide` comes to, without the trace, which takes most of the time. */
  decided(envelope: Envelope, knowledge: Knowledge): Decided {
    return this.ride(envelope, knowledge, null);
  }

  private ride(envelope: Envelope, knowledge: Knowledge, trace: TraceLine[] | null): Decided {
    const ride: Ride = { envelope, knowledge, decided: nothingDecided(), safe: '', say: nothing };
    let at: TraceLine['station'] = stations[0].id;
    if (trace)
      ride.say = (line) => {
        const { station = at, by, says } = line();
        trace.push({ station, by, says });
      };
    for (const station of stations) {
      at = station.id;
      if (station.pass(ride, this.index)) break;
    }
    return ride.decided;
  }

  /** A message as the rules see it. */
  ruleMessage(envelope: Envelope, knowledge: Knowledge): RuleMessage {
    return this.index.ruleMessage(envelope, knowledge);
  }
}
