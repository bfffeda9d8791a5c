// Taking a label off.
import { z } from 'zod';
import { idSchema } from '../data/id';
import { effectKind, nameOf } from './effect';

const schema = z.object({ do: z.literal('unlabel'), label: idSchema });

export const unlabel = effectKind<'unlabel', z.infer<typeof schema>>({
  do: 'unlabel',
  schema,
  verb: 'take its label off:',
  repeats: true,
  fresh: ({ labels }, fresh) => ({ do: 'unlabel', label: labels[0]?.id ?? fresh }),
  words: ({ label: id }, { labels }) => `take the label ${nameOf(labels, id) ?? '(that is gone)'} off`,
  missing: ({ label: id }, { labels }) =>
    nameOf(labels, id) === undefined ? { field: 'label', says: `there is no label with the id “${id}”` } : null,
  // Of what comes in it takes off what a rule above has put on.
  carryOut: ({ label: id }, decided, { labels }) => {
    const at = decided.labels.indexOf(id);
    if (at < 0) return { did: null };
    decided.labels.splice(at, 1);
    return { did: `took the label ${nameOf(labels, id) ?? id} off` };
  },
  sieve: { unsaid: () => 'what a script files bears only the labels that it sets' },
});
