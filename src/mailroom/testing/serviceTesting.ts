// The service for tests: over a post office that is a script, and a clock that stands.
import type { Mailroom } from '../border/mailroom';
import type { MailroomEvent } from '../border/events';
import { openService } from '../service/service';
import type { Changes, PostOffice } from '../post/postOffice';
import { memoryStore, type RecordStore } from '../storage/recordStore';
import { anyRoom } from '../storage/room';
import { testTime } from './testing';
import { TestClock } from './testClock';
import { here } from '../reading/here';
import type { ReadStored } from '../reading/readings';
import type { Parse } from '../reading/parsePool';
import { testPost } from './testPost';

/** A raw message in base64. */
export const raw = (n: number, from = `a${n}@b.example`) =>
  Buffer.from(
    `From: ${from}\r\nTo: me@c.example\r\nSubject: Message ${n}\r\nMessage-ID: <${n}@b.example>\r\n\r\nText\r\n`,
  ).toString('base64');

/** A post office that gives out one batch after another, then nothing. */
export function scripted(
  batches: Omit<Changes['arrived'][number], 'there'>[][],
): PostOffice & { asked: (string | null)[]; broken: boolean } {
  const office = {
    ...testPost({ submit: async () => ({ messageId: '' }), leave: async () => ({ left: true }) }),
    asked: [] as (string | null)[],
    broken: false,
    changes: async (cursor: string | null): Promise<Changes> => {
      if (office.broken) throw new Error('The post office does not answer. Is the server still running?');
      office.asked.push(cursor);
      const at = Number(cursor ?? 0);
      const messages = batches[at] ?? [];
      const arrived = messages.map((message, i) => ({ there: `${at}.${i}`, ...message }));
      return {
        cursor: String(Math.min(at + 1, batches.length)),
        more: at + 1 < batches.length,
        arrived,
        altered: [],
        expunged: [],
      };
    },
  };
  return office;
}

/** Starts the service over a post office; `setup`: what the demo begins with. Comes back with what it told, too. */
export const starter =
  (setup: () => unknown) =>
  async (
    post: PostOffice,
    store: RecordStore = memoryStore(),
    parse: Parse = here.parse,
    read: ReadStored = here.read,
  ) => {
    const told: MailroomEvent[] = [];
    const clock = new TestClock(testTime);
    const service: Mailroom = await openService({
      store,
      room: anyRoom,
      clock,
      pool: { size: 1, parse, read: here.read },
      reader: { read },
      post,
      demo: {
        rate: async () => ({ perMinute: 3, paused: false }),
        setRate: async (rate) => rate,
        setup: async () => setup(),
        agenda: async () => [],
      },
      shippedModel: async () => null,
      sharedDomains: async () => new Set<string>(),
      tell: (event) => told.push(event),
    });
    return { service, told, clock };
  };
