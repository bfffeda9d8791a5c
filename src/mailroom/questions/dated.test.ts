// Tasks and appointments as the Agenda shows them: late, due, told of, in one another's way; stored and read again.
import { newItem, type Item } from '../../core/agenda/item';
import { editItems } from '../post/itemMail';
import { clashesOf } from './invitation';
import { memoryStore } from '../storage/recordStore';
import { fill, openMailbox, testTime } from '../testing/testing';
import { dated, itemsFallenDue, nextItemReminder } from './dated';

const hour = 3_600_000;
const day = 24 * hour;
const at = (moment: number) => ({ at: new Date(moment).toISOString().slice(0, 19), zone: 'UTC' });
const on = (moment: number) => ({ at: new Date(moment).toISOString().slice(0, 10), zone: null });
const task = (uid: string, some: Partial<Item>): Item => ({ ...newItem(uid, 'task', testTime), title: uid, ...some });
const meeting = (uid: string, from: number, to: number, some: Partial<Item> = {}): Item => ({
  ...newItem(uid, 'appointment', testTime),
  title: uid,
  start: at(from),
  end: at(to),
  ...some,
});

const items: Item[] = [
  task('late', { end: on(testTime - 2 * day) }),
  task('today', { end: on(testTime), reminder: 0, messages: ['3@harbour.example', 'gone@x.example'] }),
  task('someday', {}),
  task('done', { end: on(testTime - day), done: testTime - hour }),
  task('weekly', { end: at(testTime + 2 * hour), repeats: 'FREQ=WEEKLY' }),
  meeting('rota', testTime + day, testTime + day + hour, { reminder: 30 }),
  meeting('off', testTime + day, testTime + day + hour, { status: 'cancelled', reminder: 10 }),
];

async function filled(store = memoryStore()) {
  const mailbox = await openMailbox(store);
  await fill(mailbox, 6);
  await mailbox.exclusive(() =>
    editItems(
      mailbox,
      'items',
      items.map((item) => ({ uid: item.uid, item })),
      'Made',
      null,
    ),
  );
  return mailbox;
}

const titles = (list: readonly { title: string }[]) => list.map(({ title }) => title);

test('a stretch: what stands in it, what is late, without a date, done; with the message that is here', async () => {
  const mailbox = await filled();
  const today = new Date(testTime).setHours(0, 0, 0, 0);
  const stretch = await dated(mailbox, today, today + 8 * day);
  expect(titles(stretch.items)).toEqual(['today', 'weekly', 'rota', 'off', 'weekly']);
  expect([titles(stretch.late), titles(stretch.undated), titles(stretch.done)]).toEqual([
    ['late'],
    ['someday'],
    ['done'],
  ]);
  expect(stretch.items[0]).toMatchObject({
    messages: 2,
    message: { id: 3, place: 'inbox' },
    wholeDay: true,
    late: false,
  });
  expect(stretch.late[0].late).toBe(true);
  expect(stretch).toMatchObject({ total: 5, lateTotal: 1, undatedTotal: 1 });
  const first = await dated(mailbox, today, today + 8 * day, 2);
  expect([titles(first.items), first.total]).toEqual([['today', 'weekly'], 5]);
  mailbox.close();
});

test('told of: so long before, of a whole day in its morning; not of what is done or called off', async () => {
  const mailbox = await filled();
  const start = new Date(testTime).setHours(0, 0, 0, 0);
  expect(nextItemReminder(mailbox, start)).toBe(start + 9 * hour);
  expect(titles(await itemsFallenDue(mailbox, start, start + 10 * hour))).toEqual(['today']);
  const before = testTime + day - 30 * 60_000;
  expect(nextItemReminder(mailbox, testTime)).toBe(before);
  expect(titles(await itemsFallenDue(mailbox, before - 1, before))).toEqual(['rota']);
  mailbox.close();
});

test('in the way: at the same time, not what is called off, not what only touches it, not itself', async () => {
  const mailbox = await filled();
  const clashes = (from: number, to: number, uid = 'new') =>
    titles(clashesOf(mailbox, meeting(uid, testTime + from, testTime + to)));
  expect(clashes(day + hour / 2, day + 2 * hour)).toEqual(['rota']);
  expect(clashes(day + hour, day + 2 * hour)).toEqual([]);
  expect(clashes(day, day + hour, 'rota')).toEqual([]);
  mailbox.close();
});

test('stored, opened again, and undone', async () => {
  const records = new Map<string, unknown>();
  const mailbox = await filled(memoryStore(records));
  await mailbox.flush();
  const { seq } = mailbox;
  mailbox.close();
  const again = await openMailbox(memoryStore(records));
  expect([...again.items.all.values()]).toEqual(items);
  const { undo } = await import('../commands/undo');
  expect((await undo(again, 'undo', seq)).ok).toBe(true);
  expect(again.items.all.size).toBe(0);
  again.close();
});
