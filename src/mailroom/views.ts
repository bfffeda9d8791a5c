// Views: which messages a place or label holds, newest first; and the counts of all of them.
import type { View } from './api';
import { bit, type StateColumns } from './columns';
import { gone, type Tables } from './tables';

/** More ids than a mailbox has: with seconds since 1970 above it, the number is still exact. */
const idSpan = 2 ** 21;
/** Dates beyond these, in milliseconds, are a forger's: 1901 to 2106. */
const [earliest, latest] = [-(2 ** 31) * 1_000, 2 ** 32 * 1_000];

/** All ids by date, newest first; of one moment the later id first. */
function ordered(date: Float64Array, count: number): Int32Array<ArrayBuffer> {
  const dates = date.subarray(0, count);
  if (count > idSpan || dates.some((time) => time < earliest || time >= latest))
    return Int32Array.from(dates, (_, id) => id).sort((a, b) => date[b] - date[a] || b - a);
  // Plain numbers sort ten times faster than with a comparison of our own: second and id in one number, then what
  // stands within the same second is put right.
  const keys = Float64Array.from(dates, (time, id) => Math.floor(time / 1_000) * idSpan + id).sort();
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

export class Views {
  /** All ids, newest first. */
  private order = new Int32Array(0);
  private readonly lists = new Map<string, Int32Array>();

  constructor(
    private readonly columns: StateColumns,
    private readonly tables: Tables,
    /** Whether a message is damaged. */
    private readonly damaged: ReadonlySet<number>,
  ) {}

  /** Orders all messages anew. */
  rebuild(): void {
    const { date, count } = this.columns;
    this.order = ordered(date, count);
    this.lists.clear();
  }

  /** Takes in messages that arrived: they are merged into the order. */
  insert(ids: Int32Array): void {
    const { date } = this.columns;
    const added = ids.slice().sort((a, b) => date[b] - date[a] || b - a);
    const merged = new Int32Array(this.order.length + added.length);
    let i = 0;
    let j = 0;
    for (let at = 0; at < merged.length; at++) {
      const takeNew =
        j < added.length &&
        (i >= this.order.length ||
          date[added[j]] > date[this.order[i]] ||
          (date[added[j]] === date[this.order[i]] && added[j] > this.order[i]));
      merged[at] = takeNew ? added[j++] : this.order[i++];
    }
    this.order = merged;
    this.lists.clear();
  }

  /** Forgets what was computed, after any change. */
  changed(): void {
    this.lists.clear();
  }

  /** The ids of a view, newest first. */
  list(view: View): Int32Array {
    const key = JSON.stringify(view);
    let list = this.lists.get(key);
    if (!list) {
      list = this.order.filter(this.test(view));
      this.lists.set(key, list);
    }
    return list;
  }

  private test(view: View): (id: number) => boolean {
    const { place, labels } = this.columns;
    if (view.kind === 'place') {
      const wanted = this.tables.places.items.indexOf(view.place);
      return (id) => place[id] === wanted;
    }
    if (view.kind === 'damaged') return (id) => place[id] !== gone && this.damaged.has(id);
    const holding = new Set(
      this.tables.labelSets.items.flatMap((set, index) => (set.includes(view.label) ? [index] : [])),
    );
    return (id) => place[id] !== gone && holding.has(labels[id]);
  }

  /** Totals and unread of each place by its index, and totals of each set of labels by its index. */
  counts(): { total: Int32Array; unread: Int32Array; labelSets: Int32Array } {
    const { place, bits, labels, count } = this.columns;
    const total = new Int32Array(this.tables.places.items.length);
    const unread = new Int32Array(this.tables.places.items.length);
    const labelSets = new Int32Array(this.tables.labelSets.items.length);
    for (let id = 0; id < count; id++) {
      total[place[id]]++;
      if (!(bits[id] & bit.read)) unread[place[id]]++;
      if (place[id] !== gone) labelSets[labels[id]]++;
    }
    return { total, unread, labelSets };
  }

  /** The newest messages back to a moment, for counts of the day. */
  *since(time: number): Generator<number> {
    for (const id of this.order) {
      if (this.columns.date[id] < time) return;
      yield id;
    }
  }
}
