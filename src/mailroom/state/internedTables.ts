// Tables of words that many messages share: places, sets of labels, traces, trays. A message holds an index into each.
import { fixedPlaces, type Place } from '../../core/mail/place';
import type { JournalRecord } from '../storage/journal';
import type { Meta } from '../storage/stateRecords';
import type { StoredTraceLine } from '../storage/trace';

/** Where a message is that was deleted for good, or whose import was undone: nowhere that is shown. */
export const expunged = 0;

/** More different words than this no table holds. */
const mostItems = 1 << 20;

/** Words that are kept once, each by its index. */
export class Table<T> {
  private readonly index = new Map<string, number>();
  readonly items: T[] = [];
  private newFrom = 0;

  constructor(items: readonly T[]) {
    // As they stand, each at its index: what fills a hole may stand there more than once.
    for (const item of items) this.put(item);
    this.newFrom = this.items.length;
  }

  private put(item: T): void {
    const key = JSON.stringify(item);
    if (!this.index.has(key)) this.index.set(key, this.items.length);
    this.items.push(item);
  }

  /** The index of an item, which is added if it is new. */
  add(item: T): number {
    const key = JSON.stringify(item);
    let at = this.index.get(key);
    if (at === undefined) {
      at = this.items.length;
      this.items.push(item);
      this.index.set(key, at);
    }
    return at;
  }

  /** What was added since the last call: it goes into the journal with the command that needs it. */
  takeNew(): { first: number; items: T[] } {
    const first = this.newFrom;
    this.newFrom = this.items.length;
    return { first, items: this.items.slice(first) };
  }

  /** Takes back what {@link takeNew} gave, when it could not be written. */
  giveBack(first: number): void {
    this.newFrom = Math.min(this.newFrom, first);
  }

  /**
   * Adds what a journal record added, each at its own index; doing it twice is doing it once. Where a record before it is
   * lost, `filler` stands for what that one added.
   */
  replay({ first, items }: { first: number; items: T[] }, filler: T): void {
    while (this.items.length < Math.min(first, mostItems)) this.items.push(filler);
    for (const [i, item] of items.entries()) if (first + i === this.items.length) this.put(item);
    this.newFrom = this.items.length;
  }
}

/** The columns whose values are indexes into the tables, for so many messages. */
interface Indexes {
  place: Uint16Array;
  labels: Uint16Array;
  trace: Uint32Array;
  tray: Uint16Array;
  count: number;
}

/** The tables of a mailbox. */
export class Tables {
  readonly places: Table<string>;
  readonly labelSets: Table<string[]>;
  readonly traces: Table<StoredTraceLine[]>;
  /** Ids of trays; the first stands for none. */
  readonly trays: Table<string>;

  constructor(meta?: Pick<Meta, 'places' | 'labelSets' | 'traces' | 'trays'>) {
    this.places = new Table(meta?.places ?? ['gone', ...fixedPlaces]);
    this.labelSets = new Table(meta?.labelSets ?? [[]]);
    this.traces = new Table(meta?.traces ?? [[]]);
    this.trays = new Table(meta?.trays ?? ['']);
  }

  place(index: number): Place {
    return this.places.items[index] as Place;
  }

  placeIndex(place: Place): number {
    return this.places.add(place);
  }

  /** The index of a set of labels, in whatever order they are given. */
  labelSetIndex(labels: readonly string[]): number {
    return this.labelSets.add([...labels].sort());
  }

  trayIndex(tray: string | null): number {
    return this.trays.add(tray ?? '');
  }

  takeNew(): JournalRecord['intern'] {
    const trays = this.trays.takeNew();
    return {
      places: this.places.takeNew(),
      labelSets: this.labelSets.takeNew(),
      traces: this.traces.takeNew(),
      ...(trays.items.length > 0 ? { trays } : {}),
    };
  }

  giveBack(intern: JournalRecord['intern']): void {
    this.places.giveBack(intern.places.first);
    this.labelSets.giveBack(intern.labelSets.first);
    this.traces.giveBack(intern.traces.first);
    if (intern.trays) this.trays.giveBack(intern.trays.first);
  }

  replay(intern: JournalRecord['intern']): void {
    this.places.replay(intern.places, 'inbox');
    this.labelSets.replay(intern.labelSets, []);
    this.traces.replay(intern.traces, []);
    if (intern.trays) this.trays.replay(intern.trays, '');
  }

  /** Sets right what names nothing: to the Inbox, no labels, no trace. Returns for how many of the first messages it had to. */
  setRight({ place, labels, trace, tray, count }: Indexes): number {
    const inbox = this.placeIndex('inbox');
    let n = 0;
    for (let id = 0; id < count; id++) {
      const noPlace = place[id] >= this.places.items.length;
      const noLabels = labels[id] >= this.labelSets.items.length;
      const noTrace = trace[id] >= this.traces.items.length;
      if (tray[id] >= this.trays.items.length) tray[id] = 0;
      if (!noPlace && !noLabels && !noTrace) continue;
      if (noPlace) place[id] = inbox;
      if (noLabels) labels[id] = 0;
      if (noTrace) trace[id] = 0;
      n++;
    }
    return n;
  }
}
