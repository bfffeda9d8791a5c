// Rows that stand still: what comes in or leaves above moves nothing that is in sight.

/** A row in sight: its key, and where it stands in the list. */
export interface Standing {
  key: number;
  index: number;
}

/**
 * By how many rows the list has to be scrolled so that what was in sight stays where it was. It goes by the first row that
 * moved as another did too: a conversation in which something new was said leaves its place alone. 0 where nothing of it
 * is there any more. `indexOf`: where a row stands now, -1 where it is not known.
 */
export function shiftOf(inSight: readonly Standing[], indexOf: (key: number) => number): number {
  const shifts = inSight.flatMap(({ key, index }) => {
    const now = indexOf(key);
    return now < 0 ? [] : [now - index];
  });
  return shifts.find((shift, at) => shifts.some((other, n) => n !== at && other === shift)) ?? shifts[0] ?? 0;
}
