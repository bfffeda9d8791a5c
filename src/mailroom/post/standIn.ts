// The post office that comes with the server: a stand-in, which hands out the demo’s mail and takes what is sent.
import { z } from 'zod';
import { changesSchema, rateSchema, type Connection, type DemoOffice, type PostOffice } from './postOffice';
import type { Address } from '../../core/mail/address';
import { encodeBase64 } from '../../core/mail/transfer';
import { reasonOf } from '../../core/text/sentences';

const leftSchema = z.object({ left: z.boolean() });
const submittedSchema = z.object({ messageId: z.string() });

/** How long an answer may take, in milliseconds. */
export const patience = 30_000;

/** What went wrong on the way to an answer, in words. */
const silence = (error: unknown): Error =>
  new Error(
    error instanceof Error && error.name === 'TimeoutError'
      ? `The post office did not answer within ${patience / 1_000} seconds. It is tried again.`
      : 'The post office does not answer. Is the server still running?',
  );

async function ask<T>(url: string, init: RequestInit | undefined, schema: z.ZodType<T>): Promise<T> {
  // For the whole of it, also the body: a server may begin to answer and never end.
  const signal = AbortSignal.timeout(patience);
  let response: Response;
  let body: unknown;
  try {
    response = await fetch(url, { ...init, signal });
    body = await response.json().catch((error: unknown) => {
      if (signal.aborted) throw error;
      return null;
    });
  } catch (error) {
    throw silence(error);
  }
  if (!response.ok) {
    const said = z.object({ message: z.string() }).safeParse(body);
    throw new Error(said.success ? said.data.message : `The post office answered with an error (${response.status}).`);
  }
  const parsed = schema.safeParse(body);
  if (!parsed.success) throw new Error('The post office gave an answer that Wide Sort does not understand.');
  return parsed.data;
}

const asJson = (value: unknown): RequestInit => ({
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(value),
});

const asked = (cursor: string | null): string => (cursor === null ? '' : `?cursor=${encodeURIComponent(cursor)}`);

class StandIn implements PostOffice {
  readonly abilities = { keepsState: false, keepsDrafts: false };
  connection: Connection = { is: 'not tried' };

  constructor(private readonly base: string) {}

  private async ask<T>(path: string, init: RequestInit | undefined, schema: z.ZodType<T>): Promise<T> {
    try {
      const answer = await ask(`${this.base}${path}`, init, schema);
      this.connection = { is: 'open' };
      return answer;
    } catch (error) {
      this.connection = { is: 'broken', error: reasonOf(error) };
      throw error;
    }
  }

  readonly changes = (cursor: string | null, own: readonly string[] = []) => {
    const whose = own.length ? `for=${encodeURIComponent(own.join(','))}` : '';
    const before = asked(cursor);
    return this.ask(`/changes${before}${whose && `${before ? '&' : '?'}${whose}`}`, undefined, changesSchema);
  };

  readonly submit = (raw: Uint8Array<ArrayBuffer>, cursor: string | null, bcc: readonly Address[] = []) =>
    this.ask(
      `/submit${asked(cursor)}`,
      bcc.length
        ? asJson({ raw: encodeBase64(raw, '', 0), bcc })
        : { method: 'POST', headers: { 'content-type': 'message/rfc822' }, body: new Blob([raw]) },
      submittedSchema,
    );

  readonly leave = (url: string) => this.ask('/leave', asJson({ url }), leftSchema);

  // It keeps nothing of the person’s.
  readonly alter = () => Promise.reject(new Error('This post office does not keep what becomes of messages.'));
  readonly keepDraft = () => Promise.reject(new Error('This post office does not keep drafts.'));
}

/** The stand-in as the page’s own server has it. */
export const standInPostOffice = (base = '/api/post'): PostOffice => new StandIn(base);

/** What only the demo has of it. */
export const demoOffice = (base = '/api/demo'): DemoOffice => ({
  rate: () => ask(`${base}/rate`, undefined, rateSchema),
  setRate: (rate) => ask(`${base}/rate`, asJson(rate), rateSchema),
  setup: () => ask(`${base}/setup`, undefined, z.unknown()),
  agenda: () => ask(`${base}/agenda`, undefined, z.unknown()),
});
