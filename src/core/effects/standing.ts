// Deciding about the sender, its domain or its mailing list: an entry of the Register, from now on.
import { z } from 'zod';
import { effectKind, standingOfs } from './effect';

const schema = z.object({
  do: z.literal('standing'),
  of: z.enum(standingOfs),
  standing: z.enum(['safe', 'blocked']),
});

export const standingOfWords = {
  address: 'its sender',
  domain: 'the domain of its sender',
  list: 'its mailing list',
} as const;

export const standing = effectKind<'standing', z.infer<typeof schema>>({
  do: 'standing',
  schema,
  verb: 'hold from now on',
  repeats: true,
  fresh: () => ({ do: 'standing', of: 'address', standing: 'blocked' }),
  words: (action) =>
    `hold ${standingOfWords[action.of]} ${action.standing === 'safe' ? 'Safe' : 'Blocked'} from now on`,
  carryOut: (action, decided) => {
    decided.follows.push({ do: 'standing', of: action.of, standing: action.standing });
    return {
      did: `held ${standingOfWords[action.of]} ${action.standing === 'safe' ? 'Safe' : 'Blocked'} from then on`,
    };
  },
  sieve: { unsaid: () => 'a script can’t change the Register' },
});
