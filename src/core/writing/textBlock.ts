// Text blocks: pieces of writing with a name, put in by typing a few letters; and signatures, which go below a text.
import { z } from 'zod';
import { idSchema } from '../data/id';

/** The most characters of a block or a signature, as rich text. */
export const longestBlock = 50_000;

export const textBlockSchema = z.object({
  id: idSchema,
  /** Typed behind a semicolon, up to what no other name begins with. */
  name: z.string().min(1).max(60),
  /** Rich text. */
  html: z.string().max(longestBlock),
});
export type TextBlock = z.infer<typeof textBlockSchema>;

/** The letters behind the last semicolon before the cursor, where a block is being named; null where none is. */
export const typedName = (before: string): string | null => /(?:^|[\s(])[;]([^\s;]{1,60})$/.exec(before)?.[1] ?? null;

/** The block that some letters mean: of that name, or the only one that begins so. */
export function blockNamed(typed: string, blocks: readonly TextBlock[]): TextBlock | null {
  const key = typed.toLowerCase();
  const exact = blocks.find(({ name }) => name.toLowerCase() === key);
  if (exact) return exact;
  const fitting = blocks.filter(({ name }) => name.toLowerCase().startsWith(key));
  return fitting.length === 1 ? fitting[0] : null;
}
