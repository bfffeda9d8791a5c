// A clear-out as it crosses the border between page and mailroom.
import type { Outstanding } from '../../core/clearout/clearOut';
import type { Row } from './rows';

/** What a clear-out would touch. */
export interface ClearOutReport {
  revision: number;
  /** How many messages it looks at. */
  of: number;
  /** How many would go, how many of those are unread, and their size in bytes. */
  count: number;
  unread: number;
  bytes: number;
  /** How many of them stand in the Archive and in the Bin already: moved there, they stay where they are. */
  already: { archive: number; bin: number };
  /** When the oldest and the newest of them came, milliseconds since 1970; null where none goes. */
  from: number | null;
  to: number | null;
  /** How many stay because they stand out, and how many because they are the newest or were ticked. */
  spared: number;
  kept: number;
  /** What stands out among those that go and those that are spared. */
  standsOut: Record<Outstanding, number>;
  /** Of those that go, what stands out. */
  examples: Record<Outstanding, Row[]>;
  newest: Row[];
  oldest: Row[];
}
