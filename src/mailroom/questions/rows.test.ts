// A window of rows is of one moment, whatever happens while it is read.
import { act } from '../commands/acts';
import { held } from './held';
import { position, rows } from './rows';
import { fill, openMailbox, openWith, single, mailOf } from '../testing/testing';
import type { Order, View } from '../border/views';

const inbox: View = { kind: 'place', place: 'inbox' };
const grouped = { grouped: true, elsewhere: true };

test('what leaves the view while a window is read is not in it', async () => {
  const mailbox = await openMailbox();
  await fill(mailbox, 9);
  const ensure = mailbox.envelopes.ensure.bind(mailbox.envelopes);
  let moved = false;
  mailbox.envelopes.ensure = async (ids, count) => {
    if (!moved) {
      moved = true;
      await act(mailbox, 'move', { ids: [3, 4] }, { do: 'move', place: 'archive' });
    }
    return ensure(ids, count);
  };
  const window = await rows(mailbox, inbox, single, 0, 99);
  expect([window.total, window.messages, window.rows.length]).toEqual([7, 7, 7]);
  expect(window.rows.map(({ id }) => id)).not.toContain(3);
  expect(window.revision).toBe(mailbox.revision);
});

test('a view that changes for ever is shown all the same', async () => {
  const mailbox = await openMailbox();
  await fill(mailbox, 9);
  const ensure = mailbox.envelopes.ensure.bind(mailbox.envelopes);
  let times = 0;
  mailbox.envelopes.ensure = async (ids, count) => {
    mailbox.views.changed();
    times++;
    return ensure(ids, count);
  };
  expect((await rows(mailbox, inbox, single, 0, 99)).total).toBe(9);
  expect(times).toBe(3);
});

test('threads that come into memory while a window is read: never two rows of one conversation', async () => {
  const mail = (id: string, answers: string) =>
    mailOf({ From: `${id}@x.test`, 'Message-ID': `<${id}>`, Subject: 'Re: Tide', References: answers }, id);
  const mailbox = await openWith([mail('a', ''), mail('b', '<a>'), mail('c', '<a> <b>')]);
  // As right after opening: each message is still a conversation of its own.
  const { conversation } = mailbox.derived;
  const known = conversation.slice();
  for (let id = 0; id < 3; id++) conversation[id] = id;
  mailbox.views.changed();
  const ensure = mailbox.envelopes.ensure.bind(mailbox.envelopes);
  let came = false;
  mailbox.envelopes.ensure = async (ids, count) => {
    await ensure(ids, count);
    if (came) return;
    came = true;
    conversation.set(known);
    mailbox.views.changed();
  };
  const window = await rows(mailbox, inbox, grouped, 0, 9);
  expect(window.rows.map((row) => row.conversation)).toEqual([0]);
  expect(window.rows[0].whole).toMatchObject({ received: 3 });
});

test('rows by sender, subject, size and date, both ways; what is alike stays newest first; ranges and places follow', async () => {
  const mails = [
    { From: 'Zoë <zoe@x.test>', Subject: 'Re: Anchor', Date: 'Mon, 2 Mar 2026 10:00:00 +0000' },
    { From: 'Östen <osten@x.test>', Subject: 'tide', Date: 'Tue, 3 Mar 2026 10:00:00 +0000' },
    { From: 'bo@x.test', Subject: 'Buoy', Date: 'Wed, 4 Mar 2026 10:00:00 +0000' },
    { From: 'Zoë <zoe@x.test>', Subject: 'Fwd: Re: ANCHOR', Date: 'Thu, 5 Mar 2026 10:00:00 +0000' },
  ];
  const mailbox = await openWith(mails.map((fields, n) => mailOf(fields, 'x'.repeat(n === 1 ? 900 : 100 - 10 * n))));
  const by = async (order: Order, grouped = false) => {
    const grouping = { ...single, grouped, order };
    const ids = (await rows(mailbox, inbox, grouping, 0, 9)).rows.map(({ id }) => id);
    const range = await held(mailbox, inbox, grouping, 'all', 0, 9);
    if (!grouped) expect([...range.ids]).toEqual(ids);
    expect(await Promise.all(ids.map((id) => position(mailbox, inbox, grouping, id)))).toEqual(ids.map((_, at) => at));
    return ids;
  };
  expect(await by({ by: 'date', turned: false })).toEqual([3, 2, 1, 0]);
  expect(await by({ by: 'date', turned: true })).toEqual([0, 1, 2, 3]);
  expect(await by({ by: 'sender', turned: false })).toEqual([2, 1, 3, 0]);
  expect(await by({ by: 'sender', turned: true })).toEqual([0, 3, 1, 2]);
  expect(await by({ by: 'subject', turned: false })).toEqual([3, 0, 2, 1]);
  expect((await by({ by: 'size', turned: false }))[0]).toBe(1);
  expect((await by({ by: 'size', turned: true }))[3]).toBe(1);
  expect(await by({ by: 'date', turned: true }, true)).toEqual([1, 2, 3]);
  await act(mailbox, 'move', { ids: [2] }, { do: 'move', place: 'archive' });
  expect(await by({ by: 'sender', turned: false })).toEqual([1, 3, 0]);
});
