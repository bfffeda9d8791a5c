// Code that is our own: whether what stands in a script is just what a rule is written as.
import type { Rule } from '../rule';
import { meaningOf, type Command } from './meaning';
import { parseScript } from './script';
import { codeOf, type Written } from './write';

/** All extensions that our code may require. */
export const everyExtension = ['fileinto', 'imap4flags', 'body', 'date', 'relational'];

/** What a command has beside what it says. */
const notSaid = new Set(['at', 'code', 'comments']);

/** Whether two commands, or parts of them, are the same but for where they stand and what comments say of them. */
function same(a: unknown, b: unknown): boolean {
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return a === b;
  if (Array.isArray(a) || Array.isArray(b))
    return Array.isArray(a) && Array.isArray(b) && a.length === b.length && a.every((one, i) => same(one, b[i]));
  const [one, other] = [a as Record<string, unknown>, b as Record<string, unknown>];
  for (const key of new Set([...Object.keys(one), ...Object.keys(other)]))
    if (!notSaid.has(key) && !same(one[key], other[key])) return false;
  return true;
}

/** The commands of a script that must be right: one of ours. */
export function commandsOf(code: string, required: readonly string[]): Command[] {
  const parsed = parseScript(`require [${required.map((one) => `"${one}"`).join(', ')}];\n${code}`);
  return parsed.ok ? meaningOf(parsed.script).commands : [];
}

/** Whether a command is just what a rule is written as. `required`: the extensions that its script names. */
export function sameCode(command: Command, rule: Rule, setup: Written, required: ReadonlySet<string>): boolean {
  const written = codeOf(rule, setup);
  if ('unsaid' in written) return false;
  const whole = command.does === 'if' && command.branches.length === 1 && command.otherwise === null;
  // Letter by letter, as in every script that comes back as it went.
  if (whole && command.code === written.code && ['fileinto', ...written.required].every((one) => required.has(one)))
    return true;
  const [own] = commandsOf(written.code, ['fileinto', ...written.required]);
  return own !== undefined && same(own, command);
}
