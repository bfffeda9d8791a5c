// Whom the person knows and who sent what, as the rooms above ask for it.
import type { People } from './people';
import type { SenderIndex } from './senderIndex';

/** Whom the person knows, and who sent each message. */
export interface Correspondents {
  readonly people: People;
  readonly senderIndex: SenderIndex;
}
