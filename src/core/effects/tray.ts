// Putting into a tray: no rule below is asked, and the tray says when the message is delivered.
import { z } from 'zod';
import { idSchema } from '../data/id';
import { effectKind, nameOf } from './effect';

const schema = z.object({ do: z.literal('tray'), tray: idSchema });

export const tray = effectKind<'tray', z.infer<typeof schema>, { tray: string | null }>({
  do: 'tray',
  schema,
  verb: 'put it in the tray',
  ends: true,
  fresh: ({ trays = [] }) => ({ do: 'tray', tray: trays[0]?.id ?? '' }),
  words: ({ tray: id }, { trays = [] }) => `put it in the tray ${nameOf(trays, id) ?? id}`,
  missing: ({ tray: id }, { trays = [] }) =>
    nameOf(trays, id) === undefined ? { field: 'tray', says: `there is no tray with the id “${id}”` } : null,
  carryOut: ({ tray: id }, decided, { trays = [] }) => {
    const name = nameOf(trays, id);
    if (name === undefined) return { did: 'could not put it in a tray that is gone' };
    decided.tray = id;
    return { did: `put it in the tray ${name}` };
  },
  // Where it waits, or was delivered; elsewhere no tray is asked for it any more.
  change: (message, was, is) => {
    if (is.tray === was.tray || message.byHand || (message.tray ?? null) === is.tray) return undefined;
    return is.place === 'inbox' || is.place === 'held' ? { tray: is.tray } : undefined;
  },
  would: 'would be gathered in another tray, or in none',
  sieve: { unsaid: () => 'to Sieve a tray is a mailbox, into which its mail comes at once' },
});
