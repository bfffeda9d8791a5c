// The rows that are asked for before the page is there: the list takes them up instead of asking again.
import type { RowWindow } from '../../mailroom/border/rows';
import type { Grouping, View } from '../../mailroom/border/views';
import { mailroom } from '../../mailroom/client';

/** Rows fetched at one time. */
export const pageSize = 60;

export const rowsKey = (view: View, grouping: Grouping): string => JSON.stringify([view, grouping]);

let first: { key: string; rows: Promise<RowWindow> } | null = null;

/** Asks for the first page of a view. */
export function askFirstRows(view: View, grouping: Grouping): void {
  first = { key: rowsKey(view, grouping), rows: mailroom.rows(view, grouping, 0, pageSize) };
  // A mailroom that can't be opened is told when the list asks.
  first.rows.catch(() => undefined);
}

/** What was asked for early, once; null where it was for something else. */
export function takeFirstRows(key: string): Promise<RowWindow> | null {
  const taken = first?.key === key ? first.rows : null;
  first = null;
  return taken;
}
