// The post office as the mailroom knows it: whatever sends and takes mail. It hands out what arrived after a cursor and
// what became of messages there, takes what is sent, and hears what becomes of messages here. The stand-in that comes
// with the server is one (standIn.ts); a mail server can be another.
import { z } from 'zod';
import type { Address } from '../../core/mail/address';
import { fixedPlaces } from '../../core/mail/place';

/** Which message it is there: a name that no other message ever has (of a mail server UIDVALIDITY and UID, RFC 9051, 2.3.1.1). */
const identitySchema = z.string().min(1).max(500);
export type Identity = z.infer<typeof identitySchema>;

/** Where a message is there, and what it bears. */
const standingSchema = z.object({
  place: z.enum(fixedPlaces),
  seen: z.boolean(),
  flagged: z.boolean(),
});

const arrivedSchema = standingSchema.extend({
  there: identitySchema,
  /** The raw message (RFC 5322) in base64. */
  raw: z.string(),
  /** When what is flagged is due, milliseconds since 1970. */
  due: z.number().positive().optional(),
  /** Until when what is held is put off, milliseconds since 1970. */
  until: z.number().positive().optional(),
  /** What it was marked as there: the keywords $Junk and $NotJunk (RFC 9051, section 2.3.2). */
  marked: z.enum(['junk', 'good']).optional(),
});

/** What became of a message on the other side: where it is and what it bears now, as far as that changed. */
const alterationSchema = standingSchema.partial().extend({ there: identitySchema });
export type Alteration = z.infer<typeof alterationSchema>;

/** What the post office answers when asked what is new. */
export const changesSchema = z.object({
  /** To be given back the next time. */
  cursor: z.string(),
  /** Whether there is more already. */
  more: z.boolean(),
  arrived: z.array(arrivedSchema),
  altered: z.array(alterationSchema),
  /** Messages that are not there any more. */
  expunged: z.array(identitySchema),
});
export type Changes = z.infer<typeof changesSchema>;

/** How it stands with the connection. */
export type Connection = { is: 'open' | 'not tried' } | { is: 'broken'; error: string };

/** What a post office can do besides handing out and sending: the stand-in does neither. */
export interface Abilities {
  /** It keeps where messages are and what they bear: it tells of that, and is told. */
  readonly keepsState: boolean;
  /** It keeps unfinished messages. */
  readonly keepsDrafts: boolean;
}

/** The one interface to a post office. Each call rejects with a sentence for the person. */
export interface PostOffice {
  readonly abilities: Abilities;
  /** How the last call went. */
  readonly connection: Connection;
  changes(cursor: string | null, own?: readonly string[]): Promise<Changes>;
  /** Tells what became of messages here. Only where it keeps that. */
  alter(alterations: Alteration[]): Promise<void>;
  /**
   * Sends a raw message to all that it names and to those in `bcc`, whom it does not name; it stands in Sent at the next
   * {@link changes} after that cursor, there with Bcc. What is sent again under its Message-ID is not sent twice.
   */
  submit(raw: Uint8Array<ArrayBuffer>, cursor: string | null, bcc?: readonly Address[]): Promise<{ messageId: string }>;
  /** Keeps an unfinished message in place of an earlier state of it, null for the first. Only where it keeps drafts. */
  keepDraft(raw: Uint8Array<ArrayBuffer>, before: Identity | null): Promise<Identity>;
  /** Leaves a mailing list by one request to the https address that it names (RFC 8058). */
  leave(url: string): Promise<{ left: boolean }>;
}

/** What only a demo has: arrivals at a rate, and a setup to begin with. */
export interface DemoOffice {
  rate(): Promise<ArrivalRate>;
  setRate(rate: ArrivalRate): Promise<ArrivalRate>;
  /** The setup of the demo mailbox, as a document. */
  setup(): Promise<unknown>;
  /** Its tasks and appointments. */
  agenda(): Promise<unknown>;
}

export const rateSchema = z.object({ perMinute: z.number().min(0).max(60), paused: z.boolean() });
export type ArrivalRate = z.infer<typeof rateSchema>;
