// Marking as read.
import { z } from 'zod';
import { effectKind } from './effect';

const schema = z.object({ do: z.literal('read') });

export const read = effectKind<'read', z.infer<typeof schema>, true>({
  do: 'read',
  schema,
  verb: 'mark it read',
  fresh: () => ({ do: 'read' }),
  words: () => 'mark it read',
  carryOut: (_action, decided) => {
    decided.read = true;
    return { did: 'marked it read' };
  },
  // What was read stays read.
  change: (message, was, is) => (is.read && !was.read && !message.read ? true : undefined),
  would: 'would be marked read',
  sieve: { flag: () => '\\Seen', systemFlag: '\\Seen', ofSystemFlag: () => ({ do: 'read' }) },
});
