// What it was flagged for is done: the flag goes, and that it was done stays.
import { z } from 'zod';
import { effectKind } from './effect';

const schema = z.object({ do: z.literal('done') });

export const done = effectKind<'done', z.infer<typeof schema>>({
  do: 'done',
  schema,
  verb: 'its flag is done',
  only: 'stamp',
  fresh: () => ({ do: 'done' }),
  words: () => 'take its flag off as done',
  asks: () => 'only you know what is done',
  carryOut: () => ({ did: null }),
});
