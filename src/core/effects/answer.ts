// Answering with a text block. By a rule whoever wrote what comes in is answered, once within some days, never a list or a
// program (core/delivery/automaticAnswer.ts says whom). By a stamp the answer goes at once, or opens first.
import { idSchema } from '../data/id';
import { z } from 'zod';
import { effectKind, nameOf } from './effect';

const schema = z.object({
  do: z.literal('answer'),
  /** The id of a text block; where it only opens there may be none. */
  block: idSchema,
  /** To all who had it, not to the sender alone. */
  all: z.boolean().optional(),
  /** It is opened, to be written on, rather than sent. */
  open: z.boolean().optional(),
});
export type AnswerAct = z.infer<typeof schema>;

/** Stands for no text block. */
export const noBlock = 'none';

export const answer = effectKind<'answer', AnswerAct>({
  do: 'answer',
  schema,
  verb: 'answer it with',
  fresh: ({ blocks = [] }) => ({ do: 'answer', block: blocks[0]?.id ?? noBlock }),
  words: ({ block, open, all }, { blocks = [] }) => {
    const name = nameOf(blocks, block);
    const whom = all ? ' to all' : '';
    if (open) return `open an answer${whom}${name === undefined ? '' : ` with the text block ${name}`}`;
    return `answer it${whom} with the text block ${name ?? 'that is not there'}`;
  },
  missing: ({ block, open }, { blocks = [] }) =>
    nameOf(blocks, block) === undefined && !(open && block === noBlock)
      ? {
          field: 'block',
          says: blocks.length ? 'Choose a text block.' : 'Write a text block first (Set up, Text blocks).',
        }
      : null,
  asks: ({ open }) => (open ? 'it opens an answer, for you to write' : null),
  lasting: ({ open }) => (open ? null : 'sent'),
  carryOut: ({ block }, decided, { blocks = [] }) => {
    const name = nameOf(blocks, block);
    if (name === undefined) return { did: null };
    decided.sends.push({ do: 'answer', block });
    return { did: `answer it with ${name}` };
  },
  clash: { does: 'answers', of: ({ block }) => block },
  sieve: { unsaid: () => 'answering is done here, not by the server: what it says may be rich text' },
});
