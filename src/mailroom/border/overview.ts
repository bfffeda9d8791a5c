// The counts for the line on the left, and how the post office and the reading stand, as they cross the border.
import type { Place } from '../../core/mail/place';
import type { Setup } from '../../core/line/setup';
import type { TrayCounts, WaitingCounts } from './trays';
import type { StationId } from '../../core/line/stations';

/** Counts for the line on the left. */
export interface Overview {
  revision: number;
  /** Messages in all places. */
  total: number;
  places: { place: Place; total: number; unread: number }[];
  /** What each account has in the Inbox, and at last what is found under none. */
  accounts: { account: string; total: number; unread: number }[];
  labels: { label: string; total: number; unread: number }[];
  damaged: number;
  /** How many conversations are silenced. */
  silenced: number;
  /** How many wait for a second look. */
  doubtful: number;
  /** What the trays hold, in the order of the setup, and how delivery stands. */
  trays: TrayCounts[];
  waiting: WaitingCounts;
  /** The stations in their order, and how many of today's messages each took. */
  stations: { id: StationId; name: string; page: string; today: number }[];
  setup: Setup;
  post: PostStatus;
  /** The browser has dropped what it stored: what is in memory is all that is left, and nothing more is kept. */
  lost: boolean;
  /** The disk has no room for more: acts are refused until it has. */
  full: boolean;
  /** An import that was cut off when the mailbox was last closed: how many messages of it came in; null for none. */
  cutOff: { names: string; target: Place | 'line'; added: number } | null;
  /** Troubles to be told, oldest first: spoilt records, refused storage. */
  troubles: string[];
}

/** The post office as seen from here. */
export interface PostStatus {
  on: boolean;
  lastChecked: number | null;
  /** How many messages the last check brought. */
  arrived: number;
  /** Why the last check failed, or null. */
  error: string | null;
  perMinute: number;
  paused: boolean;
}

/** How many messages were read into memory: what rows say of them, or their texts for finding. */
export interface ReadingProgress {
  what: 'rows' | 'texts';
  done: number;
  total: number;
}
