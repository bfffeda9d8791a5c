// Rule sets by chance, made of what real messages say: for the tests of Sieve and for the bench.
import { Random } from '../demo/random';
import { fieldText } from '../src/core/mail/fieldText';
import { type Folder, type Place } from '../src/core/mail/place';
import { inks, type Label } from '../src/core/mail/label';
import { parseStructure } from '../src/core/mail/structure';
import type { Envelope } from '../src/core/mail/envelopeSchema';
import { headerHows, peopleHows, textHows, type Condition, type Group, type Rule } from '../src/core/rules/rule';
import { flagDays } from '../src/core/effects/flag';
import { type Action } from '../src/core/effects/effects';

/** What conditions are made of. */
export interface Words {
  addresses: string[];
  names: string[];
  subjects: string[];
  lists: string[];
  headers: { name: string; text: string }[];
  bodies: string[];
  sizes: number[];
  days: string[];
}

const letters = /[\p{L}\d][\p{L}\d ]{2,}/gu;

/** Gathers the words of some messages. */
export function wordsOf(messages: Iterable<{ envelope: Envelope; raw: Uint8Array }>): Words {
  const words: Words = {
    addresses: [],
    names: [],
    subjects: [],
    lists: [],
    headers: [],
    bodies: [],
    sizes: [],
    days: [],
  };
  for (const { envelope, raw } of messages) {
    for (const { address, name } of [envelope.from, ...envelope.to.slice(0, 2), ...envelope.cc.slice(0, 2)]) {
      if (address) words.addresses.push(address);
      if (name) words.names.push(name);
    }
    words.subjects.push(...(envelope.subject.match(letters) ?? []).map((text) => text.trim()));
    if (envelope.listId) words.lists.push(envelope.listId);
    words.bodies.push(...(envelope.preview.match(letters) ?? []).map((text) => text.trim().slice(0, 30)));
    words.sizes.push(envelope.size);
    if (envelope.date !== null && envelope.date > 0)
      words.days.push(new Date(envelope.date).toISOString().slice(0, 10));
    for (const field of parseStructure(raw).fields.slice(-6))
      words.headers.push({ name: field.name, text: fieldText(field).slice(0, 60) });
  }
  const filled = (list: string[]) =>
    list.map((text) => text.trim()).filter((text) => text.length > 0 && text.length <= 100);
  return {
    ...words,
    addresses: filled(words.addresses),
    names: filled(words.names),
    subjects: filled(words.subjects),
    lists: filled(words.lists),
    bodies: filled(words.bodies),
    headers: words.headers.filter(({ name, text }) => name.length <= 100 && text.length > 0),
  };
}

/** Folders and labels for such rules. */
export const someFolders: Folder[] = [
  { id: 'a', name: 'Harbour' },
  { id: 'b', name: 'Weather' },
  { id: 'c', name: 'Storms', parent: 'b' },
  { id: 'd', name: 'Archive' },
];
export const someLabels: Label[] = [
  { id: 'x', name: 'Alarm', ink: 'brick' },
  { id: 'y', name: 'Engine room (2)', ink: 'slate' },
  { id: 'z', name: 'Fähre', ink: 'sea' },
];

/** Part of a text, from any place in it. */
function part(random: Random, text: string): string {
  const from = random.int(0, Math.max(0, text.length - 4));
  return text.slice(from, from + random.int(2, 12)).trim() || text;
}

function condition(random: Random, words: Words, sieve: boolean): Condition {
  const kind = random.int(0, sieve ? 10 : 13);
  switch (kind) {
    case 0:
    case 1:
    case 2: {
      const field = random.pick(['from', 'to', 'cc', 'recipient'] as const);
      const how = random.pick(peopleHows);
      const address = random.pick(words.addresses);
      if (how === 'contains')
        return { field, how, text: part(random, random.chance(0.5) ? address : random.pick(words.names)) };
      if (how === 'domain') return { field, how, text: address.slice(address.lastIndexOf('@') + 1) || 'x.test' };
      return { field, how, text: how === 'like' ? `${address.slice(0, 2).replace(/[\\*?]/g, '?')}*` : address };
    }
    case 3:
    case 4: {
      const how = random.pick(textHows);
      const subject = random.pick(words.subjects);
      return {
        field: 'subject',
        how,
        text: how === 'like' ? `*${part(random, subject)}?*` : how === 'contains' ? part(random, subject) : subject,
      };
    }
    case 5: {
      const { name, text } = random.pick(words.headers);
      const how = random.pick(headerHows);
      return {
        field: 'header',
        name,
        how,
        text: how === 'there' ? '' : how === 'contains' ? part(random, text) : text,
      };
    }
    case 6:
      return { field: 'body', how: 'contains', text: part(random, random.pick(words.bodies)) };
    case 7: {
      const list = random.pick(words.lists);
      const how = random.pick(['contains', 'is'] as const);
      return { field: 'list', how, text: how === 'is' ? list : part(random, list) };
    }
    case 8:
      return { field: 'size', how: random.pick(['over', 'under'] as const), bytes: random.pick(words.sizes) };
    case 9:
      return { field: 'date', how: random.pick(['before', 'on', 'since'] as const), day: random.pick(words.days) };
    case 10:
      return random.chance(0.8)
        ? { field: 'addressed', is: random.pick(['alone', 'among', 'not'] as const) }
        : { field: 'every' };
    case 11:
      return { field: 'age', how: random.pick(['over', 'under'] as const), days: random.int(1, 400) };
    case 12:
      return { field: 'attachment', how: 'any', text: '' };
    default:
      return { field: 'standing', is: random.pick(['safe', 'none'] as const) };
  }
}

function group(random: Random, words: Words, sieve: boolean): Group {
  const match = random.pick(['all', 'any', 'none'] as const);
  const of = Array.from({ length: random.int(1, 3) }, () =>
    random.chance(0.25)
      ? {
          match: random.pick(['all', 'any', 'none'] as const),
          of: Array.from({ length: random.int(1, 3) }, () => condition(random, words, sieve)),
        }
      : condition(random, words, sieve),
  );
  return { match, of };
}

function actions(random: Random): Action[] {
  const out: Action[] = [];
  if (random.chance(0.5)) out.push({ do: 'label', label: random.pick(someLabels).id });
  if (random.chance(0.2)) out.push({ do: 'ink', ink: random.pick(inks) });
  if (random.chance(0.2)) out.push({ do: 'flag', due: random.pick(flagDays) });
  if (random.chance(0.2)) out.push({ do: 'read' });
  const places: Place[] = ['inbox', 'archive', 'junk', 'bin', ...someFolders.map(({ id }): Place => `folder:${id}`)];
  if (out.length === 0 || random.chance(0.4)) out.push({ do: 'move', place: random.pick(places) });
  else if (random.chance(0.1)) out.push({ do: 'stop' });
  return out;
}

/** Up to some rules from a seed; `sieve`: only with conditions that Sieve has words for. */
export function someRules(seed: number, words: Words, most: number, sieve: boolean): Rule[] {
  const random = Random.of(17, seed);
  return Array.from({ length: random.int(1, most) }, (_, i) => ({
    id: `r${i}`,
    name: random.chance(0.5) ? `Rule ${i}` : '',
    on: random.chance(0.9),
    when: group(random, words, sieve),
    unless: random.chance(0.25) ? group(random, words, sieve) : null,
    then: actions(random),
  }));
}
