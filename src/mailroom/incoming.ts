// Mail that comes in: told apart from what is here, sent down the line, stored, journalled.
import { Line } from '../core/line/decide';
import type { KeptEnvelope } from './reading';
import { fromLineOf } from '../core/mail/mbox';
import { parseDate } from '../core/mail/date';
import type { Place } from '../core/mail/place';
import { bit } from './columns';
import type { Mailbox } from './mailbox';
import type { StoredMessage } from './rawStore';
import type { StoredTraceLine } from './records';
import { gone } from './tables';

/** A message on its way in. `place` null: the line decides. */
export interface Incoming {
  stored: StoredMessage;
  envelope: KeptEnvelope;
  place: Place | null;
  read: boolean;
  flagged: boolean;
  /** Why it is where it is, where the line does not decide. */
  why: StoredTraceLine | null;
}

/** Two messages are the same when their Message-ID and their bytes are. */
const identity = (envelope: KeptEnvelope): string => `${envelope.key} ${envelope.messageId}`;

/**
 * Tells which messages of a job are here already. A mailbox holds as many copies of a message as the file that has
 * most of them: nothing of a file is lost, and taking the same file again adds nothing.
 */
export class Duplicates {
  private readonly here = new Map<string, number>();
  private readonly seen = new Map<string, number>();

  /** Only after `mailbox.ready()`. */
  constructor(mailbox: Mailbox) {
    for (let id = 0; id < mailbox.columns.count; id++)
      if (mailbox.columns.place[id] !== gone) this.count(this.here, mailbox.envelopes.get(id));
  }

  private count(map: Map<string, number>, envelope: KeptEnvelope): number {
    const key = identity(envelope);
    const n = (map.get(key) ?? 0) + 1;
    map.set(key, n);
    return n;
  }

  /** Whether a message is new; counts it either way. */
  isNew(envelope: KeptEnvelope): boolean {
    const seen = this.count(this.seen, envelope);
    if (seen <= (this.here.get(identity(envelope)) ?? 0)) return false;
    this.here.set(identity(envelope), seen);
    return true;
  }
}

/** The moment by which a message is sorted: its Date, else that of its From_ line, else when it came in. */
function sortDate({ envelope, stored }: Incoming, now: number): number {
  if (envelope.date !== null) return envelope.date;
  const line = fromLineOf(stored.bytes);
  const asctime = line === null ? null : /(?:[A-Z][a-z]{2} ){2}.*$/.exec(line);
  return (asctime && parseDate(asctime[0])) ?? now;
}

/** What a batch is written under. */
export interface Batch {
  command: string;
  by: 'you' | 'post office';
  says: string;
  cursor?: string;
}

/**
 * Adds messages, as one command. Bytes and envelopes are written before the journal record that makes them count, so a
 * crash leaves the batch whole or not there. Throws NotWritten.
 */
export async function addMessages(mailbox: Mailbox, incoming: readonly Incoming[], batch: Batch): Promise<number[]> {
  const first = mailbox.columns.count;
  const now = mailbox.now();
  const line = new Line(mailbox.setup);
  const { tables } = mailbox;
  const ids = Int32Array.from(incoming, (_, i) => first + i);
  const place = new Uint16Array(ids.length);
  const bits = new Uint8Array(ids.length);
  const labels = new Uint16Array(ids.length);
  const trace = new Uint32Array(ids.length);
  const date = new Float64Array(ids.length);
  for (const [i, message] of incoming.entries()) {
    const decision = message.place === null ? line.decide(message.envelope) : null;
    place[i] = tables.placeIndex(decision?.place ?? message.place ?? 'inbox');
    labels[i] = tables.labelSetIndex(decision?.labels ?? []);
    bits[i] = (message.read || decision?.read ? bit.read : 0) | (message.flagged ? bit.flagged : 0);
    if (message.place !== null) bits[i] |= bit.byHand;
    trace[i] = tables.traces.add(decision?.trace ?? (message.why ? [message.why] : []));
    date[i] = sortDate(message, now);
  }
  const stored = incoming.map((m) => m.stored);
  const envelopes = incoming.map((m) => m.envelope);
  await mailbox.writeMessages(first, stored, envelopes);
  await mailbox.commit({
    ...batch,
    add: { first, count: ids.length },
    ids,
    after: { place, placedAt: now, bits, labels, trace, date },
  });
  for (const [i, message] of incoming.entries()) if (message.envelope.damage !== null) mailbox.damaged.add(first + i);
  mailbox.views.changed();
  return [...ids];
}
