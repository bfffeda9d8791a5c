// What rows hold, as it crosses the border: the messages to which an act on a row goes.
import { z } from 'zod';

/** Which messages of a view's rows are meant: all, the unread ones, or the others. */
export const onlySchema = z.enum(['all', 'unread', 'read']);
export type Only = z.infer<typeof onlySchema>;

/** Some rows with their messages, in the view's order. */
export interface RowsHeld {
  /** Of each row the number of its conversation, where rows are conversations; else the id of its message. */
  keys: Int32Array;
  /** Of each row the end of its messages in {@link ids}. */
  ends: Int32Array;
  ids: Int32Array;
}

/** How many rows have messages of each kind, how many of them stand for trays (absent for none), and how many these are. */
export type HeldCounts = Record<Only, { rows: number; trays?: number; messages: number }>;

/** More rows than there are: all of a view, as the end of a stretch. */
export const everyRow = 2 ** 31 - 1;
