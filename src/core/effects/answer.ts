// Answering by a rule with a text block: whoever wrote what comes in is answered, once within some days, never a list or
// a program (core/delivery/automaticAnswer.ts says whom).
import { z } from 'zod';
import { idSchema } from '../data/id';
import { effectKind, nameOf } from './effect';

const schema = z.object({ do: z.literal('answer'), block: idSchema });

export const answer = effectKind<'answer', z.infer<typeof schema>>({
  do: 'answer',
  schema,
  verb: 'answer it with',
  fresh: ({ blocks = [] }) => ({ do: 'answer', block: blocks[0]?.id ?? 'none' }),
  words: ({ block }, { blocks = [] }) =>
    `answer it with the text block ${nameOf(blocks, block) ?? 'that is not there'}`,
  missing: ({ block }, { blocks = [] }) =>
    nameOf(blocks, block) === undefined
      ? {
          field: 'block',
          says: blocks.length ? 'Choose a text block.' : 'Write a text block first (Set up, Text blocks).',
        }
      : null,
  carryOut: ({ block }, decided, { blocks = [] }) => {
    const name = nameOf(blocks, block);
    if (name === undefined) return { did: null };
    decided.sends.push({ do: 'answer', block });
    return { did: `answer it with ${name}` };
  },
  clash: { does: 'answers', of: ({ block }) => block },
  sieve: { unsaid: () => 'answering is done here, not by the server: what it says may be rich text' },
});
