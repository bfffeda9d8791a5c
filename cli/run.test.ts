import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { demoSetup } from '../demo/setup';
import { cli as printed, put } from './testing';

async function cli(...args: string[]) {
  const said = await printed(...args);
  const lines = () =>
    said.out
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as Record<string, unknown>);
  return { ...said, lines };
}

const demo = async (count: number) =>
  (await cli('demo', '--count', String(count), '--seed', '5', '--now', '2026-11-24T10:00:00Z')).bytes;

test('it runs as a process of its own, as npm run cli starts it', () => {
  const main = path.join(__dirname, 'main.ts');
  const out = execFileSync(process.execPath, ['--import', 'tsx', main, 'demo', '--count', '2', '--seed', '5']);
  expect(out.toString()).toMatch(/^From /);
});

test('demo writes an mbox that summary counts', async () => {
  const bytes = await demo(40);
  const file = put('demo.mbox', bytes);
  const { code, lines } = await cli('summary', file, '--json');
  expect(code).toBe(0);
  expect(lines()).toEqual([{ messages: 40, damaged: 0, bytes: expect.any(Number) }]);
  expect((await demo(40)).equals(bytes)).toBe(true);
});

test('messages: one object a line, numbered across files', async () => {
  const one = put(
    'one.eml',
    'From: Ana <a@b.test>\nTo: c@d.test\nDate: Fri, 21 Nov 1997 09:55:06 -0600\nMessage-ID: <1@b.test>\nSubject: =?utf-8?Q?Caf=C3=A9?=\n\nHello\n',
  );
  const two = put('two.eml', 'Subject: no sender, no date\n\n');
  const { lines } = await cli('messages', one, two, '--json');
  expect(lines()).toEqual([
    {
      index: 0,
      messageId: '1@b.test',
      date: '1997-11-21T15:55:06.000Z',
      from: { name: 'Ana', address: 'a@b.test' },
      to: [{ name: '', address: 'c@d.test' }],
      cc: [],
      subject: 'Café',
      attachments: [],
      textLength: 6,
    },
    expect.objectContaining({ index: 1, date: null, from: { name: '', address: '' } }),
  ]);
});

test('threads: the conversations of all files together, their messages by date, and what each answers', async () => {
  const message = (id: string, minute: number, references: string, subject: string) =>
    `From: ${id}@b.test\nTo: c@d.test\nDate: Fri, 21 Nov 1997 09:0${minute}:00 +0000\nMessage-ID: <${id}>\n${references}Subject: ${subject}\n\nx\n`;
  const one = put('t1.eml', message('m2', 2, 'References: <m1>\n', 'Re: Tide'));
  const two = put('t2.eml', message('m1', 1, '', 'Tide'));
  const three = put('t3.eml', message('x', 3, '', 'Invoice'));
  const { lines } = await cli('threads', one, two, three, '--json');
  expect(lines()).toEqual([
    { conversation: 0, members: [1, 0], parents: [null, 1] },
    { conversation: 2, members: [2], parents: [null] },
  ]);
});

test('the setup that the documentation shows is one', async () => {
  const page = readFileSync(path.join(__dirname, '../docs/setup.md'), 'utf8');
  const setup = put('documented.json', /```json\n([\s\S]*?)```/.exec(page)?.[1] ?? '');
  const mail = put('gale.eml', 'From: x@y.test\nSubject: Gale warning\n\n');
  const { lines } = await cli('sort', mail, '--setup', setup, '--json');
  expect(lines()).toMatchObject([{ place: 'folder:f1', labels: ['To read'] }]);
});

test('sort: the place, the labels and the trace of every message', async () => {
  const setup = put('setup.json', JSON.stringify(demoSetup(0)));
  const mail = put('sort.mbox', await demo(300));
  const { lines } = await cli('sort', mail, '--setup', setup, '--json');
  expect(lines()).toHaveLength(300);
  for (const { score, evidence } of lines()) {
    expect(score).toBeGreaterThanOrEqual(0);
    expect(score).toBeLessThanOrEqual(100);
    expect(evidence).toContainEqual({ says: expect.any(String), weight: expect.any(Number) });
  }
  const alarm = lines().find((l) => (l.labels as string[]).includes('Alarm'));
  expect(alarm).toMatchObject({
    place: 'folder:notices',
    trace: [
      { station: 'register', by: null },
      { station: 'junk', by: 'junk' },
      { station: 'rules', by: 'rule:machines' },
    ],
  });
});

describe('trays and the timetable', () => {
  const setup = (zone: string | null) =>
    put(
      'delivery.json',
      JSON.stringify({
        ...demoSetup(0),
        register: [],
        rules: [],
        trays: [
          {
            id: 't',
            name: 'Bulletins',
            when: { match: 'any', of: [{ field: 'from', how: 'domain', text: 'b.test' }] },
            labels: [],
            round: { by: 'hours', days: ['MO'], times: ['07:00'] },
            since: 0,
          },
        ],
        delivery: { morning: 8, zone, timetable: { on: true, open: [], times: [{ day: 'SU', at: '02:30' }] } },
      }),
    );

  test('moments: every delivery between two, with the offset of the zone then', async () => {
    const { code, lines } = await cli(
      ...[
        'moments',
        setup('Europe/Copenhagen'),
        '--from',
        '2026-03-28T00:00:00Z',
        '--to',
        '2026-03-30T05:00:00Z',
        '--json',
      ],
    );
    expect(code).toBe(0);
    expect(lines()).toEqual([
      { at: '2026-03-29T03:30:00+02:00', what: 'timetable', name: 'fixed time' },
      { at: '2026-03-30T07:00:00+02:00', what: 'tray', name: 'Bulletins' },
    ]);
  });

  test('sort: the tray and until when', async () => {
    const mail = put('b.eml', 'From: x@b.test\nSubject: Bulletin\n\nNews\n');
    const other = put('c.eml', 'From: x@c.test\nSubject: Berth\n\nNews\n');
    const file = setup('America/New_York');
    const { lines } = await cli('sort', mail, other, '--setup', file, '--now', '2026-11-24T10:00:00Z', '--json');
    // The timetable has the tray’s round of Monday wait for its own time, on Sunday.
    expect(lines()[0]).toMatchObject({ place: 'held', tray: 'Bulletins', until: '2026-12-06T02:30:00-05:00' });
    expect(lines()[1]).toMatchObject({ place: 'held', tray: null, until: '2026-11-29T02:30:00-05:00' });
  });

  test('what is wrong is said, with exit code 2', async () => {
    expect(await cli('moments', setup('Nowhere/At_All'), '--from', '2026-01-01', '--to', '2026-01-02')).toMatchObject({
      code: 2,
      error: expect.stringContaining('delivery.zone: must be the name of a time zone'),
    });
    expect(await cli('moments', setup(null), '--from', 'soon', '--to', '2026-01-02')).toMatchObject({ code: 2 });
    expect(await cli('moments', setup(null), '--from', '2026-01-02', '--to', '2026-01-01')).toMatchObject({ code: 2 });
  });
});

describe('junk-eval', () => {
  const mbox = (name: string, subjects: string[]) =>
    put(
      name,
      subjects
        .map(
          (s, i) =>
            `From x Thu Aug 22 12:36:23 2002\nFrom: p${i}@${name}.test\nSubject: ${s} ${i}\n\n${s} ${s} ${i}\n\n`,
        )
        .join(''),
    );
  const many = (word: string) => Array.from({ length: 20 }, () => word);
  const good = mbox('good', many('gangway rota'));
  const junk = mbox('junk', many('guaranteed prize'));

  test('by folds, and on mail kept apart', async () => {
    const folds = await cli('junk-eval', '--good', good, '--junk', junk, '--folds', '4', '--seed', '3');
    const figures = { good: 20, junk: 20, auc1: 0, recall0: 100, recall01: 100, recall05: 100 };
    expect(folds.lines()).toEqual([
      { ...figures, messagesPerSecond: { training: expect.any(Number), scoring: expect.any(Number) } },
    ]);
    const apart = await cli(
      'junk-eval',
      '--train-good',
      good,
      '--train-junk',
      junk,
      '--test-good',
      good,
      '--test-junk',
      junk,
    );
    expect(apart.lines()).toMatchObject([figures]);
  });

  test('as one lives with it: in the order of arrival, every message marked, or only what was wrong or in doubt', async () => {
    const all = await cli('junk-eval', '--online', '--good', good, '--junk', junk);
    expect(all.lines()).toMatchObject([{ good: 20, junk: 20, marks: 40 }]);
    const few = await cli('junk-eval', '--online', '--errors-only', '--shuffled', '--good', good, '--junk', junk);
    const [{ marks, recall05 }] = few.lines() as { marks: number; recall05: number }[];
    // The first of each kind can’t be known; after them nothing new is said.
    expect(marks).toBeGreaterThanOrEqual(2);
    expect(marks).toBeLessThan(10);
    expect(recall05).toBeGreaterThan(50);
  });

  test.each([
    ['errors only without online', ['--good', good, '--junk', junk, '--errors-only'], /goes with --online/],
    ['an order without online', ['--good', good, '--junk', junk, '--shuffled'], /goes with --online/],
    [
      'online on mail kept apart',
      ['--online', '--train-good', good, '--train-junk', junk, '--test-good', good, '--test-junk', junk],
      /keeps nothing apart/,
    ],
    ['nothing to learn from', ['--good', good], /has no junk in it: both kinds are needed/],
    ['nothing at all', [], /has no mail in it/],
    ['files without an option', [good], /takes its files by --good/],
    ['both ways at once', ['--good', good, '--train-junk', junk], /^Either --good and --junk/],
    ['one fold', ['--good', good, '--junk', junk, '--folds', '1'], /--folds must be a whole number from 2 up/],
  ])('%s is said, with exit code 2', async (_what, args, error) => {
    const result = await cli('junk-eval', ...args);
    expect([result.code, result.out]).toEqual([2, '']);
    expect(result.error).toMatch(error);
  });
});

test('how it is used is said when it is asked for', async () => {
  expect(await cli('help')).toMatchObject({ code: 0, error: '', out: expect.stringMatching(/^usage: /) });
});

test.each([
  ['no verb', [], /^usage: /],
  ['an unknown verb', ['dance'], /^There is no verb “dance”/],
  ['an unknown option', ['summary', 'x', '--loud'], /--loud[^]*\nusage: /],
  ['no file', ['summary'], /^Name at least one file/],
  ['a file that is not there', ['summary', '/nowhere.mbox'], /^\/nowhere\.mbox: there is no such file/],
  ['a folder', ['summary', tmpdir()], /it is a folder/],
  ['a picture', ['summary', put('p.mbox', Uint8Array.of(137, 80, 78, 71))], /it is no mail/],
  ['an empty file', ['messages', put('e.mbox', '')], /it is empty/],
  ['no setup', ['sort', put('m.eml', 'A: b\n\n')], /^sort needs --setup/],
  [
    'a setup that is none',
    ['sort', put('n.eml', 'A: b\n\n'), '--setup', put('bad.json', '{"version":1}')],
    /bad\.json: format: /,
  ],
  [
    'a setup of a newer version',
    ['sort', put('o.eml', 'A: b\n\n'), '--setup', put('new.json', '{"version":9}')],
    /version 9 is newer/,
  ],
  ['a count that is none', ['demo', '--count', '-3'], /count/],
  ['a time that is none', ['demo', '--count', '1', '--now', 'soon'], /--now must be a time/],
])('%s: one clear line, exit code 2', async (_what, args, message) => {
  const { code, error, out } = await cli(...args);
  expect(code).toBe(2);
  expect(out).toBe('');
  expect(error).toMatch(message);
  // Where an option is wrong, how it is used follows.
  if (args.length > 1 && !error.includes('usage: ')) expect(error.trimEnd().split('\n')).toHaveLength(1);
});
