// Which messages are here already.
import type { KeptEnvelope } from '../storage/keptEnvelope';
import type { MailState } from '../state/mailState';
import type { Stored } from '../storage/stored';
import { expunged } from '../state/internedTables';

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
  constructor(mailbox: Pick<MailState, 'columns'> & Pick<Stored, 'envelopes'>) {
    for (let id = 0; id < mailbox.columns.count; id++)
      if (mailbox.columns.place[id] !== expunged) this.count(this.here, mailbox.envelopes.get(id));
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
