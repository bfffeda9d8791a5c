// Deleting for good: gone from everything that is stored, and no Undo brings it back.
import { z } from 'zod';
import { effectKind } from './effect';

const schema = z.object({ do: z.literal('delete') });

export const deletion = effectKind<'delete', z.infer<typeof schema>>({
  do: 'delete',
  schema,
  verb: 'delete it for good',
  only: 'stamp',
  fresh: () => ({ do: 'delete' }),
  words: () => 'delete it for good',
  asks: () => 'nothing is deleted for good unseen',
  lasting: () => 'deleted',
  carryOut: () => ({ did: null }),
});
