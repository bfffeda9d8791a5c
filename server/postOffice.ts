// The post office: a stand-in that hands out the demo's mail as raw messages, lets more arrive while a page asks, and
// takes what is sent. It keeps nothing of the person's but what was sent to it since it was started.
import { randomInt } from 'node:crypto';
import { addressKey, formatAddress, type Address } from '../src/core/mail/address';
import { parseEnvelope } from '../src/core/mail/envelope';
import { parseStructure } from '../src/core/mail/structure';
import { foldField } from '../src/core/mail/writing';
import { joinBytes } from '../src/core/data/bytes';
import { keepNewest } from '../src/core/data/memo';
import { leavingWays } from '../src/core/senders/leavingWays';
import { demoArrival, demoMailbox, type DemoMessage } from '../demo/mailbox';

/** How the post office is set up; every value has its place in docs/architecture.md. */
export interface PostOfficeOptions {
  /** Messages in the mailbox before the first arrival. */
  count: number;
  seed: number;
  /** Arrivals a minute while a page asks, 0 to 60. */
  perMinute: number;
  /** The clock, milliseconds since 1970. */
  now: () => number;
}

/** Messages handed out at one time. */
const batch = 250;
/** A page that has not asked for so long was away: nothing arrived for it meanwhile. */
const longestPause = 60_000;
const largestSent = 25 << 20;

/** A request that can't be taken; the message is for the person. */
export class PostOfficeError extends Error {
  readonly statusCode = 400;
}

/**
 * Where a page is: all that is known of it stands in the cursor that it was given, so that asking changes nothing here,
 * and one page never another’s.
 */
interface Cursor {
  /** The moment for which its mailbox was made, milliseconds since 1970. */
  anchor: number;
  /** How many of that mailbox it has. */
  index: number;
  /** How many arrivals it has. */
  arrivals: number;
  /** The moment up to which arrivals were counted. */
  counted: number;
  /** The run of the server from which it has what was sent, and how many of that. */
  run: number;
  sent: number;
  /** By what its mailbox is told from those of other pages: in Sent each has only what was sent from it. 0 for earlier versions. */
  box: number;
  /** How many of all that was sent were looked through for what goes to its addresses. */
  taken: number;
}

const cursorText = ({ anchor, index, arrivals, counted, run, sent, box, taken }: Cursor): string =>
  [anchor, index, arrivals, counted, run, sent, box, taken].join('.');

/** Reads a cursor; of earlier versions it has two numbers, six, or seven. `count`: messages of the mailbox. */
function readCursor(cursor: string, count: number, now: number): Cursor {
  if (!/^\d{1,16}\.\d{1,9}(\.\d{1,9}\.\d{1,16}\.\d{1,16}\.\d{1,9}(\.\d{1,15}(\.\d{1,9})?)?)?$/.test(cursor))
    throw new PostOfficeError('The post office does not know that cursor.');
  const [anchor, index, arrivals = Math.max(0, index - count), counted = now, run = 0, sent = 0, box = 0, taken = 0] =
    cursor.split('.').map(Number);
  return { anchor, index: Math.min(index, count), arrivals, counted, run, sent, box, taken };
}

/** Mailboxes that are kept, for so many pages that began at different times. */
const mostMailboxes = 2;

export class PostOffice {
  private readonly started: number;
  private readonly mailboxes = new Map<number, DemoMessage[]>();
  /** What was sent since this server was started. */
  private readonly sent: (DemoMessage & { messageId: string; box: number; to: readonly string[]; bare: Uint8Array })[] =
    [];
  /** From when on the rate is as it is. */
  private rateSince = 0;
  perMinute: number;
  paused = false;
  /** Hosts of the lists that were left. */
  private readonly left = new Set<string>();

  constructor(private readonly options: PostOfficeOptions) {
    this.started = options.now();
    this.perMinute = options.perMinute;
  }

  /**
   * What came after a cursor, at most {@link batch} messages; null is the beginning. Asking changes nothing. `own`: the
   * addresses of whoever asks: what was sent to them from another mailbox arrives.
   */
  changes(cursor: string | null, own: readonly string[] = []) {
    const { count } = this.options;
    const now = this.options.now();
    const at =
      cursor === null
        ? {
            anchor: this.started,
            index: 0,
            arrivals: 0,
            counted: now,
            run: this.started,
            sent: 0,
            box: randomInt(1, 2 ** 47),
            taken: 0,
          }
        : readCursor(cursor, count, now);
    const next: Cursor = { ...at, run: this.started };
    const arrived: { there: string; message: DemoMessage }[] = [];
    if (at.index < count) {
      for (const message of this.mailbox(at.anchor).slice(at.index, at.index + batch))
        arrived.push({ there: `${at.anchor}.${next.index++}`, message });
      // What arrives comes after the mailbox.
      next.counted = now;
    } else {
      const since = Math.max(at.counted, this.rateSince);
      for (const date of this.arrivalsSince(since, now)) {
        const message = demoArrival(next.arrivals, this.options.seed, date);
        const there = `${at.anchor}.arrival.${next.arrivals++}`;
        next.counted = date;
        if (!this.isLeft(message)) arrived.push({ there, message });
      }
      if (this.wasAway(since, now)) next.counted = now;
    }
    const from = at.run === this.started ? at.sent : 0;
    const sent = this.sent.filter(({ box }) => box === at.box);
    next.sent = sent.length;
    const taken = at.run === this.started ? at.taken : 0;
    // Of the mailbox itself first.
    if (at.index >= count) {
      next.taken = this.sent.length;
      arrived.push(...this.deliveredTo(own, at.box, taken));
    } else next.taken = taken;
    for (const [i, message] of sent.slice(from).entries())
      arrived.push({ there: `${this.started}.sent.${from + i}`, message });
    return {
      cursor: cursorText(next),
      more: next.index < count,
      arrived: arrived.map(({ there, message: { raw, place, seen, flagged, due, until, marked } }) => ({
        there,
        raw: Buffer.from(raw).toString('base64'),
        place,
        seen,
        flagged,
        due,
        until,
        marked,
      })),
      // The stand-in keeps nothing of what becomes of messages.
      altered: [],
      expunged: [],
    };
  }

  /** What was sent to some addresses from other mailboxes; what somebody wrote themselves elsewhere is no arrival. */
  private deliveredTo(own: readonly string[], box: number, from: number): { there: string; message: DemoMessage }[] {
    const addresses = new Set(own.map(addressKey));
    return this.sent.slice(from).flatMap((message, i) => {
      const comes =
        message.box !== box && !addresses.has(addressKey(message.sender)) && message.to.some((to) => addresses.has(to));
      if (!comes) return [];
      return [
        {
          there: `${this.started}.delivered.${from + i}`,
          message: { ...message, raw: message.bare, place: 'inbox', seen: false },
        },
      ];
    });
  }

  private mailbox(anchor: number): DemoMessage[] {
    const { count, seed } = this.options;
    const kept = this.mailboxes.get(anchor) ?? demoMailbox(count, seed, anchor);
    keepNewest(this.mailboxes, anchor, kept, mostMailboxes);
    return kept;
  }

  /** Whether a page did not ask for so long that nothing arrived for it meanwhile. */
  private wasAway(since: number, now: number): boolean {
    return !this.paused && this.perMinute > 0 && now - since > longestPause + 60_000 / this.perMinute;
  }

  /** The moments at which something arrived for a page that was counted up to a moment. */
  private arrivalsSince(since: number, now: number): number[] {
    const { perMinute, paused } = this;
    if (paused || perMinute === 0 || this.wasAway(since, now)) return [];
    const step = 60_000 / perMinute;
    return Array.from({ length: Math.max(0, Math.floor((now - since) / step)) }, (_, i) =>
      Math.round(since + (i + 1) * step),
    );
  }

  /** Whether a message is from a list that was left. */
  private isLeft({ raw }: DemoMessage): boolean {
    if (this.left.size === 0) return false;
    const ways = leavingWays(parseStructure(raw).fields, true);
    return ways.some((way) => way.by === 'one-click' && this.left.has(new URL(way.url).host));
  }

  /**
   * Leaves a list by one request (RFC 8058). The stand-in asks nobody: from now on nothing arrives of the lists whose
   * address is at that host.
   */
  leave(url: string): { left: true } {
    if (!URL.canParse(url) || new URL(url).protocol !== 'https:')
      throw new PostOfficeError('A list is left by one request at an https address only.');
    this.left.add(new URL(url).host);
    return { left: true };
  }

  /** How much arrives while a page asks. */
  get rate(): { perMinute: number; paused: boolean } {
    const { perMinute, paused } = this;
    return { perMinute, paused };
  }

  setRate(perMinute: number, paused: boolean): { perMinute: number; paused: boolean } {
    this.perMinute = perMinute;
    this.paused = paused;
    this.rateSince = this.options.now();
    return this.rate;
  }

  /** Takes a raw message that is sent; for the page with that cursor it stands in Sent from the next question on. */
  submit(raw: Uint8Array, cursor: string | null, bcc: readonly Address[] = []): { messageId: string } {
    const box = cursor === null ? 0 : readCursor(cursor, this.options.count, this.options.now()).box;
    if (raw.length > largestSent) throw new PostOfficeError('The message is too large: 25 MB is the most.');
    const envelope = parseEnvelope(raw);
    if (!envelope.from.address) throw new PostOfficeError('The message names no sender (From).');
    if (![...envelope.to, ...envelope.cc, ...bcc].some((a) => a.address.includes('@')))
      throw new PostOfficeError('The message names nobody to send it to (To, Cc or Bcc).');
    const { messageId } = envelope;
    // What is sent again is the same message.
    if (!this.sent.some((one) => one.messageId === messageId && one.box === box))
      this.sent.push({
        messageId,
        box,
        // Only the sender's own copy says who else had it (RFC 5322, section 3.6.3).
        raw: bcc.length
          ? joinBytes([new TextEncoder().encode(foldField('Bcc', bcc.map(formatAddress).join(', '))), raw])
          : raw,
        bare: raw,
        to: [...envelope.to, ...envelope.cc, ...bcc].map(({ address }) => addressKey(address)),
        sender: envelope.from.address,
        date: this.options.now(),
        place: 'sent',
        seen: true,
        flagged: false,
      });
    return { messageId };
  }
}
