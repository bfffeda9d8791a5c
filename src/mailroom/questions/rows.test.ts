// A window of rows is of one moment, whatever happens while it is read.
import { act } from '../commands/acts';
import { rows } from './rows';
import { fill, openMailbox, openWith, single, mailOf } from '../testing/testing';
import type { View } from '../border/views';

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
