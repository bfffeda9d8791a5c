// What rules send of what comes in: to whom, once, within limits, never in a loop (RFC 3834).
import { parseEnvelope } from '../../core/mail/envelope';
import { parseStructure } from '../../core/mail/structure';
import { attachmentBytes } from '../../core/mail/body';
import { sendLimits } from '../../core/effects/effect';
import type { Action } from '../../core/effects/effects';
import type { SetupEdit } from '../../core/line/setupEdit';
import { changeSetup } from '../commands/changeSetup';
import { addMessages } from '../intake/incoming';
import type { Mailbox } from '../service/mailbox';
import { mailOf, openMailbox } from '../testing/testing';
import { testPost } from '../testing/testPost';
import { hopMark, sendByRules, type ToSendByRules } from './ruleSends';
import { wouldSend } from './wouldSend';

const opened: Mailbox[] = [];
afterEach(() => {
  for (const mailbox of opened.splice(0)) mailbox.close();
});

/** A mailbox with one rule that does something to all that Ann writes. */
async function withRule(...then: Action[]) {
  const mailbox = await openMailbox();
  opened.push(mailbox);
  mailbox.postOn = true;
  const edits: SetupEdit[] = [
    { list: 'accounts', id: 'me', item: { id: 'me', name: 'Mé', address: 'me@y.test' } },
    { list: 'blocks', id: 'b', item: { id: 'b', name: 'away', html: '<p>On the <strong>pier</strong>.</p>' } },
    {
      list: 'rules',
      id: 'r',
      item: {
        id: 'r',
        name: '',
        on: true,
        when: { match: 'all', of: [{ field: 'from', how: 'contains', text: '.test' }] },
        unless: null,
        then,
      },
    },
  ];
  await changeSetup(mailbox, 'rule', edits, 'Rule', false);
  const sent: Uint8Array[] = [];
  const post = testPost({
    submit: async (raw) => {
      sent.push(raw);
      return { messageId: '' };
    },
  });
  let n = 0;
  const comes = async (fields: Record<string, string>) => {
    const list: ToSendByRules[] = [];
    n++;
    const mail = mailOf(
      { From: 'Ann <ann@x.test>', To: 'me@y.test', Subject: `Berth ${n}`, 'Message-ID': `<${n}@x.test>`, ...fields },
      'Which berth?',
    );
    await mailbox.exclusive(() =>
      addMessages(mailbox, [mail], {
        command: `m${n}`,
        by: 'post office',
        says: 'Arrived',
        sends: (id, sends) => list.push({ id, sends }),
      }),
    );
    await sendByRules(mailbox, post, list);
    return { list };
  };
  return { mailbox, sent, comes, post };
}

const forward: Action = { do: 'forward', to: 'cy@z.test', form: 'text' };

test('forwarded in the text, marked, told in the Logbook; the same once', async () => {
  const { mailbox, sent, comes, post } = await withRule(forward);
  const { list } = await comes({});
  await sendByRules(mailbox, post, list);
  expect(sent).toHaveLength(1);
  const text = Buffer.from(sent[0]).toString();
  expect(parseEnvelope(sent[0])).toMatchObject({
    from: { address: 'me@y.test' },
    to: [{ address: 'cy@z.test' }],
    subject: 'Fwd: Berth 1',
    automatic: true,
  });
  expect(text).toMatch(/Which berth\?/);
  expect(text).toMatch(new RegExp(`^${hopMark}: 1\\r$`, 'm'));
  expect(mailbox.heads.at(-1)?.says).toBe('Forwarded “Berth 1” to cy@z.test by a rule');
});

test('as a file, byte for byte', async () => {
  const { sent, comes } = await withRule({ ...forward, form: 'file' });
  await comes({});
  const [file] = sent;
  expect(Buffer.from(attachmentBytes(file, parseStructure(file), 0) ?? []).toString()).toMatch(
    /^From: Ann <ann@x\.test>\r\n[^]*Which berth\?/,
  );
});

test.each([
  [{ [hopMark]: '1' }],
  [{ 'Return-Path': '<>' }],
  [{ From: 'me@y.test' }],
  [{ From: 'cy@z.test', 'Reply-To': 'ann@x.test' }],
])('not forwarded: %j', async (fields) => {
  const { sent, comes } = await withRule(forward);
  await comes(fields);
  expect(sent).toEqual([]);
});

test('never to oneself', async () => {
  const { sent, comes } = await withRule({ ...forward, to: 'ME@y.test' });
  await comes({});
  expect(sent).toEqual([]);
});

test('answered with the text block, once within seven days, in its conversation', async () => {
  const { sent, comes, mailbox } = await withRule({ do: 'answer', block: 'b' });
  await comes({});
  await comes({});
  expect(sent).toHaveLength(1);
  const text = Buffer.from(sent[0]).toString();
  expect(parseEnvelope(sent[0])).toMatchObject({
    to: [{ address: 'ann@x.test' }],
    subject: 'Re: Berth 1',
    references: ['1@x.test'],
  });
  expect(text).toMatch(/^Auto-Submitted: auto-replied\r$/m);
  expect(text).toContain('<strong>pier</strong>');
  expect(mailbox.heads.at(-2)?.says).toBe('Answered ann@x.test by a rule with “away”');
});

test.each([
  [{ 'List-Id': '<l.x.test>' }],
  [{ 'Auto-Submitted': 'auto-replied' }],
  [{ Precedence: 'bulk' }],
  [{ From: 'no-reply@x.test' }],
  [{ To: 'others@x.test' }],
])('RFC 3834, RFC 5230: not answered: %j', async (fields) => {
  const { sent, comes } = await withRule({ do: 'answer', block: 'b' });
  await comes(fields);
  expect(sent).toEqual([]);
});

test(`at most ${sendLimits.messagesADay} a day, and that is told`, async () => {
  const { sent, comes, mailbox } = await withRule(forward);
  for (let n = 0; n < sendLimits.messagesADay + 3; n++) await comes({});
  expect(sent).toHaveLength(sendLimits.messagesADay);
  expect(mailbox.troubles.join()).toMatch(/50 messages were forwarded or answered by rules within a day/);
});

test('what a rule would have sent of the mail here, had it come in now', async () => {
  const { mailbox, comes, sent } = await withRule(forward, { do: 'answer', block: 'b' });
  await comes({});
  await comes({ 'List-Id': '<berths.x.test>' });
  await comes({ From: 'Bo <bo@w.test>' });
  await comes({ From: 'Cy <cy@z.test>' });
  await comes({ From: 'me@y.test', To: 'ann@x.test' });
  await comes({ [hopMark]: '1', From: 'Di <di@w.test>' });
  expect(await wouldSend(mailbox, [], 'r')).toEqual({
    of: 5,
    looked: 5,
    answered: 4,
    people: ['di@w.test', 'cy@z.test', 'bo@w.test', 'ann@x.test'],
    forwarded: 3,
  });
  // What did go when they came in: the same.
  expect(sent).toHaveLength(7);
  expect(await wouldSend(mailbox, [], 'none')).toBeNull();
  expect(await wouldSend(mailbox, [], 'r', () => false)).toBeNull();
  // What is blocked never reaches the rule.
  const blocked = { id: 'e', kind: 'domain', value: 'w.test', standing: 'blocked', since: 0, why: '' } as const;
  const block: SetupEdit[] = [{ list: 'register', id: 'e', item: blocked }];
  expect(await wouldSend(mailbox, block, 'r')).toMatchObject({ of: 5, answered: 2, forwarded: 2 });
  const moves = {
    list: 'rules' as const,
    id: 'r',
    item: { ...mailbox.setup.rules[0], then: [{ do: 'read' as const }] },
  };
  expect(await wouldSend(mailbox, [moves], 'r')).toBeNull();
});
