// How the state is changed: one commit, written to the journal before it is applied.
import type { StoredMessage } from '../../core/mail/message';
import type { Commit } from './journal';
import type { KeptEnvelope } from './keptEnvelope';

export interface Committing {
  /** The number of the last journal record. */
  readonly seq: number;
  /** Writes a command to the journal, then applies it. Only within `exclusive`. Throws NotWritten. */
  commit(commit: Commit): Promise<number>;
}

/** One command after another: none sees another half done. */
export interface Exclusive {
  exclusive<T>(work: () => Promise<T>): Promise<T>;
}

/** How messages come in. */
export interface Adding {
  /** Stores the bytes and envelopes of messages that a command is about to add. Throws NotWritten. */
  writeMessages(first: number, stored: readonly StoredMessage[], envelopes: readonly KeptEnvelope[]): Promise<void>;
  /** Forgets messages that could not be written. */
  takeBack(count: number): Promise<void>;
}

/** A command that could not be written: the reason in words, and nothing was changed. */
export class NotWritten extends Error {
  constructor(reason: string) {
    super(reason);
    this.name = 'NotWritten';
  }
}
