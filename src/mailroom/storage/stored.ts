// What of the mailbox lies in storage, as the rooms above ask for it.
import type { EnvelopeStore } from './envelopeStore';
import type { RawStore } from './rawStore';
import type { Records } from './records';

export interface Stored {
  readonly envelopes: EnvelopeStore;
  readonly raws: RawStore;
}

/** Where a room keeps records of its own. */
export interface Keeping {
  readonly records: Records;
  /** Troubles to be told, oldest first. */
  readonly troubles: string[];
  /** Has what changed stored before long. */
  storeSoon(): void;
}
