// The post office: a stand-in that hands out the demo's mail as raw messages, lets more arrive while a page asks, and
// takes what is sent. It keeps nothing of the person's but what was sent to it since it was started.
import { parseEnvelope } from '../src/core/mail/envelope';
import { parseStructure } from '../src/core/mail/structure';
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

/** Where a page is in what it was handed: the moment for which the mailbox was made, and how many it has. */
function readCursor(cursor: string): { anchor: number; index: number } {
  const found = /^(\d{10,16})\.(\d{1,9})$/.exec(cursor);
  if (!found) throw new PostOfficeError('The post office does not know that cursor.');
  return { anchor: Number(found[1]), index: Number(found[2]) };
}

export class PostOffice {
  private anchor: number;
  private mailbox: DemoMessage[] | null = null;
  /** What came after the mailbox; `skipped` of it went out before this server was started. */
  private later: DemoMessage[] = [];
  private skipped = 0;
  private arrivals = 0;
  private due = 0;
  private asked: number | null = null;
  perMinute: number;
  paused = false;
  /** Hosts of the lists that were left. */
  private readonly left = new Set<string>();

  constructor(private readonly options: PostOfficeOptions) {
    this.anchor = options.now();
    this.perMinute = options.perMinute;
  }

  /** What came after a cursor, at most {@link batch} messages; null is the beginning. */
  changes(cursor: string | null) {
    const { count, seed } = this.options;
    const at = cursor === null ? { anchor: this.anchor, index: 0 } : readCursor(cursor);
    if (at.anchor !== this.anchor) {
      // A page that began with an earlier run of the server goes on where it was.
      this.anchor = at.anchor;
      this.mailbox = null;
      this.later = [];
    }
    if (at.index > count + this.skipped + this.later.length) {
      this.skipped = at.index - count;
      this.arrivals = this.skipped;
      this.later = [];
    }
    this.letArrive();
    let messages: DemoMessage[];
    if (at.index < count) {
      this.mailbox ??= demoMailbox(count, seed, this.anchor);
      messages = this.mailbox.slice(at.index, at.index + batch);
    } else {
      const from = Math.max(0, at.index - count - this.skipped);
      messages = this.later.slice(from, from + batch);
    }
    const next = at.index + messages.length;
    return {
      cursor: `${this.anchor}.${next}`,
      more: next < count + this.skipped + this.later.length,
      arrived: messages.map(({ raw, place, seen, flagged, due, marked }, i) => ({
        there: `${this.anchor}.${at.index + i}`,
        raw: Buffer.from(raw).toString('base64'),
        place,
        seen,
        flagged,
        due,
        marked,
      })),
      // The stand-in keeps nothing of what becomes of messages.
      altered: [],
      expunged: [],
    };
  }

  private letArrive(): void {
    const now = this.options.now();
    const away = this.asked === null ? 0 : now - this.asked;
    this.asked = now;
    if (this.paused || away > longestPause) return;
    this.due += (away / 60_000) * this.perMinute;
    for (; this.due >= 1; this.due--) {
      const message = demoArrival(this.arrivals++, this.options.seed, now);
      if (!this.isLeft(message)) this.later.push(message);
    }
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
    this.due = 0;
    return this.rate;
  }

  /** Takes a raw message that is sent; with `copy`, it stands in Sent from the next question on. */
  submit(raw: Uint8Array, copy = true): { messageId: string } {
    if (raw.length > largestSent) throw new PostOfficeError('The message is too large: 25 MB is the most.');
    const envelope = parseEnvelope(raw);
    if (!envelope.from.address) throw new PostOfficeError('The message names no sender (From).');
    if (![...envelope.to, ...envelope.cc].some((a) => a.address.includes('@')))
      throw new PostOfficeError('The message names nobody to send it to (To or Cc).');
    if (copy)
      this.later.push({
        raw,
        sender: envelope.from.address,
        date: this.options.now(),
        place: 'sent',
        seen: true,
        flagged: false,
      });
    return { messageId: envelope.messageId };
  }
}
