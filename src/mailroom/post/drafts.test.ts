// Drafts: begun, kept, thrown away; sent once, over crashes; taken back; what follows only once it has gone.
import fc from 'fast-check';
import { parseEnvelope } from '../../core/mail/envelope';
import { bodyText } from '../../core/mail/body';
import { unflowed } from '../../core/mail/flow';
import { parseStructure } from '../../core/mail/structure';
import type { SetupEdit } from '../../core/line/setupEdit';
import type { DraftContent } from '../../core/writing/draft';
import { readRecipients } from '../../core/writing/recipient';
import { changeSetup } from '../commands/changeSetup';
import { addMessages } from '../intake/incoming';
import type { Mailbox } from '../service/mailbox';
import { memoryStore, type RecordStore } from '../storage/recordStore';
import { mailOf, openMailbox, PowerCut, storeWithPowerCut, testTime } from '../testing/testing';
import { testPost } from '../testing/testPost';
import { aboutDraft, recipientsLike } from './aboutDraft';
import { beginDraft, keepDraft, keepDraftFile, throwDraft } from './drafts';
import { draftAsFile, Outbox } from './sending';

const me: SetupEdit = { list: 'accounts', id: 'me', item: { id: 'me', name: 'Mé', address: 'me@y.test' } };

const opened: Mailbox[] = [];
afterEach(() => {
  for (const mailbox of opened.splice(0)) mailbox.close();
});

/** A mailbox in which Ann and then Bob wrote about the berth. */
async function withMail(store: RecordStore = memoryStore()) {
  const mailbox = await openMailbox(store);
  opened.push(mailbox);
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
  return mailbox;
}

/** A post office that knows again what it was given before. */
function office() {
  const sent = new Map<string, { raw: Uint8Array; bcc: number; times: number }>();
  const told: string[] = [];
  const refusing = { reason: null as string | null };
  const post = testPost({
    submit: async (raw, _cursor, bcc = []) => {
      if (refusing.reason !== null) throw new Error(refusing.reason);
      const { messageId } = parseEnvelope(raw);
      const before = sent.get(messageId);
      if (before) expect(Buffer.from(before.raw).equals(raw)).toBe(true);
      sent.set(messageId, { raw, bcc: bcc.length, times: (before?.times ?? 0) + 1 });
      return { messageId };
    },
  });
  const outboxOf = (mailbox: Mailbox) =>
    new Outbox(
      () => mailbox,
      post,
      async () => undefined,
      (says) => told.push(says),
    );
  return { sent, told, refusing, outboxOf };
}

const begin = async (mailbox: Mailbox, how: DraftContent['how'], answers: number[], id = 'd', rich = false) => {
  const result = await beginDraft(mailbox, { id, how, answers, rich, given: {} });
  if (!result.ok) throw new Error(result.error);
  return result.draft;
};
/** Writes into a draft, as the page does. */
const write = (mailbox: Mailbox, id: string, some: Partial<DraftContent>) => {
  const draft = mailbox.drafts.get(id);
  if (!draft) throw new Error('no draft');
  return keepDraft(mailbox, id, { ...draft, at: mailbox.now(), ...some });
};
const placeOf = (mailbox: Mailbox, id: number) => mailbox.tables.places.items[mailbox.columns.place[id]];

test('what each kind begins with', async () => {
  const mailbox = await withMail();
  expect(await begin(mailbox, 'reply all', [0], 'a')).toMatchObject({
    account: 'me',
    to: 'Ann <ann@x.test>',
    cc: 'cy@x.test',
    subject: 'Re: Berth',
    newer: 1,
  });
  const reply = await begin(mailbox, 'reply', [1], 'b');
  expect(reply).toMatchObject({ to: 'Bob <bob@x.test>', cc: '', newer: 0 });
  expect(reply.quoted.text).toMatch(/^Bob wrote on .*:\n> Text 2/);
  expect(reply.quoted.html).toMatch(/<blockquote><p>Text 2<\/p><\/blockquote>$/);
  expect(await begin(mailbox, 'forward', [0], 'c')).toMatchObject({ to: '', subject: 'Fwd: Berth' });
  const attached = await begin(mailbox, 'attach', [0, 1], 'e');
  expect(attached).toMatchObject({ subject: 'Fwd: 2 messages', quoted: { text: '' } });
  expect(attached.files.map(({ message, type }) => [message, type])).toEqual([
    [0, 'message/rfc822'],
    [1, 'message/rfc822'],
  ]);
  expect(await beginDraft(mailbox, { id: 'f', how: 'reply', answers: [9], rich: true, given: {} })).toMatchObject({
    ok: false,
  });
});

test('kept as it is typed, over a restart; older keystrokes write over nothing; what nothing was written in goes', async () => {
  const store = memoryStore();
  const mailbox = await withMail(store);
  await begin(mailbox, 'reply', [0]);
  await begin(mailbox, 'new', [], 'empty');
  await write(mailbox, 'd', { text: 'Four', at: testTime + 2 });
  expect(await write(mailbox, 'd', { text: 'Fo', at: testTime + 1 })).toEqual({ ok: true });
  await mailbox.flush();
  const again = await openMailbox(store);
  opened.push(again);
  await again.drafts.ready();
  expect(again.drafts.list().map(({ id, text }) => [id, text])).toEqual([['d', 'Four']]);
  expect(again.drafts.get('empty')).toBeNull();
});

test('thrown away it is in no list; brought back it is as it was', async () => {
  const mailbox = await withMail();
  await begin(mailbox, 'reply', [0]);
  await write(mailbox, 'd', { text: 'Four' });
  await throwDraft(mailbox, 'd', true);
  expect(mailbox.drafts.list()).toEqual([]);
  await throwDraft(mailbox, 'd', false);
  expect(mailbox.drafts.list()[0].text).toBe('Four');
});

test('sent when its moment has come: tied to what it answers, Bcc named to nobody, the answered one put away', async () => {
  const mailbox = await withMail();
  const { sent, outboxOf, told } = office();
  const outbox = outboxOf(mailbox);
  const draft = await begin(mailbox, 'reply', [1]);
  await write(mailbox, 'd', { text: 'Ja, grüß Gott', bcc: 'eve@x.test', after: 'archive' });
  expect(await outbox.send('d', testTime + 10_000, 60)).toEqual({ ok: true });
  expect(outbox.next(testTime)).toBe(testTime + 10_000);
  await outbox.due(testTime + 9_999);
  expect(sent.size).toBe(0);
  expect(placeOf(mailbox, 1)).toBe('inbox');
  expect(await write(mailbox, 'd', { text: 'late' })).toMatchObject({ ok: false });
  await outbox.due(testTime + 10_000);
  const [{ raw, bcc }] = sent.values();
  expect(parseEnvelope(raw)).toMatchObject({
    from: { name: 'Mé', address: 'me@y.test' },
    references: ['1', '2'],
    date: testTime + 10_000,
  });
  expect(unflowed(bodyText(raw, parseStructure(raw)), false)).toMatch(/^Ja, grüß Gott\n\nBob wrote on/);
  expect(Buffer.from(raw).toString()).not.toMatch(/eve/);
  expect(bcc).toBe(1);
  expect(placeOf(mailbox, 1)).toBe('archive');
  expect(mailbox.drafts.get('d')).toBeNull();
  expect(told[0]).toMatch(/^Sent to .*Bob.*, and 1 message went to the Archive\. It stands in Sent\.$/);
  expect(draft.answers).toEqual([1]);
});

test('taken back before its moment nothing goes and nothing follows; then it is too late', async () => {
  const mailbox = await withMail();
  const { sent, outboxOf } = office();
  const outbox = outboxOf(mailbox);
  await begin(mailbox, 'reply', [1]);
  await write(mailbox, 'd', { text: 'Four', after: 'bin' });
  await outbox.send('d', testTime + 10_000, 0);
  expect(await outbox.takeBack('d')).toEqual({ ok: true });
  await outbox.due(testTime + 20_000);
  expect([sent.size, placeOf(mailbox, 1), mailbox.drafts.get('d')?.text]).toEqual([0, 'inbox', 'Four']);
  await outbox.send('d', testTime, 0);
  const going = outbox.due(testTime);
  expect(await outbox.takeBack('d')).toEqual({ ok: false, error: 'It has gone already.' });
  await going;
  expect(sent.size).toBe(1);
});

test.each([
  [{ to: 'ann', cc: '' }, 'To: “ann” is no address: it has no @.'],
  [{ to: '', cc: '' }, 'Name somebody to send it to.'],
  [{ account: 'other' }, 'Choose the account from which to send.'],
])('not sent: %j', async (some, error) => {
  const mailbox = await withMail();
  const { sent, outboxOf } = office();
  await begin(mailbox, 'reply', [1]);
  await write(mailbox, 'd', some);
  expect(await outboxOf(mailbox).send('d', testTime, 0)).toEqual({ ok: false, error });
  expect(sent.size).toBe(0);
});

test('a newer message is said once; what the post office refuses stays, says why, and goes at another try', async () => {
  const mailbox = await withMail();
  const { sent, told, refusing, outboxOf } = office();
  const outbox = outboxOf(mailbox);
  await begin(mailbox, 'reply', [1]);
  await write(mailbox, 'd', { text: 'Four' });
  const late = mailOf({
    From: 'ann@x.test',
    'Message-ID': '<3>',
    References: '<2>',
    Date: 'Tue, 24 Nov 2026 11:00:00 +0000',
  });
  await addMessages(mailbox, [late], { command: 'late', by: 'post office', says: 'Arrived' });
  expect(await outbox.send('d', testTime, 0)).toMatchObject({
    ok: false,
    error: expect.stringMatching(/newer message/) as string,
  });
  refusing.reason = 'The post office does not answer.';
  expect(await outbox.send('d', testTime, 0)).toEqual({ ok: true });
  await outbox.due(testTime);
  expect(mailbox.drafts.get('d')).toMatchObject({ due: null, error: 'The post office does not answer.', text: 'Four' });
  expect(told[0]).toMatch(/could not be sent: The post office does not answer\. It stands in Drafts\./);
  refusing.reason = null;
  await outbox.send('d', testTime, 0);
  await outbox.due(testTime);
  expect(sent.size).toBe(1);
});

test('own mail has no post office: nothing is said to be sent; the draft is a file that another program sends', async () => {
  const mailbox = await withMail();
  mailbox.postOn = false;
  const { outboxOf } = office();
  await begin(mailbox, 'reply', [1]);
  await write(mailbox, 'd', { subject: 'Re: a/b', text: 'Four', bcc: 'eve@x.test' });
  expect(await outboxOf(mailbox).send('d', testTime, 0)).toMatchObject({
    ok: false,
    error: expect.stringMatching(/no post office/) as string,
  });
  const file = await draftAsFile(mailbox, 'd', 60);
  if (!file.ok) throw new Error(file.error);
  expect(file.name).toBe('Re a b.eml');
  const raw = Buffer.from(await file.blob.arrayBuffer()).toString();
  expect(raw).toMatch(/^Bcc: eve@x\.test\r$/m);
  expect(raw).toMatch(/^In-Reply-To: <2>\r$/m);
});

test('files go along; a message forwarded as a file is read where it stands; what is gone is said', async () => {
  const mailbox = await withMail();
  const { sent, outboxOf } = office();
  const outbox = outboxOf(mailbox);
  const draft = await begin(mailbox, 'attach', [0]);
  await keepDraftFile(mailbox, 'd', 'f1', new Uint8Array([1, 2, 3]));
  const plan = { id: 'f1', name: 'plan.pdf', type: 'application/pdf', size: 3 };
  await write(mailbox, 'd', { to: 'ann@x.test', files: [...draft.files, plan] });
  await outbox.send('d', testTime, 0);
  await outbox.due(testTime);
  const [{ raw }] = sent.values();
  expect(parseEnvelope(raw).attachments.map(({ name }) => name)).toEqual(['Berth.eml', 'plan.pdf']);
  await begin(mailbox, 'new', [], 'g');
  await write(mailbox, 'g', { to: 'ann@x.test', files: [{ ...plan, id: 'gone' }] });
  expect(await outbox.send('g', testTime, 0)).toMatchObject({
    ok: false,
    error: expect.stringMatching(/“plan\.pdf” can’t be read/) as string,
  });
});

test('what may be regretted, and whom one may mean', async () => {
  const mailbox = await withMail();
  const draft = await begin(mailbox, 'reply all', [0]);
  const content = { ...draft, at: 1, text: 'The plan is attached.', subject: '', cc: 'stranger@far.test' };
  const about = await aboutDraft(mailbox, content, 3);
  expect(about).toMatchObject({ newer: 1, newest: { id: 1 } });
  expect(about.regrets).toEqual([
    'It speaks of something attached, and nothing is.',
    'It has no subject.',
    'You have never written to stranger@far.test.',
    'You answer an older message: 1 message came after it.',
  ]);
  // From how many on they are many is the person’s own choice.
  const people = readRecipients([content.to, content.cc].join()).named.length;
  const said = `It goes to ${people} people.`;
  expect((await aboutDraft(mailbox, content, people)).regrets).toContain(said);
  expect((await aboutDraft(mailbox, content, people + 1)).regrets).not.toContain(said);
  const own = mailOf({ From: 'me@y.test', To: 'Ann Berg <ann@x.test>, Anton <anton@z.test>', 'Message-ID': '<s>' });
  const again = mailOf({ From: 'me@y.test', To: 'anton@z.test', 'Message-ID': '<t>' });
  await addMessages(mailbox, [own, again], { command: 'own', by: 'post office', says: 'Arrived' });
  expect((await recipientsLike(mailbox, 'an', 5)).map(({ address }) => address)).toEqual([
    'anton@z.test',
    'ann@x.test',
  ]);
  expect(await recipientsLike(mailbox, 'berg', 5)).toHaveLength(1);
  const alike = await aboutDraft(mailbox, { ...draft, to: 'ann@х.test', cc: '' }, 20);
  expect(alike.regrets[0]).toMatch(/looks like x\.test/);
});

const runs = Number(process.env.RUNS ?? 60);

test('over random edits, kills and tries a draft goes exactly once, or not at all where it was taken back', async () => {
  const step = fc.oneof(
    {
      weight: 4,
      arbitrary: fc.record({ do: fc.constant('type' as const), text: fc.string({ minLength: 1, maxLength: 8 }) }),
    },
    // A tab types, and hangs before it says so; another one types on. What the first had typed comes after it, or with it.
    fc.record({ do: fc.constant('hang' as const), text: fc.string({ minLength: 1, maxLength: 8 }) }),
    fc.record({ do: fc.constant('late' as const), with: fc.option(fc.string({ minLength: 1, maxLength: 8 })) }),
    fc.record({ do: fc.constant('send' as const), wait: fc.integer({ min: 0, max: 3 }) }),
    fc.constant({ do: 'back' as const }),
    { weight: 2, arbitrary: fc.record({ do: fc.constant('pass' as const), seconds: fc.integer({ min: 1, max: 3 }) }) },
    fc.constant({ do: 'refuse' as const }),
    { weight: 3, arbitrary: fc.record({ do: fc.constant('kill' as const), writes: fc.integer({ min: 1, max: 5 }) }) },
  );
  await fc.assert(
    fc.asyncProperty(fc.array(step, { maxLength: 14 }), async (steps) => {
      const records = new Map<string, unknown>();
      let mailbox = await withMail(memoryStore(records));
      await mailbox.flush();
      const { sent, refusing, outboxOf } = office();
      let outbox = outboxOf(mailbox);
      let now = testTime;
      let typed = '';
      let typedAt = now;
      let hanging: { text: string; at: number } | null = null;
      await begin(mailbox, 'reply', [1]);
      await write(mailbox, 'd', { after: 'archive', at: now });
      const type = async (text: string, at: number) => {
        const draft = mailbox.drafts.get('d');
        if (!draft) return;
        const waits = draft.due !== null || draft.gone;
        if (!(await keepDraft(mailbox, 'd', { ...draft, text, at })).ok || waits || at < typedAt) return;
        [typed, typedAt] = [text, at];
      };
      const reopen = async (store: RecordStore) => {
        mailbox.close();
        mailbox = await openMailbox(store);
        mailbox.postOn = true;
        await mailbox.drafts.ready();
        outbox = outboxOf(mailbox);
      };
      /** Does something in which the power may go; then it is opened again. */
      const risky = async (work: () => Promise<unknown>) => {
        try {
          await work();
        } catch (error) {
          if (!(error instanceof PowerCut) && !/nothing was changed/.test(String(error))) throw error;
          await reopen(memoryStore(records));
        }
      };
      for (const one of steps) {
        now += 1;
        if (one.do === 'type') await risky(() => type(one.text, now));
        else if (one.do === 'hang') hanging = { text: one.text, at: now };
        else if (one.do === 'late') {
          const { text, at }: { text: string; at: number } = hanging ?? { text: typed, at: typedAt };
          hanging = null;
          const newer = one.with;
          await risky(() => Promise.all([...(newer === null ? [] : [type(newer, now)]), type(text, at)]));
        } else if (one.do === 'send') await risky(() => outbox.send('d', now + one.wait * 1_000, 0));
        else if (one.do === 'back') await risky(() => outbox.takeBack('d'));
        else if (one.do === 'refuse') refusing.reason = refusing.reason === null ? 'No.' : null;
        else if (one.do === 'kill') await reopen(storeWithPowerCut(records, one.writes));
        else if (one.do === 'pass') {
          now += one.seconds * 1_000;
          await risky(() => outbox.due(now));
        }
        // Never older than what was kept, never double.
        const kept = mailbox.drafts.get('d');
        if (kept && !kept.gone && kept.due === null) expect(kept.text).toBe(typed);
        expect(mailbox.drafts.list().length).toBeLessThanOrEqual(1);
      }
      await reopen(memoryStore(records));
      refusing.reason = null;
      const waiting = mailbox.drafts.get('d');
      const goes = waiting === null || waiting.due !== null || waiting.gone;
      await outbox.due(now + 60_000);
      expect(sent.size).toBe(goes ? 1 : 0);
      expect(placeOf(mailbox, 1)).toBe(goes ? 'archive' : 'inbox');
      expect(mailbox.drafts.list().length).toBe(goes ? 0 : 1);
      mailbox.close();
    }),
    { numRuns: runs },
  );
});
