// Putting off by a rule: what comes in waits until a moment, and what is here already stays where it is.
import { z } from 'zod';
import { putOffTimes } from '../agenda/putOffTimes';
import { effectKind } from './effect';

const schema = z.object({ do: z.literal('putOff'), until: z.enum(putOffTimes) });

export const putOff = effectKind<'putOff', z.infer<typeof schema>>({
  do: 'putOff',
  schema,
  verb: 'put it off until',
  fresh: () => ({ do: 'putOff', until: 'tomorrow morning' }),
  words: ({ until }) => `put it off until ${until}`,
  carryOut: ({ until }, decided) => {
    decided.putOff ??= until;
    return { did: `put it off until ${until}` };
  },
  clash: { does: 'puts off', of: ({ until }) => until },
  sieve: { unsaid: () => 'Sieve can’t put a message off; it is filed at once' },
});
