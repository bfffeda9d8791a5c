// What asks all messages at once, as the rooms above ask for it.
import type { Setup } from '../../core/line/setup';
import type { Bits } from '../../core/data/bits';
import type { DeepAnswers } from './deepConditions';
import type { Finding } from './finding';
import type { Redundancy } from './redundancy';
import type { Views } from './views';

export interface Viewing {
  readonly views: Views;
}

export interface Searching {
  readonly finding: Finding;
  readonly redundancy: Redundancy;
}

/** What the conditions of rules are asked of. */
export interface Asking {
  readonly deep: DeepAnswers;
  /** What conditions were found to hold for, under the accounts or the Register by which they go. */
  readonly asked: WeakMap<object, Map<string, Bits>>;
}

export interface Sorting {
  /**
   * Settled once messages can be sent down the line of a setup: envelopes, people and scores are in memory, and what its
   * rules ask of texts is known. Ends early where `wanted` says that nobody waits any more.
   */
  readyToSort(setup: Setup, wanted?: () => boolean): Promise<void>;
}
