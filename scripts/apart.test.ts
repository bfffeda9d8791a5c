// Nobody knows how long a stranger's message keeps whoever takes it apart: the workers do that, which are replaced.
import { execFileSync } from 'node:child_process';
import path from 'node:path';

const root = path.join(__dirname, '..');

const [mailroom, page, parser] = [
  'src/mailroom/mailroom.worker.ts',
  'src/app/main.tsx',
  'src/mailroom/reading/parse.worker.ts',
];

/** The files that run with each entry. */
const running = (() => {
  const code = `import { runsWith } from './scripts/imports.mjs';
    console.log(JSON.stringify(process.argv.slice(1).map((entry) => [entry, runsWith('.', entry)])));`;
  const args = ['--input-type=module', '-e', code, mailroom, page, parser];
  return new Map(JSON.parse(execFileSync('node', args, { cwd: root, encoding: 'utf8' })) as [string, string[]][]);
})();

/** What takes a message apart: its header and parts, its text, what the junk filter reads. */
const takesApart = ['mail/structure', 'mail/message', 'mail/body', 'mail/textFromHtml', 'mail/envelope', 'mail/shown'];
const files = [...takesApart, 'junk/junkReading'].map((name) => `src/core/${name}.ts`);

test.each([mailroom, page])('nothing that takes messages apart runs with %s', (entry) => {
  expect(running.get(entry)?.length).toBeGreaterThan(50);
  expect(running.get(entry)?.filter((file) => files.includes(file))).toEqual([]);
});

test('it runs in the parse workers', () => {
  expect(running.get(parser)).toEqual(expect.arrayContaining(files));
});
