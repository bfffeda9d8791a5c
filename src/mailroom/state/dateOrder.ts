// All messages by date, newest first, also while they come in.
import { grown } from '../../core/data/grown';
import { filled, numbersWhere } from '../../core/data/rows';

/** More ids than a mailbox has (mailboxSize.ts): with seconds since 1970 above it, the number is still exact. */
const idSpan = 2 ** 21;
/** Dates beyond these, in milliseconds, are a forger's: 1901 to 2106. */
const [earliest, latest] = [-(2 ** 31) * 1_000, 2 ** 32 * 1_000];

/** All ids by date, newest first; of one moment the later id first. */
function ordered(date: Float64Array, count: number): Int32Array<ArrayBuffer> {
  const dates = date.subarray(0, count);
  if (count > idSpan || dates.some((time) => time < earliest || time >= latest))
    return numbersWhere(count, () => true).sort((a, b) => date[b] - date[a] || b - a);
  // Plain numbers sort ten times faster than with a comparison of our own: second and id in one number, then what
  // stands within the same second is put right.
  const keys = filled(Float64Array, dates, (time, id) => Math.floor(time / 1_000) * idSpan + id).sort();
  const order = new Int32Array(count);
  for (let i = 0; i < count; i++) {
    const key = keys[count - 1 - i];
    const id = key - Math.floor(key / idSpan) * idSpan;
    let at = i;
    for (; at > 0 && date[order[at - 1]] < date[id]; at--) order[at] = order[at - 1];
    order[at] = id;
  }
  return order;
}

export class DateOrder {
  /** All ids in their order, and room for more. */
  private room = new Int32Array(0);
  private length = 0;

  /** All ids, newest first, of one moment the later id first; only until the next ones are put in. */
  get newestFirst(): Int32Array {
    return this.room.subarray(0, this.length);
  }

  /** Orders all messages anew. `date`: of each, in milliseconds since 1970. */
  rebuild(date: Float64Array, count: number): void {
    this.room = ordered(date, count);
    this.length = count;
  }

  /**
   * Puts in more messages: each where it stands, and what stands behind it moves up once. No new row is made for it: while
   * half a million come in, batch by batch, those would be gigabytes.
   */
  insert(ids: Int32Array, date: Float64Array): void {
    const added = ids.slice().sort((a, b) => date[b] - date[a] || b - a);
    const length = this.length + added.length;
    if (length > this.room.length) this.room = grown(this.room, new Int32Array(Math.ceil(length * 1.5)));
    let end = this.length;
    for (let j = added.length - 1; j >= 0; j--) {
      const at = this.standingBefore(added[j], end, date);
      this.room.copyWithin(at + j + 1, at, end);
      this.room[at + j] = added[j];
      end = at;
    }
    this.length = length;
  }

  /** How many of the first `end` stand before a message. */
  private standingBefore(id: number, end: number, date: Float64Array): number {
    let [from, to] = [0, end];
    while (from < to) {
      const middle = (from + to) >>> 1;
      const other = this.room[middle];
      if (date[other] > date[id] || (date[other] === date[id] && other > id)) from = middle + 1;
      else to = middle;
    }
    return from;
  }
}
