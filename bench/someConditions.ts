// Conditions by chance on real mail, for the table of a second implementation: what both read alike without question, so
// plain letters only.
import { Random } from '../demo/random';
import type { Condition } from '../src/core/rules/rule';
import type { Words } from './someRules';

const plain = (list: readonly string[]): string[] => list.filter((text) => /^[!-~]+(?: [!-~]+)*$/.test(text));

/** Part of a text from any place in it, without blanks at its ends. */
function part(random: Random, text: string): string {
  const from = random.int(0, Math.max(0, text.length - 4));
  return text.slice(from, from + random.int(3, 12)).trim() || text;
}

function condition(random: Random, words: Words): Condition {
  const address = random.pick(plain(words.addresses).filter((text) => /^[^\s@]+@[^\s@]+$/.test(text)));
  const subject = random.pick(plain(words.subjects));
  const { name, text } = random.pick(words.headers.filter((one) => plain([one.text]).length > 0));
  switch (random.int(0, 8)) {
    case 0:
      return { field: random.pick(['from', 'to', 'cc']), how: 'is', text: address };
    case 1:
      return {
        field: random.pick(['from', 'recipient']),
        how: 'domain',
        text: address.slice(address.indexOf('@') + 1),
      };
    case 2:
      return { field: 'subject', how: random.pick(['is', 'begins', 'ends']), text: subject };
    case 3:
      return { field: 'subject', how: 'contains', text: part(random, subject) };
    case 4:
      return { field: 'header', name, how: random.pick(['is', 'begins', 'ends']), text };
    case 5:
      return { field: 'header', name, how: random.pick(['contains', 'there']), text: part(random, text) };
    case 6:
      return { field: 'size', how: random.pick(['over', 'under']), bytes: random.pick(words.sizes) };
    case 7:
      return { field: 'date', how: random.pick(['before', 'on', 'since']), day: random.pick(words.days) };
    default:
      return { field: 'list', how: random.pick(['is', 'contains']), text: random.pick(plain(words.lists)) };
  }
}

/** Some conditions, always the same ones. */
export function someConditions(count: number, words: Words): Condition[] {
  const random = new Random(41);
  return Array.from({ length: count }, () => condition(random, words));
}
