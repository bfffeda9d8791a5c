// Labelling: the message bears one label more.
import { idSchema } from '../data/id';
import { z } from 'zod';
import { effectKind, nameOf } from './effect';

const schema = z.object({ do: z.literal('label'), label: idSchema });

export const label = effectKind<'label', z.infer<typeof schema>, string[]>({
  do: 'label',
  schema,
  verb: 'label it',
  repeats: true,
  fresh: ({ labels }, fresh) => ({ do: 'label', label: labels[0]?.id ?? fresh }),
  words: ({ label: id }, { labels }) => `label it ${nameOf(labels, id) ?? '(a label that is gone)'}`,
  missing: ({ label: id }, { labels }) =>
    nameOf(labels, id) === undefined ? { field: 'label', says: `there is no label with the id “${id}”` } : null,
  carryOut: ({ label: id }, decided, { labels }) => {
    const name = nameOf(labels, id);
    if (name === undefined) return { did: null };
    if (!decided.labels.includes(id)) decided.labels.push(id);
    return { did: `labelled it ${name}` };
  },
  // Labels are only ever added.
  change: (message, was, is) => {
    if (is.labels.length === 0) return undefined;
    const { labels } = message;
    const added = is.labels.filter((id) => !labels.includes(id) && !was.labels.includes(id));
    return added.length ? added : undefined;
  },
  would: 'would be labelled',
  sieve: { flag: ({ label: id }, keywords) => keywords.label(id) },
});
