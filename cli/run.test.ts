import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { demoSetup } from '../demo/setup';
import { run } from './run';

const folder = mkdtempSync(path.join(tmpdir(), 'wide-sort-cli-'));
const written = (name: string, content: string | Uint8Array): string => {
  const file = path.join(folder, name);
  writeFileSync(file, content);
  return file;
};

async function cli(...args: string[]) {
  let out = '';
  let error = '';
  const bytes: Uint8Array[] = [];
  const code = await run(args, {
    out: (text) => (out += text),
    error: (text) => (error += text),
    binary: async (part) => void bytes.push(part),
  });
  const lines = () =>
    out
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as Record<string, unknown>);
  return { code, out, error, lines, bytes: Buffer.concat(bytes) };
}

const demo = async (count: number) =>
  (await cli('demo', '--count', String(count), '--seed', '5', '--now', '2026-11-24T10:00:00Z')).bytes;

test('demo writes an mbox that summary counts', async () => {
  const bytes = await demo(40);
  const file = written('demo.mbox', bytes);
  const { code, lines } = await cli('summary', file, '--json');
  expect(code).toBe(0);
  expect(lines()).toEqual([{ messages: 40, damaged: 0, bytes: expect.any(Number) }]);
  expect((await demo(40)).equals(bytes)).toBe(true);
});

test('messages: one object a line, numbered across files', async () => {
  const one = written(
    'one.eml',
    'From: Ana <a@b.test>\nTo: c@d.test\nDate: Fri, 21 Nov 1997 09:55:06 -0600\nMessage-ID: <1@b.test>\nSubject: =?utf-8?Q?Caf=C3=A9?=\n\nHello\n',
  );
  const two = written('two.eml', 'Subject: no sender, no date\n\n');
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

test('the setup that the documentation shows is one', async () => {
  const page = readFileSync(path.join(__dirname, '../docs/setup.md'), 'utf8');
  const setup = written('documented.json', /```json\n([\s\S]*?)```/.exec(page)?.[1] ?? '');
  const mail = written('gale.eml', 'From: x@y.test\nSubject: Gale warning\n\n');
  const { lines } = await cli('sort', mail, '--setup', setup, '--json');
  expect(lines()).toMatchObject([{ place: 'folder:f1', labels: ['To read'] }]);
});

test('sort: the place, the labels and the trace of every message', async () => {
  const setup = written('setup.json', JSON.stringify(demoSetup(0)));
  const mail = written('sort.mbox', await demo(300));
  const { lines } = await cli('sort', mail, '--setup', setup, '--json');
  expect(lines()).toHaveLength(300);
  const alarm = lines().find((l) => (l.labels as string[]).includes('Alarm'));
  expect(alarm).toMatchObject({
    place: 'folder:notices',
    trace: [
      { station: 'register', by: null },
      { station: 'rules', by: 'rule:machines' },
    ],
  });
});

test.each([
  ['no verb', [], /^usage: /],
  ['an unknown verb', ['dance'], /^There is no verb “dance”/],
  ['an unknown option', ['summary', 'x', '--loud'], /--loud/],
  ['no file', ['summary'], /^Name at least one file/],
  ['a file that is not there', ['summary', '/nowhere.mbox'], /^\/nowhere\.mbox: there is no such file/],
  ['a folder', ['summary', folder], /it is a folder/],
  ['a picture', ['summary', written('p.mbox', Uint8Array.of(137, 80, 78, 71))], /it is no mail/],
  ['an empty file', ['messages', written('e.mbox', '')], /it is empty/],
  ['no setup', ['sort', written('m.eml', 'A: b\n\n')], /^sort needs --setup/],
  [
    'a setup that is none',
    ['sort', written('n.eml', 'A: b\n\n'), '--setup', written('bad.json', '{"version":1}')],
    /bad\.json: format: /,
  ],
  [
    'a setup of a newer version',
    ['sort', written('o.eml', 'A: b\n\n'), '--setup', written('new.json', '{"version":9}')],
    /version 9 is newer/,
  ],
  ['a count that is none', ['demo', '--count', '-3'], /count/],
  ['a time that is none', ['demo', '--count', '1', '--now', 'soon'], /--now must be a time/],
])('%s: one clear line, exit code 2', async (_what, args, message) => {
  const { code, error, out } = await cli(...args);
  expect(code).toBe(2);
  expect(out).toBe('');
  expect(error).toMatch(message);
  if (args.length > 1) expect(error.trimEnd().split('\n')).toHaveLength(1);
});
