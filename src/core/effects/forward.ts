// Forwarding: a message goes on to somebody else, or to whoever has a role or is in a group. By a rule what comes in goes on,
// once; what is here already is not sent anywhere. By a stamp it goes at once, or opens first.
import { z } from 'zod';
import { effectKind, type EffectNames } from './effect';
import { whomSchema, whomTrouble, whomWords, addressesOfWhom } from './whom';

/** In the text of a message of one's own, or as a file, byte for byte. */
export const forwardForms = ['text', 'file'] as const;

const schema = z.object({
  do: z.literal('forward'),
  /** An address; empty where `whom` says to whom. */
  to: z.string().max(400),
  whom: whomSchema.optional(),
  form: z.enum(forwardForms),
  /** It is opened, to be read over, rather than sent. */
  open: z.boolean().optional(),
});
export type ForwardAct = z.infer<typeof schema>;

/** To whom it goes, in words. */
const toWords = ({ to, whom }: ForwardAct, names: EffectNames): string =>
  whom ? whomWords(whom, names) : to || 'nobody yet';

/** The addresses to which it goes. */
export const forwardedTo = ({ to, whom }: ForwardAct, names: EffectNames): string[] =>
  whom ? addressesOfWhom(whom, names) : [to];

export const forward = effectKind<'forward', ForwardAct>({
  do: 'forward',
  schema,
  verb: 'forward it to',
  repeats: true,
  fresh: () => ({ do: 'forward', to: '', form: 'text' }),
  words: (action, names) =>
    `forward it to ${toWords(action, names)}${action.form === 'file' ? ' as a file' : ''}${action.open ? ', opened first' : ''}`,
  missing: ({ to, whom, open }, names) => {
    if (whom) return whomTrouble(whom, names);
    return /^[^\s@<>,;]+@[^\s@<>,;]+\.[^\s@<>,;.]+$/.test(to) || (open && to === '')
      ? null
      : { field: 'to', says: 'Type the address to which it is forwarded.' };
  },
  asks: ({ open }) => (open ? 'it opens what is forwarded, for you to read over' : null),
  lasting: ({ open }) => (open ? null : 'sent'),
  carryOut: (action, decided, names) => {
    for (const to of forwardedTo(action, names)) decided.sends.push({ do: 'forward', to, form: action.form });
    return { did: `forward it to ${toWords(action, names)}` };
  },
  sieve: { unsaid: () => 'forwarding is done here, not by the server: it has guards that a script has no words for' },
});
