// What is made ready for asking of all messages at once, as those who ask need it.
import type { MessageTable } from '../../core/rules/messageTable';
import type { TextStore } from './textStore';

/** The text index. */
export interface Indexed {
  readonly text: TextStore;
}

/** The envelopes in columns. */
export interface Tabled {
  /** Only after all are in memory. */
  envelopeTable(): MessageTable;
}
