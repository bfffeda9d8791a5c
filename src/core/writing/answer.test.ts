import { answerSubject, quotedText, recipientsOf } from './answer';
import { threadFields } from './threadFields';

const a = (address: string, name = '') => ({ name, address });
const own = new Set(['me@y.test', 'desk@y.test']);
const message = {
  from: a('ann@x.test', 'Ann'),
  replyTo: [],
  to: [a('me@y.test'), a('Bob@x.test')],
  cc: [a('desk@y.test'), a('cy@x.test')],
};

test('RFC 5322, section 3.6.3: to the sender; to all, one’s own addresses left out', () => {
  expect(recipientsOf(message, false, own)).toEqual({ to: [a('ann@x.test', 'Ann')], cc: [] });
  expect(recipientsOf(message, true, own)).toEqual({
    to: [a('ann@x.test', 'Ann')],
    cc: [a('Bob@x.test'), a('cy@x.test')],
  });
});
test('RFC 5322, section 3.6.2: Reply-To comes before From', () => {
  expect(recipientsOf({ ...message, replyTo: [a('list@x.test')] }, false, own).to).toEqual([a('list@x.test')]);
});
test('an answer to one’s own message goes to those who had it', () => {
  const mine = { from: a('me@y.test'), replyTo: [], to: [a('ann@x.test')], cc: [a('cy@x.test')] };
  expect(recipientsOf(mine, true, own)).toEqual({ to: [a('ann@x.test')], cc: [a('cy@x.test')] });
});
test('nobody twice, nobody without an address; alone with oneself, oneself', () => {
  const odd = { from: a('ann@x.test'), replyTo: [], to: [a('ANN@X.test'), a('nobody')], cc: [] };
  expect(recipientsOf(odd, true, own)).toEqual({ to: [a('ann@x.test')], cc: [] });
  const self = { from: a('me@y.test'), replyTo: [], to: [a('me@y.test')], cc: [] };
  expect(recipientsOf(self, false, own).to).toEqual([a('me@y.test')]);
});
test('RFC 5322, section 3.6.5: one “Re: ”', () => {
  expect(answerSubject('Berth 2')).toBe('Re: Berth 2');
  expect(answerSubject('RE: Berth 2')).toBe('RE: Berth 2');
  expect(answerSubject('')).toBe('Re:');
});
test('RFC 5322, section 3.6.4: In-Reply-To and References', () => {
  expect(threadFields({ messageId: 'c', references: ['a', 'b'] })).toEqual({
    inReplyTo: 'c',
    references: ['a', 'b', 'c'],
  });
  expect(threadFields({ messageId: '', references: ['a'] })).toEqual({});
  const long = threadFields({ messageId: 'z', references: Array.from({ length: 100 }, (_, i) => `r${i}`) });
  expect(long.references).toHaveLength(40);
  expect(long.references?.[0]).toBe('r0');
  expect(long.references?.at(-1)).toBe('z');
});
test('what is answered stands quoted below the room to write', () => {
  const envelope = { from: a('ann@x.test', 'Ann'), to: [], cc: [], subject: '' };
  expect(quotedText({ envelope, when: 'Tue 24 Nov 2026, 10:00', text: 'Berth 2?', html: null })).toBe(
    'Ann wrote on Tue 24 Nov 2026, 10:00:\n> Berth 2?',
  );
});
