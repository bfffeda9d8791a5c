// Running a Sieve script on a message, as RFC 5228 and the extensions of meaning.ts say: what a mail server would do.
import { parseAddresses } from '../../mail/address';
import { formatDate, parseDate } from '../../mail/date';
import type { HeaderField } from '../../mail/header';
import { Message } from '../../mail/message';
import { bodyForRules } from '../deep';
import { fieldText } from '../../mail/fieldText';
import { foldAscii, foldUnicode } from '../../text/collation';
import { fits, readPattern, type Pattern } from '../pattern';
import type { Command, Meaning, Test } from './meaning';
import type { Match, Relation, SieveComparator } from './extensions';

/** What a script is run on. */
export interface Delivery {
  raw: Uint8Array;
  /** The envelope of the delivery (RFC 5321): the addresses that MAIL FROM and RCPT TO named. */
  from?: string;
  to?: string;
  /** The moment, milliseconds since 1970. */
  now: number;
}

/** One thing that a script does. `flags` are what the message bears there (RFC 5232). */
export type Effect =
  | { does: 'keep'; flags: string[] }
  | { does: 'fileinto'; mailbox: string; flags: string[] }
  | { does: 'redirect'; to: string }
  | { does: 'discard' };

function folded(comparator: SieveComparator, text: string): string {
  if (comparator === 'i;ascii-casemap') return foldAscii(text);
  return comparator === 'i;unicode-casemap' ? foldUnicode(text) : text;
}

/** The number that a text begins with; what begins with none is beyond all (RFC 4790, section 9.1). */
const numberOf = (text: string): number => {
  const digits = /^\d+/.exec(text);
  return digits ? Number(digits[0]) : Infinity;
};

function related(relation: Relation, order: number): boolean {
  switch (relation) {
    case 'gt':
      return order > 0;
    case 'ge':
      return order >= 0;
    case 'lt':
      return order < 0;
    case 'le':
      return order <= 0;
    case 'eq':
      return order === 0;
    case 'ne':
      return order !== 0;
  }
}

function order(comparator: SieveComparator, a: string, b: string): number {
  if (comparator === 'i;ascii-numeric') {
    const [x, y] = [numberOf(a), numberOf(b)];
    return x === y ? 0 : x < y ? -1 : 1;
  }
  const [x, y] = [folded(comparator, a), folded(comparator, b)];
  return x === y ? 0 : x < y ? -1 : 1;
}

/** A pattern whose characters are folded one by one: what becomes a “?” by folding was none to begin with. */
const foldedPattern = (comparator: SieveComparator, key: string): Pattern =>
  readPattern(key).flatMap((part): Pattern => (typeof part === 'string' ? [...folded(comparator, part)] : [part]));

function compares(match: Match, comparator: SieveComparator, value: string, key: string): boolean {
  switch (match.type) {
    case 'is':
      return order(comparator, value, key) === 0;
    case 'contains':
      return folded(comparator, value).includes(folded(comparator, key));
    case 'matches':
      return fits(foldedPattern(comparator, key), folded(comparator, value));
    case 'value':
      return related(match.relation, order(comparator, value, key));
    case 'count':
      return false;
  }
}

/** Whether any of some values is as any of the keys asks (RFC 5228, section 2.7; RFC 5231, section 4.2 for counts). */
function anyHolds(values: readonly string[], test: { match: Match; comparator: SieveComparator; keys: string[] }) {
  const { match, comparator, keys } = test;
  if (match.type === 'count')
    return keys.some((key) => related(match.relation, order(comparator, String(values.length), key)));
  return values.some((value) => keys.some((key) => compares(match, comparator, value, key)));
}

function addressPart(address: string, part: 'all' | 'localpart' | 'domain'): string {
  const at = address.lastIndexOf('@');
  if (part === 'all') return address;
  if (part === 'domain') return at < 0 ? '' : address.slice(at + 1);
  return at < 0 ? address : address.slice(0, at);
}

const two = (n: number): string => String(n).padStart(2, '0');
const dayLong = 86_400_000;

/** A part of a moment in a zone, as RFC 5260, section 4.2 writes it. `zone` in minutes east of UTC. */
export function datePartOf(time: number, zone: number, part: string): string {
  const there = new Date(time + zone * 60_000);
  const [year, month, day] = [
    String(there.getUTCFullYear()).padStart(4, '0'),
    two(there.getUTCMonth() + 1),
    two(there.getUTCDate()),
  ];
  const clock = [there.getUTCHours(), there.getUTCMinutes(), there.getUTCSeconds()].map(two);
  const offset = `${zone < 0 ? '-' : '+'}${two(Math.floor(Math.abs(zone) / 60))}${two(Math.abs(zone) % 60)}`;
  switch (part) {
    case 'year':
      return year;
    case 'month':
      return month;
    case 'day':
      return day;
    case 'date':
      return `${year}-${month}-${day}`;
    case 'julian':
      return String(Math.floor((time + zone * 60_000) / dayLong) + 40_587);
    case 'hour':
      return clock[0];
    case 'minute':
      return clock[1];
    case 'second':
      return clock[2];
    case 'time':
      return clock.join(':');
    case 'iso8601':
      return `${year}-${month}-${day}T${clock.join(':')}${offset.slice(0, 3)}:${offset.slice(3)}`;
    case 'std11':
      return formatDate(time, zone);
    case 'zone':
      return offset;
    default:
      return String(there.getUTCDay());
  }
}

/** The zone that a date field names, in minutes east of UTC; 0 where it names none that can be read. */
function zoneOf(field: string): number {
  const found = /([+-])(\d{2})(\d{2})\s*(?:\([^)]*\)\s*)?$/.exec(field);
  return found ? (found[1] === '-' ? -1 : 1) * (Number(found[2]) * 60 + Number(found[3])) : 0;
}

class Run {
  readonly effects: Effect[] = [];
  private readonly message: Message;
  private flags: string[] = [];
  private body: string | null = null;
  /** The message is kept unless an action says otherwise (RFC 5228, section 2.10.2). */
  private keep = true;

  constructor(private readonly delivery: Delivery) {
    this.message = new Message(delivery.raw);
  }

  finish(): Effect[] {
    if (this.keep) this.effects.push({ does: 'keep', flags: [...this.flags] });
    return this.effects;
  }

  /** Puts the message somewhere. The same place twice is once (RFC 5228, section 2.10.3). */
  private put(effect: Extract<Effect, { does: 'keep' | 'fileinto' }>): void {
    const placeOf = (it: Effect) => (it.does === 'keep' ? '' : it.does === 'fileinto' ? `into ${it.mailbox}` : null);
    const same = this.effects.findIndex((it) => placeOf(it) === placeOf(effect));
    if (same >= 0) this.effects[same] = effect;
    else this.effects.push(effect);
  }

  /** Runs some commands; false once “stop” was said. */
  all(commands: readonly Command[]): boolean {
    return commands.every((command) => this.one(command));
  }

  private one(command: Command): boolean {
    switch (command.does) {
      case 'stop':
        return false;
      case 'discard':
        this.keep = false;
        return true;
      case 'keep':
        this.keep = false;
        this.put({ does: 'keep', flags: [...(command.flags ?? this.flags)] });
        return true;
      case 'fileinto': {
        if (!command.copy) this.keep = false;
        this.put({ does: 'fileinto', mailbox: command.mailbox, flags: [...(command.flags ?? this.flags)] });
        return true;
      }
      case 'redirect':
        if (!command.copy) this.keep = false;
        this.effects.push({ does: 'redirect', to: command.to });
        return true;
      case 'setflag':
        this.flags = [];
        this.addFlags(command.flags);
        return true;
      case 'addflag':
        this.addFlags(command.flags);
        return true;
      case 'removeflag': {
        const off = new Set(command.flags.map(foldAscii));
        this.flags = this.flags.filter((flag) => !off.has(foldAscii(flag)));
        return true;
      }
      case 'if': {
        const branch = command.branches.find(({ test }) => this.holds(test));
        return this.all(branch ? branch.block : (command.otherwise ?? []));
      }
      case 'unknown':
        throw new Error('A script with problems was run.');
    }
  }

  private addFlags(flags: readonly string[]): void {
    for (const flag of flags) if (!this.flags.some((one) => foldAscii(one) === foldAscii(flag))) this.flags.push(flag);
  }

  private fields(name: string): HeaderField[] {
    const key = name.toLowerCase();
    return this.message.fields.filter((field) => field.key === key);
  }

  private holds(test: Test): boolean {
    switch (test.is) {
      case 'true':
        return true;
      case 'false':
        return false;
      case 'not':
        return !this.holds(test.of);
      case 'allof':
        return test.of.every((one) => this.holds(one));
      case 'anyof':
        return test.of.some((one) => this.holds(one));
      case 'exists':
        return test.names.every((name) => this.fields(name).length > 0);
      case 'size': {
        const { length } = this.delivery.raw;
        return test.how === 'over' ? length > test.bytes : length < test.bytes;
      }
      case 'header':
        return anyHolds(
          test.names.flatMap((name) => this.fields(name).map(fieldText)),
          test,
        );
      case 'address': {
        const addresses = test.names.flatMap((name) =>
          this.fields(name).flatMap((field) => parseAddresses(field.value)),
        );
        const known = addresses.filter(({ address }) => address !== '');
        return anyHolds(
          known.map(({ address }) => addressPart(address, test.part)),
          test,
        );
      }
      case 'envelope': {
        const { from, to } = this.delivery;
        const parts = test.names.map((name) => ({ from, to })[name.toLowerCase() as 'from' | 'to']);
        return anyHolds(
          parts.flatMap((address) => (address === undefined ? [] : [addressPart(address, test.part)])),
          test,
        );
      }
      case 'body': {
        if (test.how === 'raw') {
          const { text } = this.message.structure;
          return anyHolds([text.slice(text.search(/\r?\n\r?\n/))], test);
        }
        this.body ??= bodyForRules(this.message);
        return anyHolds([this.body], test);
      }
      case 'date': {
        const values = this.fields(test.name).flatMap(({ value }) => {
          const time = parseDate(value);
          return time === null ? [] : [datePartOf(time, test.zone ?? zoneOf(value), test.datePart)];
        });
        return anyHolds(values.slice(0, 1), test);
      }
      case 'currentdate':
        return anyHolds([datePartOf(this.delivery.now, test.zone ?? 0, test.datePart)], test);
      case 'hasflag':
        return anyHolds(this.flags, test);
      case 'unknown':
        throw new Error('A script with problems was run.');
    }
  }
}

/** What a script does to a message. Throws where the script has problems, or says what is not known: look first. */
export function runScript({ commands, problems }: Meaning, delivery: Delivery): Effect[] {
  if (problems.length) throw new Error(`A script with problems was run: ${problems[0].says}`);
  const run = new Run(delivery);
  run.all(commands);
  return run.finish();
}
