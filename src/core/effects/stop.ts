// Stopping: the rules below are not asked, and the message goes on down the line.
import { z } from 'zod';
import { effectKind } from './effect';

const schema = z.object({ do: z.literal('stop') });

export const stop = effectKind<'stop', z.infer<typeof schema>>({
  do: 'stop',
  schema,
  verb: 'ask no rule below',
  only: 'rule',
  ends: true,
  fresh: () => ({ do: 'stop' }),
  words: () => 'ask no rule below',
  carryOut: () => ({ did: 'let no rule below be asked' }),
});
