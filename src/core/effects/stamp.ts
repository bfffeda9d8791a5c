// Running a stamp by a rule: its acts are carried out as if they stood in the rule, in their order (rules/stampsRun.ts).
// A stamp holds no stamps and no rules, so that there can be no circle.
import { z } from 'zod';
import { idSchema } from '../data/id';
import { effectKind } from './effect';

const schema = z.object({ do: z.literal('stamp'), stamp: idSchema });

export const stamp = effectKind<'stamp', z.infer<typeof schema>>({
  do: 'stamp',
  schema,
  verb: 'run the stamp',
  only: 'rule',
  repeats: true,
  fresh: ({ stamps = [] }) => ({ do: 'stamp', stamp: stamps[0]?.id ?? 'none' }),
  words: ({ stamp: id }, { stamps = [] }) =>
    `run the stamp ${stamps.find((one) => one.id === id)?.name ?? 'that is gone'}`,
  missing: ({ stamp: id }, { stamps = [] }) =>
    stamps.some((one) => one.id === id) ? null : { field: 'stamp', says: 'Choose a stamp.' },
  carryOut: () => ({ did: null }),
});
