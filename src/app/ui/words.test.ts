import { conversationWords, count, messages } from './words';

test.each([
  [0, '0'],
  [999, '999'],
  [1_000, '1,000'],
  [12_345, '12,345'],
  [1_234_567, '1,234,567'],
])('%i is written %s', (n, text) => {
  expect(count(n)).toBe(text);
  expect(count(n)).toBe(n.toLocaleString('en'));
});

test('every number of a conversation says what it counts, and none that is nothing is said', () => {
  const none = { received: 1, own: 0, unread: 1, flagged: 0, late: 0, attachments: 2 };
  expect(conversationWords(none)).toBe('1 received');
  expect(conversationWords({ ...none, own: 2, flagged: 3, late: 1 })).toBe('1 received · 2 own · 3 flagged · 1 late');
  expect(messages(1)).toBe('1 message');
});
