// What is installed for production runs on the oldest Node.js that the README names.
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { satisfies } from 'semver';

const root = path.join(__dirname, '..');
const read = (file: string): string => readFileSync(path.join(root, file), 'utf8');

interface Installed {
  dev?: boolean;
  optional?: boolean;
  engines?: { node?: string };
}

const oldest = /Node\.js (\d+\.\d+)/.exec(read('README.md'))?.[1] ?? '';
const { packages } = JSON.parse(read('package-lock.json')) as { packages: Record<string, Installed> };
const { engines } = JSON.parse(read('package.json')) as { engines: { node: string } };

test('the README and package.json name the same Node.js', () => {
  expect(engines.node).toBe(`>=${oldest}`);
});

test('every package that is installed for production runs on it', () => {
  const installed = Object.entries(packages).filter(([name, { dev, optional }]) => name && !dev && !optional);
  expect(installed.length).toBeGreaterThan(50);
  const unfit = installed.filter(([, { engines: its }]) => its?.node && !satisfies(`${oldest}.0`, its.node));
  expect(unfit.map(([name]) => name)).toEqual([]);
});
