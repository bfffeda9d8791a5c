// `npm run bench -- --delivery [COUNT]`: trays, the hold and the timetable over a mailbox of 100,000: dry runs, 10,000 held
// messages delivered at once and taken back, and opening a mailbox with 50 trays in which 5,000 wait beside one without.
import { freshTimetable, painted } from '../src/core/delivery/timetable';
import type { Tray } from '../src/core/delivery/tray';
import { weekdays } from '../src/core/delivery/week';
import type { SetupEdit } from '../src/core/line/setupEdit';
import { changeSetup } from '../src/mailroom/commands/changeSetup';
import { hold, lift } from '../src/mailroom/commands/delivering';
import { undo } from '../src/mailroom/commands/undo';
import { deliveryDryRun, holdDryRun } from '../src/mailroom/questions/deliveryDryRun';
import { overview } from '../src/mailroom/questions/overview';
import { rows } from '../src/mailroom/questions/rows';
import { here } from '../src/mailroom/reading/here';
import { Mailbox } from '../src/mailroom/service/mailbox';
import { memoryStore } from '../src/mailroom/storage/recordStore';
import { fillStore, messagesOfRealLength, timed } from './search';

const singly = { grouped: false, elsewhere: true };
const inbox = { kind: 'place', place: 'inbox' } as const;
const post = { on: false, lastChecked: null, arrived: 0, error: null, perMinute: 0, paused: false };

export const median = (times: number[]): number => times.toSorted((a, b) => a - b)[Math.floor(times.length / 2)];

const trayOf = (n: number): Tray => ({
  id: `tray-${n}`,
  name: `Tray ${n}`,
  when: { match: 'any', of: [{ field: 'from', how: 'contains', text: String.fromCharCode(97 + (n % 26)) }] },
  labels: [],
  round: { by: 'hours', days: ['MO'], times: ['07:00'] },
  since: 0,
});
const edit = (item: Tray): SetupEdit => ({ list: 'trays', id: item.id, item });

/** What of a page a delivery comes to: its first rows, and the counts on the left. */
const shown = (mailbox: Mailbox) => async () => {
  await rows(mailbox, inbox, singly, 0, 60);
  overview(mailbox, post, 0);
};

async function dryRuns(mailbox: Mailbox) {
  let timetable = { ...freshTimetable, on: true };
  for (const day of weekdays) timetable = painted(timetable, day, 18, 24, true);
  const item = { ...mailbox.setup.delivery, timetable };
  const tray = () => deliveryDryRun(mailbox, [edit(trayOf(4))], { in: 'tray', tray: 'tray-4' });
  const hours = () => deliveryDryRun(mailbox, [{ list: 'delivery', id: 'delivery', item }], { in: 'hold' });
  // The first one reads what all of them need.
  await tray();
  const figures: [string, number][] = [];
  for (const [name, run] of [
    ['dry run of a tray (goal 1,000 ms)', tray],
    ['dry run of a timetable (goal 1,000 ms)', hours],
    ['dry run of a hold of an hour (goal 1,000 ms)', () => holdDryRun(mailbox, 3_600_000)],
  ] as const) {
    const times: number[] = [];
    for (let n = 0; n < 3; n++) times.push(await timed(run));
    figures.push([name, median(times)]);
  }
  return figures;
}

async function delivering(mailbox: Mailbox): Promise<[string, number][]> {
  const ids = Int32Array.from({ length: Math.min(10_000, mailbox.columns.count) }, (_, id) => id);
  const [lifts, undos]: number[][] = [[], []];
  for (let n = 0; n < 5; n++) {
    await hold(mailbox, `hold-${n}`, null);
    const after = {
      place: mailbox.tables.placeIndex('held'),
      placedAt: mailbox.now(),
      until: 0,
      waitsFrom: 0,
      tray: 0,
    };
    await mailbox.commit({ command: `held-${n}`, by: 'you', says: 'Held', ids, after });
    await shown(mailbox)();
    let seq = 0;
    lifts.push(
      await timed(async () => {
        seq = (await lift(mailbox, `lift-${n}`)).seq ?? 0;
        await shown(mailbox)();
      }),
    );
    undos.push(
      await timed(async () => {
        await undo(mailbox, `undo-${n}`, seq);
        await shown(mailbox)();
      }),
    );
    await lift(mailbox, `lift-again-${n}`);
  }
  const n = ids.length.toLocaleString('en');
  return [
    [`${n} held delivered, to rows and counts (goal 300 ms)`, median(lifts)],
    ['  undone, to rows and counts', median(undos)],
  ];
}

/** Opening, to the first rows, without trays and with 50 in which 5,000 wait; one after the other, so that both meet the same machine. */
async function opening(records: Map<string, unknown>, mailbox: Mailbox): Promise<[string, number][]> {
  await mailbox.flush();
  const without = new Map(records);
  await changeSetup(
    mailbox,
    'trays',
    Array.from({ length: 50 }, (_, n) => edit(trayOf(n))),
    'Trays',
    false,
  );
  const ids = Int32Array.from({ length: Math.min(5_000, mailbox.columns.count) }, (_, id) => id * 3);
  const tray = Uint16Array.from(ids, (_, n) => mailbox.tables.trayIndex(`tray-${n % 50}`));
  const after = { place: mailbox.tables.placeIndex('held'), placedAt: mailbox.now(), until: 0, waitsFrom: 0, tray };
  await mailbox.commit({ command: 'wait', by: 'you', says: 'Wait', ids, after });
  await mailbox.flush();
  const open = (from: Map<string, unknown>) =>
    timed(async () => {
      const opened = await Mailbox.open(memoryStore(new Map(from)), Date.now, () => undefined, here);
      await shown(opened)();
      opened.close();
    });
  const [plain, trays]: number[][] = [[], []];
  for (let n = 0; n < 15; n++) {
    plain.push(await open(without));
    trays.push(await open(records));
  }
  return [
    ['opening to rows and counts, without trays', median(plain)],
    ['  with 50 trays and 5,000 waiting', median(trays)],
    ['  of the time without, in per cent (goal 105)', (median(trays) / median(plain)) * 100],
  ];
}

/** Prints all figures. */
export async function benchDelivery(count: number): Promise<void> {
  const { mailbox, records } = await fillStore([...messagesOfRealLength(count)]);
  // Dated as if they had come over the last months, so that the dry runs have something to try.
  const ids = Int32Array.from({ length: count }, (_, id) => id);
  const step = (90 * 86_400_000) / count;
  const date = Float64Array.from(ids, (id) => mailbox.now() - (count - id) * step);
  await mailbox.commit({ command: 'dates', by: 'you', says: 'Dated', ids, after: { date } });
  mailbox.views.rebuild();
  await mailbox.flush();
  const figures = [...(await dryRuns(mailbox)), ...(await delivering(mailbox)), ...(await opening(records, mailbox))];
  process.stdout.write(`${count.toLocaleString('en')} messages\n`);
  for (const [name, value] of figures)
    process.stdout.write(
      `${name.padEnd(60)} ${name.includes('per cent') ? value.toFixed(1) : `${Math.round(value)} ms`}\n`,
    );
  mailbox.close();
}
