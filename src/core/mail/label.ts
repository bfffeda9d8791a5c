// Labels: marks, any number on a message, each with an ink.
import { z } from 'zod';
import { named } from './place';

/** The inks that a label can have (look.md): each with its two-letter tag, so that none is told by colour alone. */
export const inks = ['sea', 'moss', 'ochre', 'brick', 'plum', 'slate', 'rust', 'teal', 'rose', 'sand'] as const;
export type Ink = (typeof inks)[number];

/** The two-letter tags of the inks. */
export const inkTags: Record<Ink, string> = {
  sea: 'Se',
  moss: 'Mo',
  ochre: 'Oc',
  brick: 'Br',
  plum: 'Pl',
  slate: 'Sl',
  rust: 'Ru',
  teal: 'Te',
  rose: 'Ro',
  sand: 'Sa',
};

/** A mark, any number on a message. */
export const labelSchema = z.object({
  ...named,
  ink: z.enum(inks),
  /** It inks the whole row, not only its tag. */
  row: z.boolean().optional(),
});
export type Label = z.infer<typeof labelSchema>;
