// Taking up a Sieve script: the edits of the setup that it comes to.
import type { ReadScript } from '../rules/sieve/read';
import type { Setup } from './setup';
import type { SetupEdit } from './setupEdit';

/**
 * The edits that take up what was read. `instead`: in place of the rules here, else below them, where
 * a rule whose id is taken gets a new one.
 */
export function scriptEdits(read: ReadScript, setup: Setup, instead: boolean, newId: () => string): SetupEdit[] {
  const edits: SetupEdit[] = [];
  const coming = new Set(read.rules.map(({ id }) => id));
  if (instead) for (const { id } of setup.rules) if (!coming.has(id)) edits.push({ list: 'rules', id, item: null });
  for (const item of read.folders) edits.push({ list: 'folders', id: item.id, item });
  for (const item of read.labels) edits.push({ list: 'labels', id: item.id, item });
  const taken = new Set(setup.rules.map(({ id }) => id));
  for (const [at, rule] of read.rules.entries()) {
    const item = !instead && taken.has(rule.id) ? { ...rule, id: newId() } : rule;
    edits.push({ list: 'rules', id: item.id, item, ...(instead ? { at } : {}) });
  }
  return edits;
}
