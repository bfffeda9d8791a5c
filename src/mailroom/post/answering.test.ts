// Answering through the post office, and being told of what arrives.
import { parseEnvelope } from '../../core/mail/envelope';
import type { SetupEdit } from '../../core/line/setupEdit';
import { answerFile, sendAnswer, startAnswer } from './answering';
import { changeSetup } from '../commands/changeSetup';
import { openConversation } from '../questions/conversations';
import { addMessages } from '../intake/incoming';
import { toldLately } from '../questions/notifications';
import { mailOf, openMailbox, testTime } from '../testing/testing';
import { testPost } from '../testing/testPost';

const inbox = { kind: 'place', place: 'inbox' } as const;
const me: SetupEdit = { list: 'accounts', id: 'me', item: { id: 'me', name: 'Mé', address: 'me@y.test' } };

async function withMail() {
  const mailbox = await openMailbox();
  mailbox.postOn = true;
  await changeSetup(mailbox, 'account', [me], 'Account', false);
  const message = (id: string, from: string, answers: string) =>
    mailOf(
      {
        From: from,
        To: 'me@y.test, cy@x.test',
        Subject: 'Berth',
        'Message-ID': `<${id}>`,
        References: answers,
        Date: `Tue, 24 Nov 2026 10:0${id}:00 +0000`,
      },
      `Text ${id}`,
    );
  const list = [message('1', 'Ann <ann@x.test>', ''), message('2', 'Bob <bob@x.test>', '<1>')];
  await addMessages(mailbox, list, { command: 'mail', by: 'post office', says: 'Arrived' });
  const sent: Uint8Array[] = [];
  let refuse: string | null = null;
  const post = testPost({
    submit: async (raw) => {
      if (refuse !== null) throw new Error(refuse);
      sent.push(raw);
      return { messageId: '' };
    },
  });
  /** What the post office brings of what was sent. */
  const check = async () => {
    const { envelopes, text } = await mailbox.reader.parse([new Uint8Array(sent[0])], 'eml', false);
    const copy = {
      stored: { bytes: new Uint8Array(sent[0]), form: 'eml' as const },
      envelope: envelopes[0],
      text: { batch: text, at: 0 },
      place: 'sent' as const,
      read: true,
      flagged: false,
      why: { station: 'post office' as const, by: null, says: 'You sent it.' },
    };
    await addMessages(mailbox, [copy], { command: 'copy', by: 'post office', says: 'Arrived' });
  };
  return { mailbox, post, sent, check, refuse: (reason: string) => (refuse = reason) };
}

test('an answer begins with its recipients, its subject, the text quoted, and says that there is a newer message', async () => {
  const { mailbox } = await withMail();
  expect(await startAnswer(mailbox, 0, true, 'Tuesday')).toMatchObject({
    account: 'me',
    recipients: 'Ann <ann@x.test>',
    copies: 'cy@x.test',
    subject: 'Re: Berth',
    text: '\n\nAnn wrote on Tuesday:\n> Text 1\n',
    newer: 1,
    newest: { id: 1 },
  });
  expect(await startAnswer(mailbox, 1, false, 'Tuesday')).toMatchObject({ copies: '', newer: 0, newest: null });
  expect(await startAnswer(mailbox, 9, false, 'Tuesday')).toBeNull();
});

const answer = {
  to: 0,
  account: 'me',
  recipients: 'Ann <ann@x.test>',
  copies: '',
  subject: 'Re: Berth',
  text: 'Ja, grüß Gott\n.\n',
};

test('sent: RFC 5322 fields that tie it, its text whole, and a copy in Sent and in its conversation', async () => {
  const { mailbox, post, sent, check } = await withMail();
  const outcome = await sendAnswer(mailbox, post, 'cmd', answer, 60, check);
  expect(outcome).toMatchObject({ ok: true, receipt: { says: 'Sent to Ann' } });
  const raw = new TextDecoder().decode(sent[0]);
  expect(raw).toContain('In-Reply-To: <1>\r\nReferences: <1>\r\n');
  expect(raw).toContain('Date: Tue, 24 Nov 2026 13:00:00 +0100');
  expect(parseEnvelope(sent[0])).toMatchObject({
    from: { name: 'Mé', address: 'me@y.test' },
    preview: 'Ja, grüß Gott .',
  });
  const members = (await openConversation(mailbox, 0, inbox, true))?.members;
  expect(members?.map((m) => [m.row.place, m.row.own, m.parent])).toEqual([
    ['inbox', false, null],
    ['inbox', false, 0],
    ['sent', true, 0],
  ]);
});

test.each([
  [{ recipients: 'ann', copies: '' }, 'To: “ann” is no address.'],
  [{ recipients: '', copies: '' }, 'Name somebody to send it to.'],
  [{ account: 'other' }, 'Choose the account from which to send.'],
])('not sent: %j', async (more, error) => {
  const { mailbox, post, sent } = await withMail();
  expect(await sendAnswer(mailbox, post, 'cmd', { ...answer, ...more }, 0, async () => undefined)).toEqual({
    ok: false,
    error,
  });
  expect(sent).toHaveLength(0);
});

test('the post office refuses it: its sentence is told, and nothing stands in Sent', async () => {
  const { mailbox, post, refuse } = await withMail();
  refuse('The post office does not answer.');
  const outcome = await sendAnswer(mailbox, post, 'cmd', answer, 0, async () => undefined);
  expect(outcome).toEqual({ ok: false, error: 'The post office does not answer.' });
  expect(mailbox.columns.count).toBe(2);
});

test('own mail has no post office: nothing is said to be sent; the answer is a file that another program sends', async () => {
  const { mailbox, post, sent } = await withMail();
  mailbox.postOn = false;
  const outcome = await sendAnswer(mailbox, post, 'cmd', answer, 0, async () => undefined);
  expect(outcome).toMatchObject({ ok: false, error: expect.stringContaining('no post office') as string });
  expect([sent.length, mailbox.columns.count]).toEqual([0, 2]);
  const file = await answerFile(mailbox, 'cmd', { ...answer, subject: 'Re: a/b' }, 60);
  if (!file.ok) throw new Error(file.error);
  expect(file.name).toBe('Re a b.eml');
  const raw = new Uint8Array(await file.blob.arrayBuffer());
  expect(parseEnvelope(raw)).toMatchObject({ to: [{ name: 'Ann', address: 'ann@x.test' }], references: ['1'] });
  expect(await answerFile(mailbox, 'cmd', { ...answer, to: 99 }, 0)).toMatchObject({ ok: false });
});

test('a line break in the subject or a name writes no field of its own', async () => {
  const { mailbox, post, sent } = await withMail();
  const hostile = {
    ...answer,
    subject: 'Re: Berth\r\nBcc: eve@x.test',
    recipients: '"Ann\r\nBcc: eve@x.test" <ann@x.test>',
  };
  await sendAnswer(mailbox, post, 'cmd', hostile, 0, async () => undefined);
  expect(new TextDecoder().decode(sent[0])).not.toMatch(/^Bcc:/im);
});

test('what one would have been told of: the last seven days, in the Inbox, chosen', async () => {
  const { mailbox } = await withMail();
  const told = [{ id: '1', by: 'sender', value: 'ann@x.test' }] as const;
  expect(await toldLately(mailbox, told)).toMatchObject({ total: 1, sample: [{ id: 0 }] });
  expect(await toldLately(mailbox, [])).toMatchObject({ total: 0 });
  const old = mailOf({ From: 'ann@x.test', 'Message-ID': '<3>', Date: 'Tue, 10 Nov 2026 10:00:00 +0000' });
  await addMessages(mailbox, [old], { command: 'old', by: 'post office', says: 'Arrived' });
  expect((await toldLately(mailbox, told)).total).toBe(1);
  expect(mailbox.now()).toBe(testTime);
});
