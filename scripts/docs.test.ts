// What the pages of docs/ name is there, and the picture of the rooms is that of the imports.
import { execFileSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';

const root = path.join(__dirname, '..');
const pages = [
  ...readdirSync(path.join(root, 'docs'))
    .filter((name) => name.endsWith('.md'))
    .map((name) => `docs/${name}`),
  'README.md',
  'CONTRIBUTING.md',
];

/** The files and folders that a page names: from the root, or beside the page where it links to them. */
function named(page: string): string[] {
  const text = readFileSync(path.join(root, page), 'utf8');
  const inCode = [...text.matchAll(/`((?:\.ci|src|server|cli|demo|e2e|bench|scripts|docs|public)\/[^`\s]*)`/g)].map(
    ([, name]) => name,
  );
  const linked = [...text.matchAll(/\]\((?!https?:)([^)#\s]+)/g)].map(([, name]) =>
    path.join(path.dirname(page), name),
  );
  return [...inCode, ...linked];
}

test.each(pages)('every file that %s names is there', (page) => {
  expect(named(page).filter((name) => !existsSync(path.join(root, name)))).toEqual([]);
});

test('they name many', () => {
  expect(pages.flatMap(named).length).toBeGreaterThan(100);
});

test('the picture of the rooms is that of the imports (node scripts/rooms.mjs writes it)', () => {
  const code = `import { readFileSync } from 'node:fs'; import { withPicture } from './scripts/rooms.mjs';
    const page = readFileSync('docs/architecture.md', 'utf8'); process.stdout.write(String(withPicture(page) === page));`;
  expect(execFileSync('node', ['--input-type=module', '-e', code], { cwd: root, encoding: 'utf8' })).toBe('true');
});
