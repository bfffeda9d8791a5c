// Inking: the whole row gets an ink. Of several rules the first that inks it counts.
import { z } from 'zod';
import { inks, type Ink } from '../mail/label';
import { effectKind } from './effect';

const schema = z.object({ do: z.literal('ink'), ink: z.enum(inks) });

export const ink = effectKind<'ink', z.infer<typeof schema>, { ink: Ink | null }>({
  do: 'ink',
  schema,
  verb: 'ink its row in',
  fresh: () => ({ do: 'ink', ink: 'sea' }),
  words: (action) => `ink its row in ${action.ink}`,
  carryOut: (action, decided) => {
    decided.ink ??= action.ink;
    return { did: `inked its row in ${action.ink}` };
  },
  // Only the ink that the line gave does the line take off again.
  change: (message, was, is) => {
    if (is.ink === was.ink) return undefined;
    const inked = message.ink ?? null;
    return is.ink !== inked && (is.ink !== null || inked === was.ink) ? { ink: is.ink } : undefined;
  },
  would: 'would get another ink',
  clash: { does: 'inks', of: (action) => action.ink },
  sieve: { flag: (action, keywords) => keywords.ink(action.ink) },
});
