// A draft: a message that is being written, as it is kept.
import { z } from 'zod';
import { momentSchema } from '../data/id';
import type { Address } from '../mail/address';
import { fieldTrouble, readRecipients } from './recipient';

/** What a draft is: new, or what becomes of the messages that it answers. */
export const draftKinds = ['new', 'reply', 'reply all', 'forward', 'attach'] as const;
export type DraftKind = (typeof draftKinds)[number];

/** The most characters of a text or of rich text. */
const longestText = 10_000_000;
/** All that goes along may have so many bytes: with 25 MB for the whole message, what most mail servers take (common practice, no source). */
export const mostBytes = 18_000_000;

/** A draft’s own name, and a file’s: part of the key under which it is stored. */
export const nameSchema = z.string().regex(/^[\w-]{1,100}$/);

const fileSchema = z.object({
  id: nameSchema,
  name: z.string().max(2_000),
  type: z.string().max(300),
  /** In bytes. */
  size: z.number().int().nonnegative(),
  /** It is a picture within the text, by its Content-ID. */
  contentId: z.string().max(300).optional(),
  /** It is a message of this mailbox, forwarded as it came; its bytes stand there. */
  message: z.number().int().nonnegative().optional(),
});
export type DraftFile = z.infer<typeof fileSchema>;

/** What the person writes of it. */
export const contentSchema = z.object({
  how: z.enum(draftKinds),
  /** The messages that it answers or forwards. */
  answers: z.array(z.number().int().nonnegative()).max(1_000),
  /** From which account it goes; empty where none is chosen. */
  account: z.string().max(300),
  /** Recipients as they are typed. */
  to: z.string().max(1_000_000),
  cc: z.string().max(1_000_000),
  bcc: z.string().max(1_000_000),
  subject: z.string().max(10_000),
  /** Whether it is rich text: else `text` is what is written. */
  rich: z.boolean(),
  html: z.string().max(longestText),
  text: z.string().max(longestText),
  /** What stands below it, folded, until the person takes it into the text. */
  quoted: z.object({ html: z.string().max(longestText), text: z.string().max(longestText) }),
  /** Whether the account’s signature goes below it. */
  signed: z.boolean(),
  files: z.array(fileSchema).max(500),
  /** What becomes of the answered message once this has gone. */
  after: z.enum(['stay', 'archive', 'bin']),
  /** When it was typed at last, milliseconds since 1970. */
  at: momentSchema,
});
export type DraftContent = z.infer<typeof contentSchema>;

export const draftSchema = contentSchema.extend({
  id: nameSchema,
  /** How many messages of others came into the conversation before it was begun or looked at. */
  newer: z.number().int().nonnegative(),
  /** Since when it is thrown away, milliseconds since 1970; null where it is not. */
  thrown: momentSchema.nullable(),
  /** When it goes, milliseconds since 1970; null where nobody pressed Send. */
  due: momentSchema.nullable(),
  /** The zone for its Date field, minutes east of UTC. */
  zone: z.number().int().min(-1_440).max(1_440),
  /**
   * Under which date it was handed to the post office, milliseconds since 1970; null where it was not as it stands now. Tried
   * again it has the same bytes, so that it is known again; edited it is another message, of the next edition.
   */
  tried: momentSchema.nullable(),
  edition: z.number().int().positive(),
  /** It has gone, and only what follows is left to do. */
  gone: z.boolean(),
  /** It goes, and is seen, only once this command stands in the Logbook; null for what a person writes, and from then on. */
  command: z.string().max(300).nullable().default(null),
  /** Why it could not be sent; null where that was not tried or is tried again. */
  error: z.string().nullable(),
});
export type Draft = z.infer<typeof draftSchema>;

/** What is so of every draft of which nobody has done anything yet. */
export const freshDraft = {
  bcc: '',
  signed: true,
  files: [] as DraftFile[],
  after: 'stay',
  at: 0,
  newer: 0,
  thrown: null,
  due: null,
  zone: 0,
  tried: null,
  edition: 1,
  gone: false,
  command: null,
  error: null,
} as const satisfies Partial<Draft>;

/** What of a draft the person writes. */
export const contentOf = (draft: Draft): DraftContent => contentSchema.parse(draft);

/** To whom a draft goes, or why it can’t go to them, in a sentence. */
export function recipientsOfDraft({
  to,
  cc,
  bcc,
}: Pick<DraftContent, 'to' | 'cc' | 'bcc'>):
  { ok: true; to: Address[]; cc: Address[]; bcc: Address[] } | { ok: false; error: string } {
  const [toList, ccList, bccList] = [readRecipients(to), readRecipients(cc), readRecipients(bcc)];
  const error = fieldTrouble('To', toList) ?? fieldTrouble('Cc', ccList) ?? fieldTrouble('Bcc', bccList);
  if (error !== null) return { ok: false, error };
  const [named, copied, hidden] = [toList.named, ccList.named, bccList.named];
  if (named.length + copied.length + hidden.length === 0) return { ok: false, error: 'Name somebody to send it to.' };
  return { ok: true, to: named, cc: copied, bcc: hidden };
}
