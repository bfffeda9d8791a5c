// What the mailroom tells without being asked.
import type { ImportProgress } from './transfer';
import type { DatedItem } from './agenda';
import type { Row } from './rows';
import type { ReadingProgress } from './overview';

/** What the mailroom tells without being asked. */
export type MailroomEvent =
  | { kind: 'revision'; revision: number }
  // Of what arrived, what the person wants to be told of.
  | { kind: 'told'; rows: Row[] }
  // Flags that have just fallen due.
  | { kind: 'due'; rows: Row[] }
  // Tasks and appointments of which is told now.
  | { kind: 'items due'; items: DatedItem[] }
  // What was put off and has just come back.
  | { kind: 'back'; rows: Row[] }
  | { kind: 'import'; progress: ImportProgress }
  // How far long work is that was asked for.
  | { kind: 'progress'; job: string; done: number; total: number }
  // How much of the mailbox is in memory; as many as in all at the end.
  | ({ kind: 'reading' } & ReadingProgress)
  // Drafts were begun, changed, thrown away or sent.
  | { kind: 'drafts' }
  // What became of a draft that was to go.
  | { kind: 'sent'; says: string; ok: boolean }
  | { kind: 'role'; writer: boolean };
