// Answers as they cross the border: what one begins with, and what was written.
import { z } from 'zod';
import type { Row } from './rows';

/** An answer as it was written. */
export const answerSchema = z.object({
  /** The message that is answered. */
  to: z.number().int().nonnegative(),
  account: z.string(),
  recipients: z.string(),
  copies: z.string(),
  subject: z.string().max(2_000),
  text: z.string().max(5_000_000),
});

export type Answer = z.infer<typeof answerSchema>;

/** What an answer begins with. */
export interface AnswerStart {
  account: string | null;
  recipients: string;
  copies: string;
  subject: string;
  text: string;
  /** Messages of the conversation that others sent after the one that is answered; the newest of them, or null. */
  newer: number;
  newest: Row | null;
}

/** An answer as a file, or why there is none. */
export type AnswerFile = { ok: true; blob: Blob; name: string } | { ok: false; error: string };

/** Addresses that may be the person’s own: each with the number of messages in which it stands. */
export interface OwnAddresses {
  /** How many of the newest messages were looked at. */
  looked: number;
  addresses: { address: string; name: string; count: number }[];
}
