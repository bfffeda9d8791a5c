// A query asked of all messages here: what reading every message by itself answers, also after moves, undos and new mail.
import fc from 'fast-check';
import { SearchedMessages } from '../../core/search/searched';
import { parseQuery, type Query } from '../../core/search/query';
import { act } from '../commands/acts';
import { addMessages } from '../intake/incoming';
import { here } from '../reading/here';
import { Mailbox } from '../service/mailbox';
import { memoryStore } from '../storage/recordStore';
import { mailOf, openMailbox, testTime } from '../testing/testing';
import { undo } from '../commands/undo';
import { messageOfStored } from '../../core';

const parsed = (text: string): Query => {
  const result = parseQuery(text);
  if (!result.ok) throw new Error(result.error);
  return result.query;
};

const mails = [
  mailOf({ From: 'Ann <ann@x.test>', Subject: 'Fuel for the ferry', 'Message-ID': '<1@x>' }, 'The tank is empty'),
  mailOf(
    { From: 'me@y.test', Subject: 'Re: Fuel for the ferry', References: '<1@x>', 'Message-ID': '<2@y>' },
    'Filled',
  ),
  mailOf(
    { From: 'Bob <bob@x.test>', Subject: 'Rope', 'Message-ID': '<3@x>', Received: 'from dock by quay' },
    'Höchst wet',
  ),
  mailOf(
    { From: 'News <news@z.test>', Subject: 'Tides', 'Message-ID': '<4@z>', 'X-Kind': 'bulk mail' },
    'High tide, low tank',
  ),
];

async function filled(records = new Map<string, unknown>()): Promise<Mailbox> {
  const mailbox = await openMailbox(memoryStore(records));
  await mailbox.exclusive(() => addMessages(mailbox, mails, { command: 'add', by: 'you', says: 'Added' }));
  return mailbox;
}

async function found(mailbox: Mailbox, text: string): Promise<number[]> {
  const query = parsed(text);
  await mailbox.finding.ready(query);
  const bits = mailbox.finding.found(query);
  return Array.from({ length: mailbox.columns.count }, (_, id) => id).filter((id) => bits.has(id));
}

test('states, labels and places are those of the moment', async () => {
  const mailbox = await filled();
  const label = { id: 'l', name: 'Ängine', ink: 'sea' as const };
  await mailbox.exclusive(() =>
    mailbox.commit({
      command: 'setup',
      by: 'you',
      says: 'Set up',
      setup: [
        { list: 'labels', id: 'l', item: label },
        { list: 'accounts', id: 'me', item: { id: 'me', name: 'Me', address: 'me@y.test' } },
      ],
    }),
  );
  const one = (id: number, what: Parameters<typeof act>[3]) =>
    mailbox.exclusive(() => act(mailbox, `act-${mailbox.seq}`, { ids: [id] }, what));
  await one(0, { do: 'read', value: true });
  await one(1, { do: 'flag', value: true });
  await one(2, { do: 'label', label: 'l', value: true });
  await one(3, { do: 'move', place: 'bin' });
  expect(await found(mailbox, 'seen')).toEqual([0]);
  expect(await found(mailbox, 'unseen')).toEqual([1, 2, 3]);
  expect(await found(mailbox, 'flagged')).toEqual([1]);
  expect(await found(mailbox, 'keyword angine')).toEqual([2]);
  expect(await found(mailbox, 'unkeyword "ÄNGINE" undeleted')).toEqual([0, 1]);
  expect(await found(mailbox, 'deleted')).toEqual([3]);
  expect(await found(mailbox, 'draft')).toEqual([]);
  expect(await found(mailbox, 'answered')).toEqual([0]);
  expect(await found(mailbox, 'not answered tank')).toEqual([3]);
  await undo(mailbox, 'undo-bin', mailbox.seq);
  expect(await found(mailbox, 'deleted')).toEqual([]);
});

test('a header field that the index does not keep is read, once, also when asked twice at the same time', async () => {
  const mailbox = await filled();
  expect(await Promise.all([found(mailbox, 'header received quay'), found(mailbox, 'header received quay')])).toEqual([
    [2],
    [2],
  ]);
  expect(await found(mailbox, 'header received nowhere')).toEqual([]);
});

test('the index answers as searching each message by itself does, after additions, moves, undos and a reload', async () => {
  const key = fc.constantFrom(
    ...[
      'tank',
      'body hochst',
      'from x.test',
      'subject "fuel for"',
      'text bulk',
      'header x-kind "bulk m"',
      'to me',
      'all',
    ],
    ...['body "tank is"', 'header received dock', 'text "4@z"', 'smaller 200', 'tide', '"high tide, l"'],
  );
  const query = fc.oneof(
    key,
    key.map((a) => `not ${a}`),
    fc.tuple(key, key).map(([a, b]) => `or ${a} ${b}`),
    fc.tuple(key, key).map(([a, b]) => `${a} not ${b}`),
  );
  const step = fc.oneof(fc.constantFrom('add', 'move', 'undo', 'reload'), query);
  await fc.assert(
    fc.asyncProperty(fc.array(step, { maxLength: 12 }), query, async (steps, last) => {
      const records = new Map<string, unknown>();
      let mailbox = await filled(records);
      for (const [n, what] of [...steps, last].entries()) {
        if (what === 'add')
          await mailbox.exclusive(() =>
            addMessages(mailbox, [mails[n % mails.length]], { command: `add-${n}`, by: 'you', says: 'Added' }),
          );
        else if (what === 'move')
          await mailbox.exclusive(() => act(mailbox, `move-${n}`, { ids: [n % 4] }, { do: 'move', place: 'archive' }));
        else if (what === 'undo') await mailbox.exclusive(() => undo(mailbox, `undo-${n}`, mailbox.seq));
        else if (what === 'reload') {
          await mailbox.flush();
          mailbox.close();
          mailbox = await openMailbox(memoryStore(records));
        } else {
          const each = new SearchedMessages();
          for (let id = 0; id < mailbox.columns.count; id++) {
            const stored = await mailbox.raws.read(id);
            if (stored) each.add(messageOfStored(stored));
          }
          expect(await found(mailbox, what)).toEqual(each.search(parsed(what)));
        }
      }
      mailbox.close();
    }),
    { numRuns: 60 },
  );
});

test('a word is found before conversations are made of what was read; what asks for them waits for all of it', async () => {
  const records = new Map<string, unknown>();
  await (await filled(records)).flush();
  const opened = await Mailbox.open(
    memoryStore(records),
    () => testTime,
    () => undefined,
    here,
  );
  let whole = false;
  void opened.ready().then(() => (whole = true));
  const word: Query = { key: 'words', text: 'tank' };
  await opened.finding.ready(word);
  expect(whole).toBe(false);
  expect([0, 1, 2, 3].filter((id) => opened.finding.found(word).has(id))).toEqual([0, 3]);
  const answered = parsed('answered');
  await opened.finding.ready(answered);
  expect(whole).toBe(true);
});
