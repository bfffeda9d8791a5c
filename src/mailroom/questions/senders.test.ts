// Senders against counting one message after another; leaving lists.
import { senders, senderReport, people, trendOf } from './senders';
import { act } from '../commands/acts';
import { addMessages } from '../intake/incoming';
import { leaveList } from '../post/leaveList';
import type { Mailbox } from '../service/mailbox';
import type { SendersQuestion } from '../border/senderTable';
import { mailOf, openWith, testTime } from '../testing/testing';
import { testPost } from '../testing/testPost';

const question: SendersQuestion = { by: 'address', only: 'all', words: '', order: 'messages', turned: false };
const day = 86_400_000;

const dated = (ago: number) => new Date(testTime - ago * day).toUTCString().replace('GMT', '+0000');
const news = (n: number, ago: number, extra: Record<string, string> = {}) =>
  mailOf(
    {
      From: 'Tide News <news@tides.test>',
      To: 'me@y.test',
      Subject: `Tides ${n}`,
      'Message-ID': `<news${n}@tides.test>`,
      Date: dated(ago),
      'List-Id': 'Tides <list.tides.test>',
      'List-Unsubscribe': '<https://leave.tides.test/me>, <mailto:off@tides.test?subject=off>',
      'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click',
      'Authentication-Results': 'mx.y.test; dkim=pass header.d=tides.test',
      ...extra,
    },
    `Tide ${n}`,
  );

async function filled(): Promise<Mailbox> {
  const list = [
    ...[1, 2, 3, 4, 5].map((n) => news(n, n * 10)),
    mailOf({ From: 'Ann <ann@x.test>', 'Message-ID': '<a1>', To: 'me@y.test', Date: dated(2) }, 'Berth?'),
    mailOf({ From: 'Ann Höchst <ANN@x.test>', 'Message-ID': '<a2>', To: 'me@y.test', Date: dated(1) }, 'And?'),
    mailOf({ From: 'bob@sub.x.test', 'Message-ID': '<b1>', To: 'me@y.test', Date: dated(50) }, 'Rope'),
    mailOf({ From: 'me@y.test', To: 'ann@x.test', 'Message-ID': '<m1>', 'In-Reply-To': '<a1>', Date: dated(1) }, 'Yes'),
  ];
  const mailbox = await openWith(list);
  mailbox.postOn = true;
  return mailbox;
}

test('each sender with how much, how much of it unread, when last, whether answered; one’s own mail is nobody’s', async () => {
  const mailbox = await filled();
  await act(mailbox, 'read', { ids: [0, 1, 2] }, { do: 'read', value: true });
  await act(mailbox, 'archive', { ids: [0] }, { do: 'move', place: 'archive' });
  const { total, messages, lines } = await senders(mailbox, question, 0, 9);
  expect([total, messages]).toEqual([3, 8]);
  expect(
    lines.map((l) => [l.sender.value, l.name, l.messages, l.inbox, l.unread, l.answered, l.written, l.list]),
  ).toEqual([
    ['news@tides.test', 'Tide News', 5, 4, 2, 0, false, true],
    ['ann@x.test', 'Ann Höchst', 2, 2, 2, 1, true, false],
    ['bob@sub.x.test', '', 1, 1, 1, 0, false, false],
  ]);
  expect(lines[0].last).toBe(testTime - 10 * day);
  // Ten, twenty … fifty days ago: in the weeks 1, 2, 4, 5 and 7 before this one.
  expect(lines[0].weeks).toEqual([0, 0, 0, 0, 1, 0, 1, 1, 0, 1, 1, 0]);
  expect(trendOf(lines[0])).toBe(3);
  expect(lines[1].bytes).toBe(mailbox.envelopes.get(5).size + mailbox.envelopes.get(6).size);
});

test('what is in Junk or in the Bin does not count, and counts again when it is back', async () => {
  const mailbox = await filled();
  await act(mailbox, 'bin', { ids: [0, 1] }, { do: 'move', place: 'bin' });
  await act(mailbox, 'junk', { ids: [2] }, { do: 'move', place: 'junk' });
  const of = async () => (await senders(mailbox, { ...question, words: 'tide' }, 0, 9)).lines.map((l) => l.messages);
  expect(await of()).toEqual([2]);
  // All messages are accounted for: 9 in all.
  const { messages, notCounted } = await senders(mailbox, question, 0, 9);
  expect([messages, notCounted]).toEqual([5, { own: 1, elsewhere: 3, nameless: 0 }]);
  await act(mailbox, 'back', { ids: [0, 1, 2] }, { do: 'move', place: 'inbox' });
  expect(await of()).toEqual([5]);
});

test.each<[Partial<SendersQuestion>, string[]]>([
  [{ by: 'domain' }, ['tides.test', 'x.test']],
  [{ order: 'name' }, ['ann@x.test', 'bob@sub.x.test', 'news@tides.test']],
  [{ order: 'name', turned: true }, ['news@tides.test', 'bob@sub.x.test', 'ann@x.test']],
  [{ order: 'messages', turned: true }, ['bob@sub.x.test', 'ann@x.test', 'news@tides.test']],
  [{ order: 'last' }, ['ann@x.test', 'news@tides.test', 'bob@sub.x.test']],
  [{ order: 'answered' }, ['ann@x.test', 'news@tides.test', 'bob@sub.x.test']],
  [{ only: 'lists' }, ['news@tides.test']],
  [{ only: 'written' }, ['ann@x.test']],
  [{ only: 'never' }, ['news@tides.test', 'bob@sub.x.test']],
  [{ only: 'quiet', words: 'HOCHST' }, ['ann@x.test']],
  [{ words: 'nobody' }, []],
])('asked for %j', async (some, expected) => {
  const { lines } = await senders(await filled(), { ...question, ...some }, 0, 9);
  expect(lines.map((l) => l.sender.value)).toEqual(expected);
});

test('people are found by the beginning of a name, of another part of it, of an address or its domain', async () => {
  const mailbox = await filled();
  const named = async (typed: string) => (await people(mailbox, typed, 5)).map((p) => p.address);
  expect(await named('hoch')).toEqual(['ann@x.test']);
  expect(await named('news@')).toEqual(['news@tides.test']);
  expect(await named('tides')).toEqual(['news@tides.test']);
  expect(await named('chst')).toEqual([]);
  expect(await named('')).toHaveLength(3);
});

function office() {
  const asked: string[] = [];
  let refuse: string | null = null;
  const say = async (what: string) => {
    if (refuse !== null) throw new Error(refuse);
    asked.push(what);
  };
  const post = testPost({
    submit: async (raw) => {
      await say(new TextDecoder().decode(raw));
      return { messageId: '' };
    },
    leave: async (url) => {
      await say(url);
      return { left: true };
    },
  });
  return { asked, host: { post, check: async () => undefined, zone: 0 }, refuse: (why: string) => (refuse = why) };
}

describe('leaving a list', () => {
  const sender = { by: 'address' as const, value: 'news@tides.test' };

  test('by one request; what comes after is counted, from that list alone', async () => {
    const mailbox = await filled();
    const report = await senderReport(mailbox, sender);
    expect(report?.leaving).toMatchObject({ listId: 'list.tides.test', ways: [{ by: 'one-click' }, { by: 'mail' }] });
    const { asked, host } = office();
    const outcome = await leaveList(mailbox, host, 'leave', report?.leaving?.message ?? -1, 'one-click');
    expect(outcome).toMatchObject({ ok: true, receipt: { says: 'Left the list of Tide News' } });
    expect(asked).toEqual(['https://leave.tides.test/me']);
    // Sent twice, it is left once.
    await leaveList(mailbox, host, 'leave', 0, 'one-click');
    expect(asked).toHaveLength(1);
    expect((await senderReport(mailbox, sender))?.left).toMatchObject([{ after: 0, latest: null }]);
    const later = [
      news(9, -1),
      news(10, -2, { From: 'Other <other@tides.test>' }),
      news(11, -2, { 'List-Id': 'Other <other.tides.test>' }),
    ];
    await mailbox.exclusive(() => addMessages(mailbox, later, { command: 'later', by: 'you', says: 'Came' }));
    expect((await senderReport(mailbox, sender))?.left).toMatchObject([{ after: 2, latest: testTime + 2 * day }]);
    expect((await senders(mailbox, question, 0, 1)).lines[0].left).toBe(true);
  });

  test('by a message, from the account by which it comes', async () => {
    const mailbox = await filled();
    const { asked, host } = office();
    expect(await leaveList(mailbox, host, 'leave', 0, 'mail')).toMatchObject({ ok: true });
    expect(asked[0]).toContain('To: off@tides.test\r\nSubject: off\r\n');
    expect(asked[0]).toContain('From: Me <me@y.test>');
    expect(mailbox.setup.left).toMatchObject([{ by: 'mail', listId: 'list.tides.test', address: 'news@tides.test' }]);
  });

  test('refused: the sentence is told, and the list was not left; no such way is said, too', async () => {
    const mailbox = await filled();
    const { host, refuse } = office();
    refuse('The post office does not answer.');
    expect(await leaveList(mailbox, host, 'leave', 0, 'one-click')).toEqual({
      ok: false,
      error: 'The post office does not answer.',
    });
    expect(mailbox.setup.left).toEqual([]);
    expect(await leaveList(mailbox, host, 'other', 5, 'mail')).toMatchObject({ ok: false });
    expect(await leaveList(mailbox, host, 'gone', 99, 'mail')).toMatchObject({ ok: false });
  });
});
