// The dry run of a tray, a timetable or a hold: over the last weeks, how many messages would have waited, when they would
// have come, and which of them the person in fact answered or flagged before that.
import type { Decided } from '../../core/effects/effect';
import { Line } from '../../core/line/decide';
import { edited, type SetupEdit } from '../../core/line/setupEdit';
import type { Setup } from '../../core/line/setup';
import { placeTraits } from '../../core/mail/place';
import type { DeliveryReport, DeliveryReportResult, WaitingWhere } from '../border/trays';
import { arrivals, Asked, type SortedMail } from '../search/candidates';
import type { Sorting, Viewing } from '../search/searching';
import type { Loading, Logged } from '../state/mailState';
import { rowOf } from './row';

type Source = SortedMail & Sorting & Viewing & Pick<Logged, 'heads'> & Pick<Loading, 'journalReady'>;

const day = 86_400_000;
/** So many days back it is tried. */
export const daysTried = 28;
/** What was answered or flagged within so long would have been missed. */
const soon = 2 * 3_600_000;
const mostShown = { deliveries: 200, longest: 5, sooner: 50 };

/** What the person answered or flagged soon after it came, and how long after: by its number. */
function actedSoon({ columns, derived, heads }: Source, from: number) {
  const out = new Map<number, { did: 'answered' | 'flagged'; after: number }>();
  const note = (id: number, did: 'answered' | 'flagged', at: number) => {
    const after = at - columns.date[id];
    const before = out.get(id);
    if (after >= 0 && after <= soon && (!before || after < before.after)) out.set(id, { did, after });
  };
  for (let id = 0; id < columns.count; id++) {
    if (columns.date[id] < from || !derived.isOwn(id)) continue;
    const above = derived.parent(id);
    if (above !== null && !derived.isOwn(above)) note(above, 'answered', columns.date[id]);
  }
  for (const head of heads)
    if (head.by === 'you' && head.undoes === null && head.at >= from && head.kinds.includes('flagged'))
      for (const id of head.ids ?? []) note(id, 'flagged', head.at);
  return out;
}

/** A message that would have waited. */
interface Waits {
  id: number;
  until: number;
}

function reportOf(mailbox: Source, came: number, waits: readonly Waits[], from: number): DeliveryReport {
  const { columns } = mailbox;
  const acted = actedSoon(mailbox, from);
  const deliveries = new Map<number, number>();
  for (const { until } of waits) deliveries.set(until, (deliveries.get(until) ?? 0) + 1);
  const sooner = waits.flatMap(({ id, until }) => {
    const did = acted.get(id);
    return did && until > columns.date[id] + did.after ? [{ id, until, ...did }] : [];
  });
  const longest = [...waits].sort((a, b) => b.until - columns.date[b.id] - (a.until - columns.date[a.id]));
  const moment = (until: number) => (until === Infinity ? null : until);
  return {
    days: daysTried,
    came,
    waits: waits.length,
    never: deliveries.get(Infinity) ?? 0,
    deliveries: [...deliveries]
      .filter(([at]) => at < Infinity)
      .sort((a, b) => b[0] - a[0])
      .slice(0, mostShown.deliveries)
      .map(([at, count]) => ({ at, count })),
    longest: longest
      .slice(0, mostShown.longest)
      .map(({ id, until }) => ({ row: rowOf(mailbox, id), until: moment(until) })),
    sooner: sooner
      .slice(0, mostShown.sooner)
      .map(({ id, until, did, after }) => ({ row: rowOf(mailbox, id), until: moment(until), did, after })),
    soonerTotal: sooner.length,
  };
}

/** Whether a message came from somebody and could have come to the Inbox: not what is junk, thrown away or the person’s own. */
function* received(mailbox: Source, from: number, now: number) {
  for (const candidate of arrivals(mailbox, from))
    if (
      mailbox.columns.date[candidate.id] <= now &&
      !mailbox.derived.isOwn(candidate.id) &&
      placeTraits(candidate.place).counted
    )
      yield candidate;
}

/** Whether what was decided is that a message waits there. */
function waitsThere({ place, tray, putOff }: Decided, where: WaitingWhere): boolean {
  if (place !== 'held') return false;
  if (where.in === 'put off' || putOff !== null) return where.in === 'put off' && putOff !== null;
  return where.in === 'tray' ? tray === where.tray : tray === null;
}

/** What of the last weeks would have waited there under a setup. */
function tried(mailbox: Source, setup: Setup, where: WaitingWhere, from: number, now: number) {
  const asked = new Asked(mailbox, setup, now);
  const line = new Line(setup, (rules) => asked.matcher(rules));
  const waits: Waits[] = [];
  let came = 0;
  for (const candidate of received(mailbox, from, now)) {
    came++;
    const decided = line.decided(candidate.envelope, candidate);
    if (decided.until !== null && waitsThere(decided, where)) waits.push({ id: candidate.id, until: decided.until });
  }
  return { came, waits };
}

/**
 * What changed trays, rules or delivery would have done to what came in the last weeks: what would have waited there. Ends early where `wanted` says that nobody waits any more.
 */
export async function deliveryDryRun(
  mailbox: Source,
  edits: SetupEdit[],
  where: WaitingWhere,
  wanted: () => boolean = () => true,
): Promise<DeliveryReportResult> {
  const next = edited(mailbox.setup, edits);
  if (!next.ok) return { ok: false, error: next.error };
  await Promise.all([mailbox.readyToSort(next.setup, wanted), mailbox.journalReady()]);
  if (!wanted()) return { ok: false, error: 'Another question came in between.' };
  const now = mailbox.now();
  const from = now - daysTried * day;
  // A hold that is on now would have held nothing then, and a round counts as if it had always been so.
  const { delivery, trays } = next.setup;
  const then: Setup = {
    ...next.setup,
    delivery: { ...delivery, hold: null },
    trays: trays.map((one) => ({ ...one, since: Math.min(one.since, from) })),
  };
  const { came, waits } = tried(mailbox, then, where, from, now);
  return { ok: true, report: reportOf(mailbox, came, waits, from) };
}

/** What a hold of so many milliseconds, at this time of the week, would have held back in the last weeks, with what is let through. */
export async function holdDryRun(mailbox: Source, length: number): Promise<DeliveryReport> {
  await Promise.all([mailbox.readyToSort(mailbox.setup), mailbox.journalReady()]);
  const now = mailbox.now();
  const from = now - daysTried * day;
  const waits: Waits[] = [];
  let came = 0;
  for (let since = now - 7 * day; since >= from; since -= 7 * day) {
    const until = since + length;
    const { delivery } = mailbox.setup;
    const alone = { ...delivery, timetable: { ...delivery.timetable, on: false }, quiet: [], hold: { since, until } };
    const run = tried(mailbox, { ...mailbox.setup, delivery: alone }, { in: 'hold' }, since, Math.min(until, now));
    came += run.came;
    waits.push(...run.waits);
  }
  return reportOf(mailbox, came, waits, from);
}
