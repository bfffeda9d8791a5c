// Forwarding by a rule: what comes in goes on to somebody else, once. What is here already is not sent anywhere.
import { z } from 'zod';
import { effectKind } from './effect';

/** In the text of a message of one's own, or as a file, byte for byte. */
export const forwardForms = ['text', 'file'] as const;

const schema = z.object({
  do: z.literal('forward'),
  to: z.string().max(400),
  form: z.enum(forwardForms),
});

export const forward = effectKind<'forward', z.infer<typeof schema>>({
  do: 'forward',
  schema,
  verb: 'forward it to',
  repeats: true,
  fresh: () => ({ do: 'forward', to: '', form: 'text' }),
  words: ({ to, form }) => `forward it to ${to || 'nobody yet'}${form === 'file' ? ' as a file' : ''}`,
  missing: ({ to }) =>
    /^[^\s@<>,;]+@[^\s@<>,;]+\.[^\s@<>,;.]+$/.test(to)
      ? null
      : { field: 'to', says: 'Type the address to which it is forwarded.' },
  carryOut: ({ to, form }, decided) => {
    decided.sends.push({ do: 'forward', to, form });
    return { did: `forward it to ${to}` };
  },
  sieve: { unsaid: () => 'forwarding is done here, not by the server: it has guards that a script has no words for' },
});
