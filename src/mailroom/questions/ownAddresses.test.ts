import { ownAddresses } from './ownAddresses';
import { mailOf, openWith } from '../testing/testing';

const mail = (n: number, fields: Record<string, string>) =>
  mailOf({ From: 'Ann <ann@x.test>', 'Message-ID': `<m${n}@x.test>`, ...fields }, 'Hello');

test('the addresses that most of the mail came to, each once a message; those of lists are not', async () => {
  const mailbox = await openWith([
    ...[1, 2, 3, 4].map((n) => mail(n, { To: 'Me <Me@y.test>, other@y.test', Cc: 'me@y.test' })),
    ...[5, 6, 7].map((n) => mail(n, { To: 'list@z.test', 'List-Id': '<list.z.test>', 'Delivered-To': 'me@y.test' })),
    mail(8, { To: 'undisclosed-recipients:;' }),
    mail(9, { To: 'once@y.test' }),
  ]);
  expect(await ownAddresses(mailbox)).toEqual({
    looked: 9,
    addresses: [
      { address: 'me@y.test', name: 'Me', count: 7 },
      { address: 'other@y.test', name: '', count: 4 },
    ],
  });
  // Of more mail only the newest is looked at.
  expect(await ownAddresses(mailbox, 4)).toMatchObject({ looked: 4, addresses: [] });
  mailbox.close();
});
