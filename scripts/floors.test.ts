// The linter enforces the floors: code that breaks them is refused, code that keeps them is not.
import { execFileSync } from 'node:child_process';
import path from 'node:path';

const root = path.join(__dirname, '..');

/** Lints many snippets in one process: what the linter says of each, by rule. */
function lint(snippets: { file: string; code: string }[]): string[][] {
  const script = `
    import { ESLint } from 'eslint';
    const eslint = new ESLint();
    const out = [];
    for (const { file, code } of JSON.parse(process.argv[1])) {
      const [result] = await eslint.lintText(code, { filePath: file });
      out.push(result.messages.map((m) => m.ruleId));
    }
    console.log(JSON.stringify(out));`;
  const args = ['--input-type=module', '-e', script, JSON.stringify(snippets)];
  return JSON.parse(execFileSync('node', args, { cwd: root, encoding: 'utf8' })) as string[][];
}

const broken: [what: string, file: string, code: string, rule: string][] = [
  ['core that sees the app', 'src/core/mail/x.ts', "import '../../app/paths';", 'floors/down-only'],
  [
    'core that sees the mailroom',
    'src/core/mail/x.ts',
    "export * from '../../mailroom/border/mailroom';",
    'floors/down-only',
  ],
  ['core that sees the server', 'src/core/mail/x.ts', "void import('../../../server/app');", 'floors/down-only'],
  ['core that sees a host’s package', 'src/core/mail/x.ts', "import 'localforage';", 'floors/down-only'],
  ['core that sees Node.js', 'src/core/mail/x.ts', "import 'node:fs';", 'floors/down-only'],
  ['mail that sees the line', 'src/core/mail/x.ts', "import '../line/decide';", 'floors/down-only'],
  ['the mailroom that sees the app', 'src/mailroom/x.ts', "import '../app/paths';", 'floors/down-only'],
  [
    'storage that sees the border',
    'src/mailroom/storage/x.ts',
    "import type {} from '../border/rows';",
    'floors/down-only',
  ],
  ['a question that sees commands', 'src/mailroom/questions/x.ts', "import '../commands/undo';", 'floors/down-only'],
  [
    'a room that sees the mailbox',
    'src/mailroom/search/x.ts',
    "import type {} from '../service/mailbox';",
    'floors/down-only',
  ],
  ['code that sees the tests’ help', 'src/mailroom/client.ts', "import './testing/testing';", 'floors/down-only'],
  ['a circle, types counted', 'src/core/mail/header.ts', "import type {} from './structure';", 'floors/no-circle'],
  ['the app that sees the demo', 'src/app/x.ts', "import '../../demo/mailbox';", 'floors/down-only'],
  ['core that touches the DOM', 'src/core/mail/x.ts', 'export const x = document;', 'no-restricted-globals'],
  ['core that reads the clock', 'src/core/mail/x.ts', 'export const x = Date.now();', 'no-restricted-properties'],
  ['core that makes a date of now', 'src/core/mail/x.ts', 'export const x = new Date();', 'no-restricted-syntax'],
];
const sound = {
  file: 'src/core/line/x.ts',
  code: "import '../mail/address';\nimport 'zod';\nexport const x = new Date(0);",
};
const said = lint([...broken.map(([, file, code]) => ({ file, code })), sound]);

test.each(broken.map(([what, , , rule], at) => ({ what, rule, at })))('$what is refused', ({ rule, at }) => {
  expect(said[at]).toContain(rule);
});

test('what keeps to the floors passes', () => {
  expect(said.at(-1)).toEqual([]);
});
