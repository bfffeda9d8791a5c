// Code that is our own: whether what stands in a script is just what a rule is written as.
import type { Rule } from '../rule';
import { meaningOf, type Command } from './meaning';
import { parseScript } from './script';
import { codeOf, type Written } from './write';

/** All extensions that our code may require. */
export const everyExtension = ['fileinto', 'imap4flags', 'body', 'date', 'relational'];

/** A command without where it stands and what comments say of it. */
const bare = (command: Command): string =>
  JSON.stringify(command, (key, value: unknown) => (key === 'at' || key === 'comments' ? undefined : value));

/** The commands of a script that must be right: one of ours. */
export function commandsOf(code: string, required: readonly string[]): Command[] {
  const parsed = parseScript(`require [${required.map((one) => `"${one}"`).join(', ')}];\n${code}`);
  return parsed.ok ? meaningOf(parsed.script).commands : [];
}

/** Whether a command is just what a rule is written as. */
export function sameCode(command: Command, rule: Rule, setup: Written): boolean {
  const written = codeOf(rule, setup);
  if ('unsaid' in written) return false;
  const [own] = commandsOf(written.code, ['fileinto', ...written.required]);
  return own !== undefined && bare(own) === bare(command);
}
