// What stands whole in later messages of many conversations: as each conversation by itself says it, and reading nothing twice.
import { act } from '../commands/acts';
import { rawPackSize } from '../storage/keys';
import { memoryStore } from '../storage/recordStore';
import { mailOf, openHearing, openWith } from '../testing/testing';
import { Redundancy } from './redundancy';
import { thinVerdicts } from './thinning';

/** Many conversations whose answers each lie far behind what they answer; every other one quotes it whole. */
const conversations = 2 * rawPackSize;
const letter = (n: number) => `The berth number ${n} is closed until Friday.`;
const answer = (n: number, k: number) =>
  mailOf(
    {
      From: `s${k}@x.test`,
      To: 'me@y.test',
      Subject: `Re: Berth ${n}`,
      'Message-ID': `<${n}.${k}@x.test>`,
      References: Array.from({ length: k }, (_, at) => `<${n}.${at}@x.test>`).join(' '),
      Date: new Date(Date.UTC(2026, 0, 1 + k, 0, n)).toUTCString(),
    },
    k === 0 ? letter(n) : (n + k) % 3 ? `Seen ${k}.\n> ${letter(n)}` : `Something else ${k}`,
  );
/** `stride`: answers come in another order than what they answer. */
const mail = (of = conversations, stride = 1) =>
  [0, 1, 2, 3].flatMap((k) => Array.from({ length: of }, (_, n) => answer((n * stride ** k) % of, k)));

test.each([
  ['', undefined],
  [', also where not all of them can be held while the others are read', 300],
])('the same goes as each conversation says by itself, whatever of it is read or flagged%s', async (_, mostHeld) => {
  const mailbox = await openWith(mail());
  const redundancy = new Redundancy(mailbox, mostHeld);
  const { columns } = mailbox;
  const all = Int32Array.from({ length: columns.count }, (_, id) => id);
  const some = (holds: (id: number) => boolean) => ({ ids: [...all].filter(holds) });
  await act(
    mailbox,
    'read',
    some((id) => (id * 7) % 5 > 0),
    { do: 'read', value: true },
  );
  await act(
    mailbox,
    'flag',
    some((id) => (id * 11) % 6 === 0),
    { do: 'flag', value: true },
  );
  const told: number[] = [];
  await redundancy.ready(all, (done, total) => told.push(done) > 0 && total <= conversations);
  expect(told).toEqual(told.toSorted((a, b) => a - b));
  let going = 0;
  for (let n = 0; n < conversations; n++)
    for (const { id, goes } of await thinVerdicts(mailbox, n)) {
      expect([id, redundancy.has(id)]).toEqual([id, goes]);
      if (goes) going++;
    }
  expect(going).toBeGreaterThan(conversations / 2);
});

test('each pack is read once, however far behind what it answers an answer lies', async () => {
  const records = new Map<string, unknown>();
  const first = await openWith(mail(12 * rawPackSize, 37), memoryStore(records));
  await act(
    first,
    'read',
    { ids: Array.from({ length: first.columns.count }, (_, id) => id) },
    { do: 'read', value: true },
  );
  await first.flush();
  first.close();
  const { mailbox: second, read } = await openHearing(records, 'raw/');
  await second.redundancy.ready(Int32Array.from({ length: second.columns.count }, (_, id) => id));
  expect(read).toEqual([...new Set(read)]);
  expect(read).toHaveLength(48);
  second.close();
});

test('each pack is read once for all conversations that lie in it, and none where nothing could go', async () => {
  const records = new Map<string, unknown>();
  const first = await openWith(mail(), memoryStore(records));
  await first.flush();
  first.close();
  const { mailbox: second, read } = await openHearing(records, 'raw/');
  const all = Int32Array.from({ length: second.columns.count }, (_, id) => id);
  // All of it is unread, and stays.
  await second.redundancy.ready(all);
  expect(read).toEqual([]);
  await act(second, 'read', { ids: [...all] }, { do: 'read', value: true });
  await second.redundancy.ready(all);
  expect(read).toEqual([...new Set(read)]);
  expect(read).toHaveLength(8);
  second.close();
});
