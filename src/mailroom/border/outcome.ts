// What a command came to, as it crosses the border; and what one would.
import type { SetupDifference } from '../../core/line/takingUp';

/** What a command did. `seq` is its number in the Logbook; null where there was nothing to do. */
export interface Receipt {
  seq: number | null;
  /** How many messages it touched. */
  count: number;
  /** What it did, in words. */
  says: string;
}

export type Outcome = { ok: true; receipt: Receipt } | { ok: false; error: string };

/** What a setup from a file would change; `kept`: what it does not have, but stays because mail stands in it or bears it. */
export type SetupRead =
  | { ok: true; difference: SetupDifference; kept: { folders: string[]; labels: string[] } }
  | { ok: false; error: string };
