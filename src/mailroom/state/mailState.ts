// The state of the mailbox, as the rooms above ask for it: part by part, so that nobody gets more than they use.
import type { Setup } from '../../core/line/setup';
import type { Clock } from '../time/clock';
import type { StateColumns } from './columns';
import type { DaysSeen } from './daysSeen';
import type { Derived } from './derived';
import type { Items } from './items';
import type { Tables } from './internedTables';
import type { JournalHead } from './journalHead';

/** Where every message is and what it bears, the setup, and the moment. */
export interface MailState extends Clock {
  readonly columns: StateColumns;
  readonly tables: Tables;
  readonly derived: Derived;
  readonly setup: Setup;
  readonly daysSeen: DaysSeen;
}

/** Tasks and appointments. */
export interface Dated {
  readonly items: Items;
}

/** At which change the state is. */
export interface Revised {
  readonly revision: number;
}

/** How many imports, or first fetches from the post office, are under way: what they bring is no news. */
export interface Filling {
  filling: number;
}

/** Messages that are not as a standard wants them, by id. Complete once {@link Loading.ready} is settled. */
export interface Damage {
  readonly damaged: Set<number>;
}

/** What is read into memory only after the first rows are out. */
export interface Loading {
  /** Settled once the Logbook's entries are in memory. Whoever waits for it makes it begin. */
  journalReady(): Promise<void>;
  /** Settled once all envelopes are in memory, too. */
  envelopesReady(): Promise<void>;
  /** Settled once what follows from them is: conversations, people, damage. */
  ready(): Promise<void>;
  /** Begins to read it. */
  beginRest(): void;
}

/** A message that was deleted for good, as the Logbook can still name it. `date` in milliseconds since 1970. */
export interface DeletedMessage {
  from: string;
  subject: string;
  date: number;
}

/** What was done, as far as it is kept. Complete once {@link Loading.journalReady} is settled. */
export interface Logged {
  readonly heads: readonly JournalHead[];
  /** The ids of all commands. */
  readonly commands: ReadonlySet<string>;
  /** The first record of the journal that is kept. */
  readonly first: number;
  /** What was deleted for good since the mailbox was opened, by its number: in memory alone, so that it is gone from storage. */
  readonly deletedLately: Map<number, DeletedMessage>;
}
