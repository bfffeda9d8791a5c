// Leaving it unread, or marking it so.
import { z } from 'zod';
import { effectKind } from './effect';

const schema = z.object({ do: z.literal('unread') });

export const unread = effectKind<'unread', z.infer<typeof schema>>({
  do: 'unread',
  schema,
  verb: 'mark it unread',
  fresh: () => ({ do: 'unread' }),
  words: () => 'mark it unread',
  carryOut: (_action, decided) => {
    const was = decided.read;
    decided.read = false;
    return { did: was ? 'left it unread' : null };
  },
  sieve: { unsaid: () => 'to a server everything is unread that a script does not mark' },
});
