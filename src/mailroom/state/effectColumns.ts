// How the columns of the state hold what effects change: of each message its cells, read, changed and written back.
import type { Changes } from '../../core/effects/effects';
import type { Place } from '../../core/mail/place';
import { inks, type Ink } from '../../core/mail/label';
import type { Columns } from '../storage/stateRecords';
import { bit } from './columns';
import type { MailState } from './mailState';

/** An ink as its column has it: one more than its position, 0 for none. */
const inkNumber = (ink: Ink | null): number => (ink === null ? 0 : inks.indexOf(ink) + 1);

/** One message’s cells, as far as effects change them. */
export interface Cells {
  place: Place;
  labels: readonly string[];
  bits: number;
  /** When its flag is due, milliseconds since 1970; 0 for no date. */
  due: number;
  ink: number;
  /** The id of its tray; null for none. */
  tray: string | null;
}

/** What each effect does to the cells. */
const writers: { [E in keyof Required<Changes>]: (cells: Cells, change: NonNullable<Changes[E]>) => void } = {
  move: (cells, { to }) => (cells.place = to),
  label: (cells, added) => (cells.labels = [...cells.labels, ...added]),
  ink: (cells, { ink }) => (cells.ink = inkNumber(ink)),
  flag: (cells, { due }) => {
    cells.bits |= bit.flagged;
    cells.due = due ?? 0;
  },
  read: (cells) => (cells.bits |= bit.read),
  tray: (cells, { tray }) => (cells.tray = tray),
};

/** Changes cells as effects say. */
export function applyChanges(cells: Cells, changes: Changes): void {
  for (const name of Object.keys(changes) as (keyof Changes)[])
    (writers[name] as (cells: Cells, change: unknown) => void)(cells, changes[name]);
}

/** Gathers the cells of many messages into columns. */
export class CellColumns {
  private readonly place: Uint16Array;
  private readonly labels: Uint16Array;
  private readonly bits: Uint8Array;
  private readonly due: Float64Array;
  private readonly ink: Uint8Array;
  private readonly tray: Uint16Array;

  constructor(
    private readonly tables: MailState['tables'],
    count: number,
  ) {
    this.place = new Uint16Array(count);
    this.labels = new Uint16Array(count);
    this.bits = new Uint8Array(count);
    this.due = new Float64Array(count);
    this.ink = new Uint8Array(count);
    this.tray = new Uint16Array(count);
  }

  /** Puts in the cells of the `i`th message. */
  put(i: number, cells: Cells): void {
    this.place[i] = this.tables.placeIndex(cells.place);
    this.labels[i] = this.tables.labelSetIndex(cells.labels);
    this.bits[i] = cells.bits;
    this.due[i] = cells.due;
    this.ink[i] = cells.ink;
    this.tray[i] = this.tables.trayIndex(cells.tray);
  }

  /** The bits that were put in so far, one number for each message. */
  get bitsSoFar(): Uint8Array {
    return this.bits;
  }

  get columns() {
    const { place, labels, bits, due, ink, tray } = this;
    return { place, labels, bits, due, ink, tray } satisfies Columns;
  }
}

/** The cells of a message that is here. */
export function cellsOf({ columns, tables }: Pick<MailState, 'columns' | 'tables'>, id: number): Cells {
  return {
    place: tables.place(columns.place[id]),
    labels: tables.labelSets.items[columns.labels[id]],
    bits: columns.bits[id],
    due: columns.due[id],
    ink: columns.ink[id],
    tray: tables.trays.items[columns.tray[id]] || null,
  };
}
