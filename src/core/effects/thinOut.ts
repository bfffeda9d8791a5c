// Thinning out: what stands whole in a later message of its conversation goes to the Bin.
import { z } from 'zod';
import { effectKind } from './effect';

const schema = z.object({ do: z.literal('thinOut') });

export const thinOut = effectKind<'thinOut', z.infer<typeof schema>>({
  do: 'thinOut',
  schema,
  verb: 'thin its conversation out',
  only: 'stamp',
  fresh: () => ({ do: 'thinOut' }),
  words: () => 'thin its whole conversation out',
  asks: () => 'what goes is looked at before it goes',
  carryOut: () => ({ did: null }),
});
