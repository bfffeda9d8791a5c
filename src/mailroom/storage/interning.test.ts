import { Sharing } from './interning';
import { incoming } from '../testing/testing';

test('what is shared says the same, and is one', () => {
  const sharing = new Sharing();
  const [a, b] = [incoming(1), incoming(8)].map((m) => m.envelope);
  const reply = { ...b, references: [a.messageId], cc: [...b.to, ...b.to, ...b.to, ...b.to] };
  const shared = [a, reply].map((e) => sharing.share(e));
  expect(shared).toEqual([a, reply]);
  // Messages 1 and 8 of the tests have the same sender and recipients.
  expect(shared[1].from).toBe(shared[0].from);
  expect(shared[1].to).toBe(shared[0].to);
  expect(shared[1].cc[3]).toBe(shared[0].to[0]);
});

test('people are told apart by name and address', () => {
  const sharing = new Sharing();
  const { envelope } = incoming(1);
  const other = { ...envelope, from: { ...envelope.from, name: 'Other' } };
  expect(sharing.share(envelope).from.name).toBe('');
  expect(sharing.share(other).from.name).toBe('Other');
});
