// An appointment of what a message asks for: it opens, with the days and hours that stand in the text.
import { z } from 'zod';
import { effectKind } from './effect';

const schema = z.object({ do: z.literal('appointment') });

export const appointment = effectKind<'appointment', z.infer<typeof schema>>({
  do: 'appointment',
  schema,
  verb: 'open an appointment for it',
  only: 'stamp',
  fresh: () => ({ do: 'appointment' }),
  words: () => 'open an appointment for it',
  asks: () => 'an appointment has a day and an hour, which you choose',
  carryOut: () => ({ did: null }),
});
