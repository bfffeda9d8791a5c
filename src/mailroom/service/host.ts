// What the service needs from where it runs.
import type { MailroomEvent } from '../border/events';
import type { Outcome, Receipt } from '../border/outcome';
import type { ParsePool } from '../reading/parsePool';
import type { Mailbox } from './mailbox';
import type { DemoOffice, PostOffice } from '../post/postOffice';
import { Refused } from '../commands/once';
import { NotWritten } from '../storage/committing';
import type { RecordStore } from '../storage/recordStore';
import type { Room } from '../storage/room';
import type { Alarm } from '../time/clock';

export interface ServiceHost {
  store: RecordStore;
  room: Room;
  clock: Alarm;
  /** Takes messages apart, many at a time. */
  pool: Pick<ParsePool, 'parse' | 'read' | 'size'>;
  /** The same for the one that a person waits for. */
  reader: Pick<ParsePool, 'read'>;
  post: PostOffice;
  demo: DemoOffice;
  /** The junk filter's model that comes with the application; null where it can't be had. */
  shippedModel: () => Promise<Uint8Array | null>;
  /** Domains of free mailboxes, which so many share that blocking one is hardly meant. */
  sharedDomains: () => Promise<ReadonlySet<string>>;
  tell: (event: MailroomEvent) => void;
}

/** The open mailbox: another one once everything was deleted. */
export interface Open {
  mailbox: Mailbox;
}

/** What a command came to: an expected failure is data, a fault of the program is thrown. */
export async function outcome(work: () => Promise<Receipt | Outcome>): Promise<Outcome> {
  try {
    const result = await work();
    return 'ok' in result ? result : { ok: true, receipt: result };
  } catch (error) {
    if (error instanceof NotWritten || error instanceof Refused) return { ok: false, error: error.message };
    throw error;
  }
}
