// What can be done with all that a clear-out chooses.
import { Archive, MailOpen, Trash2, type LucideIcon } from 'lucide-react';
import type { ClearOutReport } from '../../mailroom/border/clearOuts';
import type { Act } from '../../mailroom/border/views';
import { messages } from '../../core/text/sentences';

/** An act on many messages at once. */
export interface WholeAct {
  word: string;
  icon: LucideIcon;
  act: Act;
  /** What it does to so many, as its button says it. */
  says: (n: number) => string;
  /** How many messages it would change: not those that are so already. */
  reach: (report: ClearOutReport) => number;
}

export const wholeActs: readonly WholeAct[] = [
  {
    word: 'Archive',
    icon: Archive,
    act: { do: 'move', place: 'archive' },
    says: (n) => `Archive ${messages(n)}`,
    reach: ({ count, already }) => count - already.archive,
  },
  {
    word: 'Bin',
    icon: Trash2,
    act: { do: 'move', place: 'bin' },
    says: (n) => `Bin ${messages(n)}`,
    reach: ({ count, already }) => count - already.bin,
  },
  {
    word: 'Mark as read',
    icon: MailOpen,
    act: { do: 'read', value: true },
    says: (n) => `Mark ${messages(n)} as read`,
    reach: ({ unread }) => unread,
  },
];
