// Under which accounts mail is found: to two own addresses under both, by a list under that which got it, else under none.
import { memoryStore } from '../storage/recordStore';
import { addMessages } from '../intake/incoming';
import { noAccount } from '../border/views';
import type { Mailbox } from '../service/mailbox';
import { mailOf, openMailbox } from '../testing/testing';

const account = (id: string) => ({
  list: 'accounts' as const,
  id,
  item: { id, name: id, address: `${id}@y.test` },
});
const under = (mailbox: Mailbox, id: string): number[] =>
  [...mailbox.views.list({ kind: 'place', place: 'inbox', account: id })].sort((a, b) => a - b);

test('mail to two own addresses is found under both, by a list under that which got it, by neither under none', async () => {
  const records = new Map<string, unknown>();
  const mailbox = await openMailbox(memoryStore(records));
  const mails = [
    mailOf({ From: 'a@x.test', To: 'one@y.test, two@y.test' }, '0'),
    mailOf(
      { From: 'a@x.test', To: 'crew@list.test', 'List-Id': '<crew.list.test>', 'Delivered-To': 'two@y.test' },
      '1',
    ),
    mailOf({ From: 'a@x.test', To: 'crew@list.test', 'Envelope-To': 'one@y.test' }, '2'),
    mailOf({ From: 'a@x.test', To: 'crew@list.test' }, '3'),
    mailOf({ From: 'one@y.test', To: 'two@y.test' }, '4'),
    mailOf({ From: 'a@x.test', To: 'One@Y.test', Cc: 'one@y.test' }, '5'),
  ];
  await mailbox.exclusive(async () => {
    await mailbox.commit({ command: 'setup', by: 'you', says: 'Set up', setup: [account('one'), account('two')] });
    await addMessages(mailbox, mails, { command: 'mail', by: 'you', says: 'Came' });
  });
  const as = (it: Mailbox) => [under(it, 'one'), under(it, 'two'), under(it, noAccount), under(it, 'other')];
  const expected = [[0, 2, 4, 5], [0, 1, 4], [3], []];
  expect(as(mailbox)).toEqual(expected);
  // Kept over a reload, and computed anew where the accounts change.
  const again = await openMailbox(memoryStore(records));
  expect(as(again)).toEqual(expected);
  await again.exclusive(() =>
    again.commit({ command: 'off', by: 'you', says: 'Off', setup: [{ list: 'accounts', id: 'one', item: null }] }),
  );
  await again.ready();
  expect(under(again, noAccount)).toEqual([2, 3, 5]);
});
