// Months against grouping the rows by hand; passages; how much views hold; saved searches as lanes.
import { format } from 'date-fns';
import fc from 'fast-check';
import { months } from './months';
import { act } from '../commands/acts';
import { changeSetup } from '../commands/changeSetup';
import { addMessages } from '../intake/incoming';
import { passageOf } from '../../core/search/marks';
import { passages } from './passages';
import { rows } from './rows';
import { memoryStore } from '../storage/recordStore';
import { mailOf, openMailbox, single } from '../testing/testing';
import type { View } from '../border/views';

const inbox: View = { kind: 'place', place: 'inbox' };
const mail = (n: number, date: Date, text = `Text ${n}`) =>
  mailOf(
    {
      From: 'Ann <ann@x.test>',
      'Message-ID': `<${n}@x>`,
      Subject: n % 3 ? `Re: Thread ${n % 5}` : `Thread ${n}`,
      Date: date.toUTCString().replace('GMT', '+0000'),
    },
    text,
  );

async function withMail(dates: Date[], text?: string) {
  const mailbox = await openMailbox(memoryStore());
  const list = dates.map((date, n) => mail(n, date, text));
  await mailbox.exclusive(() => addMessages(mailbox, list, { command: 'mail', by: 'you', says: 'Came' }));
  return mailbox;
}

test('each month begins where its first row stands, single or grouped', async () => {
  const date = fc.date({ min: new Date(2019, 0, 1), max: new Date(2026, 11, 31), noInvalidDate: true });
  await fc.assert(
    fc.asyncProperty(fc.array(date, { maxLength: 30 }), fc.boolean(), async (dates, grouped) => {
      const mailbox = await withMail(dates);
      const all = await rows(mailbox, inbox, { grouped, elsewhere: true }, 0, 99);
      const expected: { month: string; first: number; rows: number }[] = [];
      for (const [at, row] of all.rows.entries()) {
        const month = format(row.date, 'yyyy-MM');
        if (expected.at(-1)?.month !== month) expected.push({ month, first: at, rows: 0 });
        expected[expected.length - 1].rows++;
      }
      expect(await months(mailbox, inbox, { grouped, elsewhere: true })).toEqual(expected);
    }),
    { numRuns: 30 },
  );
});

test('a passage is where what was found stands, where the preview does not show it', async () => {
  const text = `${'Nothing to be said about it. '.repeat(20)}At last the HÖCHST tide of all. ${'And so on. '.repeat(30)}`;
  const mailbox = await withMail([new Date(2026, 1, 2)], text);
  const [passage] = await passages(mailbox, 'höchst unseen', [0]);
  expect(passage).toMatch(/^… .{0,16}HÖCHST tide of all\. And so on\./);
  expect(passage?.length).toBeLessThanOrEqual(162);
  expect(await passages(mailbox, 'nothing', [0])).toEqual([null]);
  expect(await passages(mailbox, 'from ann', [0])).toEqual([null]);
  expect(await passages(mailbox, 'not höchst', [0])).toEqual([null]);
  expect(await passages(mailbox, 'from "', [0])).toEqual([null]);
  expect(passageOf('short tide', ['tide'])).toBe('short tide');
});

test('a saved search is counted, and is a lane that follows what it asks for', async () => {
  const mailbox = await withMail(Array.from({ length: 9 }, (_, n) => new Date(2026, n % 3, 5, n)));
  const search = { id: 's', name: 'Threads', query: 'subject "re:"', within: null };
  const save = (command: string, item: typeof search | null) =>
    changeSetup(mailbox, command, [{ list: 'searches', id: 's', item }], 'Saved', false);
  await save('save', search);
  const lane: View = { ...inbox, lane: { by: 'search', search: 's' } };
  const inLane = async () => (await rows(mailbox, lane, single, 0, 99)).total;
  const rest: View = { ...inbox, lane: { by: 'rest', lanes: [{ by: 'search', search: 's' }] } };
  expect([await inLane(), (await rows(mailbox, rest, single, 0, 99)).total]).toEqual([6, 3]);
  await act(mailbox, 'archive', { ids: [1] }, { do: 'move', place: 'archive' });
  expect(await inLane()).toBe(5);
  await save('again', { ...search, query: 'subject "thread 3"' });
  expect(await inLane()).toBe(2);
  await save('within', { ...search, within: { kind: 'place', place: 'archive' } as never });
  expect(await inLane()).toBe(0);
  await save('off', null);
  expect(await inLane()).toBe(0);
});

test('a search whose query can’t be read is refused', async () => {
  const mailbox = await withMail([]);
  const item = { id: 's', name: 'x', query: 'from "', within: null };
  const outcome = await changeSetup(mailbox, 'save', [{ list: 'searches', id: 's', item }], 'Saved', false);
  expect(outcome).toMatchObject({ ok: false, error: 'searches[0].query: it can’t be read' });
});
