import { readScript, type ReadScript } from '../rules/sieve/read';
import type { Rule } from '../rules/rule';
import { scriptEdits } from './scriptEdits';
import { emptySetup, type Setup } from './setup';
import { edited } from './setupEdit';

const rule = (id: string): Rule => ({
  id,
  name: id,
  on: true,
  when: { match: 'all', of: [{ field: 'subject', how: 'contains', text: id }] },
  unless: null,
  then: [{ do: 'read' }],
});
const here: Setup = { ...emptySetup, rules: [rule('one'), rule('two')] };
let made = 0;
const newId = () => `made-${made++}`;

function script(text: string): ReadScript {
  const read = readScript(text, here, newId);
  if (!read.ok) throw new Error(read.error.says);
  return read.read;
}
const after = (read: ReadScript, instead: boolean) => {
  const done = edited(here, scriptEdits(read, here, instead, newId));
  if (!done.ok) throw new Error(done.error);
  return done.setup;
};

// RFC 5228, section 4.1, but for the names.
const text = 'require "fileinto"; if header :contains "subject" "fuel" { fileinto "Bunkers"; }';

test('in place of the rules here: these go, those come in their order, with their folders', () => {
  const setup = after(script(text), true);
  expect(setup.rules).toHaveLength(1);
  expect(setup.folders.map(({ name }) => name)).toEqual(['Bunkers']);
});

test('below the rules here: these stay on top', () => {
  expect(
    after(script(text), false)
      .rules.map(({ id }) => id)
      .slice(0, 2),
  ).toEqual(['one', 'two']);
});

test('a rule that comes back under its own id is a second one below, and the same one in place of it', () => {
  const read = { ...script(text), rules: [rule('two')], folders: [] };
  expect(after(read, false).rules.map(({ name }) => name)).toEqual(['one', 'two', 'two']);
  expect(new Set(after(read, false).rules.map(({ id }) => id)).size).toBe(3);
  expect(after(read, true).rules.map(({ id }) => id)).toEqual(['two']);
});
