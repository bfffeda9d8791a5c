// What a stamp would do, as it crosses the border.
import type { Row } from './rows';

/** What carrying out a stamp would come to. */
export interface StampReport {
  /** How many messages were chosen. */
  of: number;
  /** Act by act: what it would do, and to how many. */
  steps: { did: string; count: number; beyond: boolean }[];
  /** How many messages would change, and how many of them were not chosen: others of their conversations. */
  touched: number;
  beyond: number;
  /** How many messages it would send, and to whom, the first few. */
  sends: number;
  to: string[];
  /** The newest of the messages that would change. */
  rows: Row[];
  /** Why it can’t be carried out; null where it can. */
  whyNot: string | null;
}
