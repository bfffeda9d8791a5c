// Drafts as they cross the border: in a list, begun, kept, sent.
import { z } from 'zod';
import {
  contentSchema,
  draftKinds,
  nameSchema,
  type Draft,
  type DraftContent,
  type DraftKind,
} from '../../core/writing/draft';
import type { Row } from './rows';

/** What is seen of a draft in a list. */
export interface DraftRow extends Pick<DraftContent, 'how' | 'answers' | 'to' | 'subject' | 'at' | 'after'> {
  id: string;
  /** The first words that were written. */
  words: string;
  /** When it goes, milliseconds since 1970; null where it is still written. */
  due: number | null;
  /** It is on its way, and can’t be taken back. */
  going: boolean;
  /** Why it could not be sent, or null. */
  error: string | null;
}

/** What a new draft begins with. */
export const beginningSchema = z.object({
  id: nameSchema,
  how: z.enum(draftKinds),
  answers: z.array(z.number().int().nonnegative()).max(1_000),
  /** Whether it is rich text. */
  rich: z.boolean(),
  /** What is known of it already: of a link that writes to somebody, or of an earlier version’s answer. */
  given: contentSchema
    .pick({ account: true, to: true, cc: true, bcc: true, subject: true, text: true, html: true })
    .partial(),
});
export type Beginning = z.infer<typeof beginningSchema>;

/** A draft that is there, or why it is not. */
export type DraftResult = { ok: true; draft: Draft } | { ok: false; error: string };

/** Kept, or why not. */
export type Kept = { ok: true } | { ok: false; error: string };

/** What the person may regret about a draft, before it goes. */
export interface DraftAbout {
  /** Each a short sentence. */
  regrets: string[];
  /** Messages that others sent after the one that it answers; the newest of them, or null. */
  newer: number;
  newest: Row | null;
}

/** A draft as a file, or why there is none. */
export type DraftAsFile = { ok: true; blob: Blob; name: string } | { ok: false; error: string };

export type { Draft, DraftContent, DraftKind };
