// The state of all messages in memory, as columns: a hundred thousand messages are a few arrays, not objects.
import { type Column, type Columns, type StatePack } from '../storage/stateRecords';
import { statePackSize } from '../storage/keys';
import { grown } from '../../core/data/grown';

/** The bits of a message's state. */
export const bit = {
  read: 1,
  flagged: 2,
  /** Put where it is by the person, not by the line. */
  byHand: 4,
  /** Its conversation is silenced. */
  silenced: 8,
  /** The person said that it is junk, or that it is not: the junk filter learns from either. */
  markedJunk: 16,
  markedGood: 32,
  /** What it was flagged for is done. */
  done: 64,
} as const;

export type ColumnName = keyof Columns;

/** What each column is made of. */
export const columnArrays = {
  place: Uint16Array,
  placedAt: Float64Array,
  bits: Uint8Array,
  labels: Uint16Array,
  trace: Uint32Array,
  date: Float64Array,
  due: Float64Array,
  ink: Uint8Array,
  until: Float64Array,
  waitsFrom: Uint32Array,
  delivered: Float64Array,
  tray: Uint16Array,
} as const;

export const columnNames = Object.keys(columnArrays) as ColumnName[];

/** Of some columns those in which anything stands. */
function usedOnly<C extends Record<string, Float64Array | Uint32Array | Uint16Array>>(columns: C): Partial<C> {
  return Object.fromEntries(
    Object.entries(columns).filter(([, values]) => values.some((value) => value !== 0)),
  ) as Partial<C>;
}

/** Growing columns, one value each for every message that ever came in. */
export class StateColumns {
  count = 0;
  place = new Uint16Array(statePackSize);
  placedAt = new Float64Array(statePackSize);
  bits = new Uint8Array(statePackSize);
  labels = new Uint16Array(statePackSize);
  trace = new Uint32Array(statePackSize);
  date = new Float64Array(statePackSize);
  /** When what is flagged is due, milliseconds since 1970; 0 for no date. */
  due = new Float64Array(statePackSize);
  /** One more than the position of the ink that a rule gave its row; 0 for none. */
  ink = new Uint8Array(statePackSize);
  /** When what is held comes back, milliseconds since 1970; 0 where nothing brings it back. */
  until = new Float64Array(statePackSize);
  /** How many messages there were when it was put off: a later one that answers brings it back. */
  waitsFrom = new Uint32Array(statePackSize);
  /** When it was delivered to the Inbox, where that was later than it came; milliseconds since 1970, 0 where it was not. */
  delivered = new Float64Array(statePackSize);

  /** The tray in which it is, as an index into the tables; 0 for none. */
  tray = new Uint16Array(statePackSize);

  /** The time by which a message stands in the Inbox: when it was delivered, or else its date; milliseconds since 1970. */
  stands(id: number): number {
    return this.delivered[id] || this.date[id];
  }

  /** Makes room for `count` messages in all. */
  grow(count: number): void {
    this.count = Math.max(this.count, count);
    if (count <= this.place.length) return;
    const size = Math.ceil(Math.max(count, this.place.length * 1.5) / statePackSize) * statePackSize;
    this.place = grown(this.place, new Uint16Array(size));
    this.placedAt = grown(this.placedAt, new Float64Array(size));
    this.bits = grown(this.bits, new Uint8Array(size));
    this.labels = grown(this.labels, new Uint16Array(size));
    this.trace = grown(this.trace, new Uint32Array(size));
    this.date = grown(this.date, new Float64Array(size));
    this.due = grown(this.due, new Float64Array(size));
    this.ink = grown(this.ink, new Uint8Array(size));
    this.until = grown(this.until, new Float64Array(size));
    this.waitsFrom = grown(this.waitsFrom, new Uint32Array(size));
    this.delivered = grown(this.delivered, new Float64Array(size));
    this.tray = grown(this.tray, new Uint16Array(size));
  }

  /** Takes all over from other columns. */
  copy(from: StateColumns): void {
    for (const name of columnNames) Object.assign(this, { [name]: from[name].slice() });
    this.count = from.count;
  }

  /** The values that some messages have in one column. */
  pick(name: ColumnName, ids: Int32Array): Exclude<Column, number> {
    const from = this[name];
    const out = from.slice(0, 0).constructor as new (length: number) => typeof from;
    const values = new out(ids.length);
    for (let i = 0; i < ids.length; i++) values[i] = from[ids[i]];
    return values;
  }

  /** Sets what a change says. Absolute values: doing it twice is doing it once. */
  apply(ids: Int32Array, values: Columns): void {
    for (const name of columnNames) {
      const value = values[name];
      if (value === undefined) continue;
      const into = this[name];
      if (typeof value === 'number') for (let i = 0; i < ids.length; i++) into[ids[i]] = value;
      else for (let i = 0; i < ids.length; i++) into[ids[i]] = value[i];
    }
  }

  /** The pack of that number, ready to be stored. */
  pack(pack: number): StatePack {
    const from = pack * statePackSize;
    const to = from + statePackSize;
    return {
      place: this.place.slice(from, to),
      placedAt: this.placedAt.slice(from, to),
      bits: this.bits.slice(from, to),
      labels: this.labels.slice(from, to),
      trace: this.trace.slice(from, to),
      date: this.date.slice(from, to),
      due: this.due.slice(from, to),
      ink: this.ink.slice(from, to),
      ...usedOnly({
        until: this.until.slice(from, to),
        waitsFrom: this.waitsFrom.slice(from, to),
        delivered: this.delivered.slice(from, to),
        tray: this.tray.slice(from, to),
      }),
    };
  }

  /** Takes a stored pack back. */
  load(pack: number, stored: StatePack): void {
    const at = pack * statePackSize;
    this.grow(Math.max(this.count, at));
    if (at + statePackSize > this.place.length) {
      const { count } = this;
      this.grow(at + statePackSize);
      this.count = count;
    }
    for (const name of columnNames) {
      const values = stored[name];
      if (values) this[name].set(values.subarray(0, statePackSize), at);
      else this[name].fill(0, at, at + statePackSize);
    }
  }
}
