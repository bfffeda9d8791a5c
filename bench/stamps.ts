// Stamps and the Agenda at size: a stamp of ten acts on a tenth of the mail, beside its acts one by one; 5,000 dated things.
import { newItem, type Item } from '../src/core/agenda/item';
import { timeIn } from '../src/core/agenda/wallTime';
import type { Action } from '../src/core/effects/effects';
import type { Stamp } from '../src/core/stamps/stamp';
import { act } from '../src/mailroom/commands/acts';
import { undo } from '../src/mailroom/commands/undo';
import { editItems } from '../src/mailroom/post/itemMail';
import { applyStamp } from '../src/mailroom/post/stamping';
import { agenda } from '../src/mailroom/questions/agenda';
import { dated } from '../src/mailroom/questions/dated';
import { rows } from '../src/mailroom/questions/rows';
import { median } from './delivery';
import { fillStore, messagesOfRealLength, timed } from './search';

const labels = [1, 2, 3, 4, 5, 6].map((n) => ({ id: `l${n}`, name: `Label ${n}`, ink: 'sea' as const }));
const acts: Action[] = [
  ...labels.slice(0, 4).map(({ id }): Action => ({ do: 'label', label: id })),
  ...labels.slice(4).map(({ id }): Action => ({ do: 'unlabel', label: id })),
  { do: 'ink', ink: 'moss' },
  { do: 'flag', due: 'next week' },
  { do: 'read' },
  { do: 'move', place: 'archive' },
];
const stamp: Stamp = { id: 's', name: 'Ten', icon: 'stamp', ink: null, acts };

/** Prints all figures. */
export async function benchStamps(count: number): Promise<void> {
  const { mailbox } = await fillStore([...messagesOfRealLength(count)]);
  await mailbox.commit({
    command: 'labels',
    by: 'you',
    says: 'Labels',
    setup: labels.map((item) => ({ list: 'labels' as const, id: item.id, item })),
  });
  const ids = Array.from({ length: Math.floor(count / 10) }, (_, n) => n * 10);
  const shown = () => rows(mailbox, { kind: 'place', place: 'inbox' }, { grouped: true, elsewhere: true }, 0, 40);
  await shown();
  const [stamped, undone, single]: number[][] = [[], [], []];
  for (let n = 0; n < 5; n++) {
    stamped.push(
      await timed(async () => {
        await applyStamp(mailbox, `stamp-${n}`, stamp, { ids }, true, { due: 0, zone: 0 }, new Set());
        await shown();
      }),
    );
    const { seq } = mailbox;
    undone.push(
      await timed(async () => {
        await undo(mailbox, `undo-${n}`, seq);
        await shown();
      }),
    );
    const from = mailbox.seq;
    single.push(
      await timed(async () => {
        for (const label of labels.slice(0, 4))
          await act(mailbox, `a${n}${label.id}`, { ids }, { do: 'label', label: label.id, value: true });
        await act(mailbox, `f${n}`, { ids }, { do: 'flag', value: true, due: Date.now() + 7e8 });
        await act(mailbox, `r${n}`, { ids }, { do: 'read', value: true });
        await act(mailbox, `m${n}`, { ids }, { do: 'move', place: 'archive' });
        await shown();
      }),
    );
    for (let at = mailbox.seq; at > from; at--) await undo(mailbox, `back-${n}-${at}`, at);
  }
  const now = Date.now();
  const items = Array.from({ length: 5_000 }, (_, n): Item => {
    const start = timeIn(now + (n - 2_500) * 1_800_000, 'Europe/Oslo');
    const item = newItem(`item-${n}`, n % 3 ? 'appointment' : 'task', now);
    return {
      ...item,
      title: `Thing ${n}`,
      ...(n % 3 ? { start, end: start } : { end: start }),
      repeats: n % 50 ? null : 'FREQ=WEEKLY',
    };
  });
  const made = await timed(() =>
    editItems(
      mailbox,
      'items',
      items.map((item) => ({ uid: item.uid, item })),
      'Made 5,000',
      null,
    ),
  );
  const day = 86_400_000;
  const ask = (from: number, to: number) =>
    timed(async () => {
      await Promise.all([agenda(mailbox), dated(mailbox, from, to)]);
    });
  const first = await ask(now - day, now + 92 * day);
  const [list, month]: number[][] = [[], []];
  for (let n = 0; n < 5; n++) {
    list.push(await ask(now - day, now + 92 * day));
    month.push(await ask(now - 20 * day, now + 22 * day));
  }
  for (const [name, value] of [
    [`stamp of ten acts on ${ids.length.toLocaleString('en')}, to its rows (goal 500)`, median(stamped)],
    ['  undone', median(undone)],
    ['  of the time of seven of its acts one by one, in per cent', (median(stamped) / median(single)) * 100],
    ['5,000 tasks and appointments taken in', made],
    ['  Agenda asked for the first time (goal 150 to paint)', first],
    ['  again', median(list)],
    ['  a month of it (goal 150 to paint)', median(month)],
  ] as const)
    process.stdout.write(
      `${name.padEnd(66)} ${name.includes('per cent') ? value.toFixed(0) : `${Math.round(value)} ms`}\n`,
    );
  mailbox.close();
}
