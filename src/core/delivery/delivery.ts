// When mail is delivered: a message waits for its tray’s round, and then for whatever holds delivery back, the hold, a
// period of quiet, the timetable. Pure: the same setup, and the moment at which a message came, give the same answer.
// Times are milliseconds since 1970.
import { hoursOf, momentsOf } from './hours';
import type { DeliverySettings } from './settings';
import type { Tray } from './tray';
import { isZone, machineZone } from './week';
import type { Weekly } from './weekly';

/** What of a setup delivery goes by. */
export interface Delivering {
  delivery: DeliverySettings;
  trays: readonly Tray[];
}

/** What holds delivery back. */
export type Keeper = 'hold' | 'quiet' | 'timetable';

export interface Release {
  /** When it is delivered: the moment at which it came where nothing keeps it; Infinity where nothing by itself does. */
  at: number;
  /** When it would be without the hold: as of that moment it stands in the Inbox, so that a hold leaves nothing behind. */
  stands: number;
  /** When its tray’s round is: before that the tray alone keeps it. */
  round: number;
  /** What keeps it back last; null where nothing does. */
  by: Keeper | 'tray' | null;
}

/** A delivery that a setup holds. */
export interface Delivery {
  at: number;
  what: 'tray' | 'timetable';
  /** The tray’s name; of a fixed time, or of hours that begin, which. */
  name: string;
}

/** So many turns of quiet, hours and hold are followed; more no setup can have. */
const mostTurns = 2_000;

/** A setup made ready for telling when mail is delivered. */
export class Deliveries {
  readonly zone: string;
  private readonly rounds = new Map<string, { tray: Tray; moments: Weekly | null }>();
  private readonly hours: { open: Weekly; times: Weekly } | null;

  constructor(private readonly setup: Delivering) {
    const { timetable } = setup.delivery;
    this.zone = zoneOf(setup);
    this.hours = timetable.on ? hoursOf(timetable, this.zone) : null;
    for (const tray of setup.trays) this.rounds.set(tray.id, { tray, moments: momentsOf(tray.round, this.zone) });
  }

  /**
   * When a message is delivered that came at a moment. `tray`: the one in which it is, null for none or one that is gone;
   * `through`: whether it is let through a hold, quiet and timetable.
   */
  release(came: number, tray: string | null, through: boolean): Release {
    const round = this.round(came, tray);
    const byTray = { at: round, stands: round, round, by: round > came ? ('tray' as const) : null };
    if (through || round === Infinity) return byTray;
    const free = this.free(round);
    const kept = this.gate(round);
    return kept.by === null ? byTray : { at: kept.at, stands: free.at, round, by: kept.by };
  }

  /** The next moment after another at which a tray is delivered by its round; Infinity for never, the moment itself as mail comes. */
  private round(came: number, id: string | null): number {
    const known = id === null ? undefined : this.rounds.get(id);
    if (!known || known.tray.round.by === 'coming') return came;
    return known.moments?.after(Math.max(came, known.tray.since)) ?? Infinity;
  }

  /** When a tray is next delivered by its round alone after a moment; null where it is as mail comes, Infinity for never. */
  nextRound(id: string, after: number): number | null {
    const known = this.rounds.get(id);
    if (!known || known.tray.round.by === 'coming') return null;
    return known.moments?.after(after) ?? Infinity;
  }

  /**
   * The first moment from another on at which mail is delivered, and what kept it till then. What would have come while the
   * hold was on comes as it ends, within the hours of the timetable or not.
   */
  gate(from: number): { at: number; by: Keeper | null } {
    const { hold } = this.setup.delivery;
    const free = this.free(from);
    const end = hold?.until ?? Infinity;
    return hold && free.at >= hold.since && free.at < end ? { at: end, by: 'hold' } : free;
  }

  /** The same without the hold. */
  free(from: number): { at: number; by: Keeper | null } {
    let at = from;
    let by: Keeper | null = null;
    for (let turn = 0; turn < mostTurns && at < Infinity; turn++) {
      const now = at;
      const period = this.setup.delivery.quiet.find((one) => one.from <= now && now < one.until);
      if (period) {
        [at, by] = [period.until, 'quiet'];
        continue;
      }
      const next = this.nextOpen(at);
      if (next === at) break;
      [at, by] = [next, 'timetable'];
    }
    return { at, by };
  }

  /** What holds delivery back at a moment, and until when, Infinity for until it is lifted: the hold before all else. */
  keeper(now: number): { until: number; by: Keeper | null } {
    const { hold } = this.setup.delivery;
    const end = hold?.until ?? Infinity;
    if (hold && now >= hold.since && now < end) return { until: end, by: 'hold' };
    const { at, by } = this.free(now);
    return { until: at, by };
  }

  /** The first moment from another on at which the timetable delivers. */
  private nextOpen(from: number): number {
    if (!this.hours) return from;
    const open = this.hours.open.at(from)?.[0] ?? Infinity;
    const fixed = this.hours.times.at(from)?.[0] ?? Infinity;
    return Math.max(from, Math.min(open, fixed));
  }

  /** The deliveries between two moments, both among them, in their order: the rounds of trays, and the timetable’s. */
  between(from: number, to: number): Delivery[] {
    const out: Delivery[] = [];
    const all = (weekly: Weekly, what: Delivery['what'], name: string) => {
      for (let at = weekly.after(from - 1); at <= to; at = weekly.after(at)) out.push({ at, what, name });
    };
    for (const { tray, moments } of this.rounds.values()) if (moments) all(moments, 'tray', tray.name);
    if (this.hours) {
      all(this.hours.open, 'timetable', 'hours begin');
      all(this.hours.times, 'timetable', 'fixed time');
    }
    // Hours that go on over midnight begin once.
    const begins = ({ at, name }: Delivery) => name !== 'hours begin' || this.hours?.open.at(at - 1)?.[1] !== at;
    return out.filter(begins).sort((a, b) => a.at - b.at);
  }
}

/** The person’s time zone: that of the machine where none is set, or where the machine does not know it. */
const zoneOf = ({ delivery: { zone } }: Delivering): string => (zone !== null && isZone(zone) ? zone : machineZone());

const ready = new WeakMap<DeliverySettings, { trays: readonly Tray[]; deliveries: Deliveries }>();

/** A setup’s deliveries, made ready once for as long as it stays the same. */
export function deliveriesOf({ delivery, trays }: Delivering): Deliveries {
  const known = ready.get(delivery);
  // A machine that was carried elsewhere has another zone.
  if (known?.trays === trays && known.deliveries.zone === zoneOf({ delivery, trays })) return known.deliveries;
  const deliveries = new Deliveries({ delivery, trays });
  ready.set(delivery, { trays, deliveries });
  return deliveries;
}
