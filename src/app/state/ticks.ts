// What is ticked: the messages that the ticked rows held when they were ticked, so that an act goes to what the person saw,
// whatever comes in meanwhile.
import type { RowsHeld } from '../../mailroom/border/held';
import type { Row } from '../../mailroom/border/rows';

/** Of each ticked row its messages, by its key. */
export type Ticks = ReadonlyMap<number, readonly number[]>;

export const noTicks: Ticks = new Map();

/** By which a row is ticked: its conversation, where it stands for one, else its message. */
export const rowKey = ({ id, conversation, whole }: Row): number => (whole ? conversation : id);

/** The messages for which a row stands. */
export const rowMessages = ({ id, whole }: Row): readonly number[] => whole?.ids ?? [id];

/** How much of a row is ticked: a part of it, where more has come into it since, or only some of it was meant. */
export type Ticked = 'all' | 'some' | 'none';

export function tickedOf(ticks: Ticks, row: Row): Ticked {
  const ids = ticks.get(rowKey(row));
  if (!ids) return 'none';
  const those = new Set(ids);
  return rowMessages(row).every((id) => those.has(id)) ? 'all' : 'some';
}

/** The rows that the mailroom told of, all ticked. */
export function ticksOf({ keys, ends, ids }: RowsHeld): Ticks {
  const out = new Map<number, readonly number[]>();
  for (const [n, key] of keys.entries()) out.set(key, [...ids.subarray(n === 0 ? 0 : ends[n - 1], ends[n])]);
  return out;
}

export const bothTicked = (some: Ticks, more: Ticks): Ticks => new Map([...some, ...more]);

/** With a row ticked or not; the others stay. */
export function withRow(ticks: Ticks, row: Row, on: boolean): Ticks {
  const out = new Map(ticks);
  if (on) out.set(rowKey(row), rowMessages(row));
  else out.delete(rowKey(row));
  return out;
}

/** All messages that are ticked. */
export const tickedMessages = (ticks: Ticks): number[] => [...new Set([...ticks.values()].flat())];

/** What is still ticked where only some of the messages are there still. */
export function stillTicked(ticks: Ticks, there: ReadonlySet<number>): Ticks {
  const out = new Map<number, readonly number[]>();
  for (const [key, ids] of ticks) {
    const left = ids.filter((id) => there.has(id));
    if (left.length > 0) out.set(key, left);
  }
  return out;
}

/** Whether all for which a row stands is among some messages. */
export const isAmong = (row: Row, ids: ReadonlySet<number>): boolean => rowMessages(row).every((id) => ids.has(id));
