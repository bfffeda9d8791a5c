// Every call of the border gets an answer, whatever it is asked with: a result, or what is wrong. Nothing waits for ever.
import { emptySetup } from '../../core/line/setup';
import type { Mailroom } from '../border/mailroom';
import { memoryStore } from '../storage/recordStore';
import { starter } from '../testing/serviceTesting';
import { testPost } from '../testing/testPost';
import * as rest from './rest';

// Watched, so that the calls which come with the rest are known by name.
jest.mock('./rest', () => {
  const { restOf } = jest.requireActual<typeof rest>('./rest');
  return { restOf: jest.fn(restOf) };
});
const start = starter(() => emptySetup);
const inbox = { kind: 'place', place: 'inbox' } as const;
const single = { grouped: false, elsewhere: true };

const text = Array.from(
  { length: 12 },
  (_, n) =>
    `From x@y.test Thu Aug 22 12:36:23 2002\nFrom: Ann <a${n}@b.test>\nTo: me@y.test\nSubject: Message ${n}\nMessage-ID: <${n}@b.test>\n\nText of ${n}\n\n`,
).join('');

async function withMail(): Promise<Mailroom> {
  const { service } = await start(testPost({}), memoryStore());
  await service.begin('own');
  await service.importFiles('job', [new File([text], 'a.mbox')], 'line');
  return service;
}

/** The end of a question: what came of it, or “unanswered” after half a minute: other work on the machine may hold it up. */
async function endOf(ask: () => unknown): Promise<'answered' | 'refused' | 'unanswered'> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<'unanswered'>((done) => (timer = setTimeout(() => done('unanswered'), 30_000)));
  const asked = (async () => {
    try {
      await ask();
      return 'answered' as const;
    } catch {
      return 'refused' as const;
    }
  })();
  const end = await Promise.race([asked, late]);
  clearTimeout(timer);
  return end;
}

const queries = [
  ...['from ""', 'subject ""', 'to ""', 'cc ""', 'bcc ""', 'body ""', 'text ""', '""', 'not ""', 'or "" ""'],
  ...[
    'header x ""',
    'header "" ""',
    'header subject ""',
    'from',
    'from:ann',
    '(',
    ')',
    '((',
    'not',
    'or a',
    'larger x',
  ],
  ...['before 31-Feb-2026', 'on tomorrow', 'keyword ""', 'keyword nowhere', '\u0000', '"\\', 'a'.repeat(10_000)],
  ...['* % _', '\u202e', 'i\u0307', '\ud800', ' ', '(from "" subject "")', `${'('.repeat(500)}a${')'.repeat(500)}`],
];

test.each(queries)('the query %p is answered, in every way in which it can be asked', async (query) => {
  const service = await withMail();
  const view = { kind: 'found', query, within: null } as const;
  const asks: (() => unknown)[] = [
    () => service.rows(view, single, 0, 50),
    () => service.rows(view, { grouped: true, elsewhere: true }, 0, 50),
    () => service.rows({ ...inbox, lane: { by: 'query', query } }, single, 0, 50),
    () => service.counts([view]),
    () => service.months(view, single),
    () => service.passages(query, [0, 1, 2]),
    () => service.held(view, single, 'all', 0, 50),
    () => service.position(view, single, 0),
    () => service.whereWent(query),
    () => service.people(query, 5),
    () => service.exportMail({ view }, 'mbox'),
    () => service.senders({ words: query } as never, 0, 10),
  ];
  expect(await Promise.all(asks.map(endOf))).not.toContain('unanswered');
});

const odd: unknown[] = [
  undefined,
  null,
  '',
  'x',
  'x'.repeat(100_000),
  -1,
  0,
  1e9,
  1e300,
  NaN,
  Infinity,
  true,
  {},
  [],
  [-1],
  [1e9],
  ['x'],
  { ids: [-1] },
  { ids: [] },
  { kind: 'place', place: 'nowhere' },
  { kind: 'place', place: 'folder:gone' },
  { kind: 'label', label: 'gone' },
  { kind: 'found', query: 'from ""', within: null },
  { do: 'move', place: 'folder:gone' },
];

test('every call is answered when all or one of what it is given is odd', async () => {
  const service = await withMail();
  await service.exportSetup();
  const names = [
    ...Object.keys(service),
    ...Object.keys(jest.mocked(rest.restOf).mock.results[0].value as object),
  ] as (keyof Mailroom)[];
  const calls = names.map((name) => [name, service[name] as (...args: unknown[]) => unknown] as const);
  expect(calls.length).toBeGreaterThan(45);
  const unanswered: string[] = [];
  for (const [name, call] of calls) {
    // Last of all, since it begins anew.
    if (name === 'eraseAll') continue;
    const tries = odd.flatMap((value) => [
      [value, value, value, value, value],
      [inbox, value, 0, 10, value],
      ['command', value, { do: 'read', value: true }],
      ['command', { ids: [0] }, value, value],
    ]);
    const ends = await Promise.all(tries.map((args) => endOf(() => call(...args))));
    for (const [n, end] of ends.entries())
      if (end === 'unanswered') unanswered.push(`${name}(${JSON.stringify(tries[n]).slice(0, 100)})`);
  }
  expect(unanswered).toEqual([]);
  // And the mailbox is as it was to be asked.
  expect(await service.rows(inbox, single, 0, 50)).toMatchObject({ rows: expect.any(Array) });
});
