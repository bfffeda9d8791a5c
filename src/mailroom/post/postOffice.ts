// The post office as the mailroom reaches it: changes after a cursor, and a message to be sent.
import { z } from 'zod';
import { decodeBase64 } from '../../core/mail/transfer';
import { readBatch } from '../intake/readMessages';
import type { Incoming } from '../intake/incoming';
import { fixedPlaces } from '../../core/mail/place';

/** What the post office answers when asked what is new. */
export const changesSchema = z.object({
  /** To be given back the next time. */
  cursor: z.string(),
  /** Whether there is more already. */
  more: z.boolean(),
  perMinute: z.number(),
  paused: z.boolean(),
  messages: z.array(
    z.object({
      /** The raw message (RFC 5322) in base64. */
      raw: z.string(),
      place: z.enum(fixedPlaces),
      seen: z.boolean(),
      flagged: z.boolean(),
      /** When what is flagged is due, milliseconds since 1970. */
      due: z.number().positive().optional(),
      /** What it was marked as there: the keywords $Junk and $NotJunk (RFC 9051, section 2.3.2). */
      marked: z.enum(['junk', 'good']).optional(),
    }),
  ),
});
export type Changes = z.infer<typeof changesSchema>;

export const rateSchema = z.object({ perMinute: z.number().min(0).max(60), paused: z.boolean() });
export const leftSchema = z.object({ left: z.boolean() });
export const submittedSchema = z.object({ messageId: z.string() });

/** The one small interface to a post office. Each rejects with a sentence for the person. */
export interface PostOffice {
  changes(cursor: string | null): Promise<Changes>;
  setRate(perMinute: number, paused: boolean): Promise<z.infer<typeof rateSchema>>;
  /** Sends a raw message; with `copy`, it stands in Sent at the next {@link changes}. */
  submit(raw: Uint8Array<ArrayBuffer>, copy: boolean): Promise<{ messageId: string }>;
  /** Leaves a mailing list by one request to the https address that it names (RFC 8058). */
  leave(url: string): Promise<{ left: boolean }>;
}

async function ask<T>(url: string, init: RequestInit | undefined, schema: z.ZodType<T>): Promise<T> {
  let response: Response;
  try {
    response = await fetch(url, init);
  } catch {
    throw new Error('The post office does not answer. Is the server still running?');
  }
  const body: unknown = await response.json().catch(() => null);
  if (!response.ok) {
    const said = z.object({ message: z.string() }).safeParse(body);
    throw new Error(said.success ? said.data.message : `The post office answered with an error (${response.status}).`);
  }
  const parsed = schema.safeParse(body);
  if (!parsed.success) throw new Error('The post office gave an answer that Wide Sort does not understand.');
  return parsed.data;
}

/** The post office that comes with the server. */
export function serverPostOffice(base = '/api/post'): PostOffice {
  return {
    changes: (cursor) =>
      ask(`${base}/changes${cursor === null ? '' : `?cursor=${encodeURIComponent(cursor)}`}`, undefined, changesSchema),
    setRate: (perMinute, paused) =>
      ask(
        `${base}/rate`,
        {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ perMinute, paused }),
        },
        rateSchema,
      ),
    leave: (url) =>
      ask(
        `${base}/leave`,
        { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ url }) },
        leftSchema,
      ),
    submit: (raw, copy) =>
      ask(
        `${base}/submit${copy ? '' : '?copy=no'}`,
        { method: 'POST', headers: { 'content-type': 'message/rfc822' }, body: new Blob([raw]) },
        submittedSchema,
      ),
  };
}

/** What the post office handed out, ready to come in. What it kept elsewhere than in its inbox stays there. */
export async function incomingFrom(changes: Changes): Promise<Incoming[]> {
  const encoder = new TextEncoder();
  const raws = changes.messages.map(({ raw }) => decodeBase64(encoder.encode(raw)));
  const { envelopes, text } = await readBatch(raws, 'eml', false);
  return changes.messages.map(({ place, seen, flagged, due, marked }, i) => ({
    stored: { bytes: raws[i], form: 'eml' },
    envelope: envelopes[i],
    text: { batch: text, at: i },
    place: place === 'inbox' ? null : place,
    read: seen,
    flagged,
    due,
    marked,
    why:
      place === 'inbox'
        ? null
        : { station: 'post office', by: null, says: 'It already stood there when the post office handed it over.' },
  }));
}
