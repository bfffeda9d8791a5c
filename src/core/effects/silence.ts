// Leaving a conversation: what of it is in the Inbox goes, and later answers pass the Inbox by.
import { z } from 'zod';
import { effectKind } from './effect';

const schema = z.object({ do: z.literal('silence'), place: z.enum(['archive', 'bin']) });

export const silence = effectKind<'silence', z.infer<typeof schema>>({
  do: 'silence',
  schema,
  verb: 'silence its conversation, to',
  fresh: () => ({ do: 'silence', place: 'archive' }),
  words: ({ place }) => `silence its whole conversation, to the ${place === 'bin' ? 'Bin' : 'Archive'}`,
  carryOut: ({ place }, decided) => {
    decided.follows.push({ do: 'silence', place });
    return { did: 'silenced its conversation' };
  },
  sieve: { unsaid: () => 'a server knows of no conversations' },
});
