// A new message to somebody: it opens, with a text block in it where one is chosen.
import { z } from 'zod';
import { idSchema } from '../data/id';
import { noBlock } from './answer';
import { effectKind, nameOf } from './effect';
import { whomSchema, whomTrouble, whomWords } from './whom';

const schema = z.object({
  do: z.literal('write'),
  whom: whomSchema,
  subject: z.string().max(500),
  block: idSchema,
});
export type WriteAct = z.infer<typeof schema>;

export const write = effectKind<'write', WriteAct>({
  do: 'write',
  schema,
  verb: 'write a new message to',
  only: 'stamp',
  fresh: () => ({ do: 'write', whom: { by: 'role', role: 'team' }, subject: '', block: noBlock }),
  words: ({ whom, block }, names) => {
    const name = nameOf(names.blocks ?? [], block);
    return `open a new message to ${whomWords(whom, names)}${name === undefined ? '' : ` with the text block ${name}`}`;
  },
  missing: ({ whom, block }, names) =>
    whomTrouble(whom, names) ??
    (block !== noBlock && nameOf(names.blocks ?? [], block) === undefined
      ? { field: 'block', says: 'Choose a text block.' }
      : null),
  asks: () => 'it opens a message, for you to write',
  carryOut: () => ({ did: null }),
});
