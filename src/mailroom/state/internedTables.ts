// Tables of words that many messages share: places, sets of labels, traces. A message holds an index into each.
import { fixedPlaces, type Place } from '../../core/mail/place';
import type { JournalRecord } from '../storage/journal';
import type { Meta } from '../storage/stateRecords';
import type { StoredTraceLine } from '../storage/trace';

/** Where a message is that was deleted for good, or whose import was undone: nowhere that is shown. */
export const expunged = 0;

class Table<T> {
  private readonly index = new Map<string, number>();
  readonly items: T[] = [];
  private newFrom = 0;

  constructor(items: readonly T[]) {
    for (const item of items) this.add(item);
    this.newFrom = this.items.length;
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

  /** Adds what a journal record added; doing it twice is doing it once. */
  replay({ first, items }: { first: number; items: T[] }): void {
    for (const [i, item] of items.entries())
      if (first + i >= this.items.length) {
        this.items.push(item);
        this.index.set(JSON.stringify(item), this.items.length - 1);
      }
    this.newFrom = this.items.length;
  }
}

/** The three tables of a mailbox. */
export class Tables {
  readonly places: Table<string>;
  readonly labelSets: Table<string[]>;
  readonly traces: Table<StoredTraceLine[]>;

  constructor(meta?: Pick<Meta, 'places' | 'labelSets' | 'traces'>) {
    this.places = new Table(meta?.places ?? ['gone', ...fixedPlaces]);
    this.labelSets = new Table(meta?.labelSets ?? [[]]);
    this.traces = new Table(meta?.traces ?? [[]]);
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

  takeNew(): JournalRecord['intern'] {
    return { places: this.places.takeNew(), labelSets: this.labelSets.takeNew(), traces: this.traces.takeNew() };
  }

  giveBack(intern: JournalRecord['intern']): void {
    this.places.giveBack(intern.places.first);
    this.labelSets.giveBack(intern.labelSets.first);
    this.traces.giveBack(intern.traces.first);
  }

  replay(intern: JournalRecord['intern']): void {
    this.places.replay(intern.places);
    this.labelSets.replay(intern.labelSets);
    this.traces.replay(intern.traces);
  }
}
