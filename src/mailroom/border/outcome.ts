// What a command came to, as it crosses the border.

/** What a command did. `seq` is its number in the Logbook; null where there was nothing to do. */
export interface Receipt {
  seq: number | null;
  /** How many messages it touched. */
  count: number;
  /** What it did, in words. */
  says: string;
}

export type Outcome = { ok: true; receipt: Receipt } | { ok: false; error: string };
