// Flagging, with a due date or none. Of several rules the first that flags it counts.
import { z } from 'zod';
import { dueOn } from '../agenda/due';
import { effectKind } from './effect';

/** The days for which a rule can flag, counted from the day on which the message came. */
export const flagDays = ['none', 'today', 'tomorrow', 'this week', 'next week'] as const;
export type FlagDay = (typeof flagDays)[number];

export const flagDayWords = {
  none: 'without a date',
  today: 'for today',
  tomorrow: 'for tomorrow',
  'this week': 'for this week',
  'next week': 'for next week',
} as const satisfies Record<FlagDay, string>;

const schema = z.object({ do: z.literal('flag'), due: z.enum(flagDays) });

export const flag = effectKind<'flag', z.infer<typeof schema>, { due: number | null }>({
  do: 'flag',
  schema,
  verb: 'flag it',
  fresh: () => ({ do: 'flag', due: 'none' }),
  words: ({ due }) => `flag it ${flagDayWords[due]}`,
  carryOut: ({ due }, decided, _names, now) => {
    decided.flag ??= { due: due === 'none' ? null : dueOn(due, now) };
    return { did: `flagged it ${flagDayWords[due]}` };
  },
  // Flags are only ever added.
  change: (message, was, is) => (is.flag && !was.flag && !message.flagged ? is.flag : undefined),
  would: 'would be flagged',
  clash: { does: 'flags', of: ({ due }) => due },
  sieve: {
    flag: () => '\\Flagged',
    systemFlag: '\\Flagged',
    ofSystemFlag: () => ({ do: 'flag', due: 'none' }),
    unsaid: ({ due }) => (due === 'none' ? null : 'Sieve has no dates for flags; the flag is set without one'),
  },
});
