// The server: the built application, the post office, the demo's setup. It keeps no mail of the person.
import type { Socket } from 'node:net';
import path from 'node:path';
import fastifyStatic from '@fastify/static';
import Fastify, { type FastifyInstance, type FastifyReply, type FastifyRequest } from 'fastify';
import { z } from 'zod';
import { demoAgenda } from '../demo/agenda';
import { demoSetup } from '../demo/setup';
import { PostOffice, type PostOfficeOptions } from './postOffice';

/** A message with those in Bcc, whom it does not name. */
const hiddenSchema = z.object({
  raw: z.string(),
  bcc: z.array(z.object({ name: z.string().max(2_000), address: z.string().max(400) })).max(1_000),
});

/**
 * What a page of ours may do: run its own scripts, and speak to this server only. The frame that shows a message
 * inherits it, so whatever gets through the cleaning can neither run nor fetch.
 */
export const contentSecurityPolicy = [
  "default-src 'self'",
  "script-src 'self'",
  "worker-src 'self'",
  "style-src 'self' 'unsafe-inline'",
  "img-src 'self' data: blob:",
  "font-src 'self'",
  "connect-src 'self'",
  "frame-src 'self'",
  "object-src 'none'",
  "base-uri 'none'",
  "form-action 'none'",
  "frame-ancestors 'none'",
].join('; ');

/** What every answer bears, whatever it says. */
const headers = {
  'content-security-policy': contentSecurityPolicy,
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'no-referrer',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
};

const here = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;

/**
 * Whether a request comes from a page of ours, or from the person, who may follow a link to one. Another site’s page may
 * not reach the server through the person’s browser, whatever name it gives it: not by a script (Origin, with this very
 * port), not by a picture (Sec-Fetch-Site; Fetch Metadata Request Headers, W3C).
 */
function isOurs(request: FastifyRequest): boolean {
  const { host = '', origin, 'sec-fetch-site': site, 'sec-fetch-mode': mode } = request.headers;
  if (!here.test(host) || (origin !== undefined && origin !== `http://${host}`)) return false;
  if (site === undefined || site === 'same-origin' || site === 'none') return true;
  return mode === 'navigate' && request.method === 'GET' && !request.url.startsWith('/api/');
}

/** Answers what is no request at all: too much of a header, or none that can be read (RFC 9110, section 15.5). */
function refuse(error: NodeJS.ErrnoException, socket: Socket): void {
  if (error.code === 'ECONNRESET' || !socket.writable) return;
  const [status, message] =
    error.code === 'HPE_HEADER_OVERFLOW'
      ? ['431 Request Header Fields Too Large', 'The header of this request is too large.']
      : ['400 Bad Request', 'This request can’t be read.'];
  const body = Buffer.from(JSON.stringify({ message }));
  const fields = Object.entries({ ...headers, 'content-type': 'application/json; charset=utf-8', connection: 'close' });
  const head = fields.map(([name, value]) => `${name}: ${value}\r\n`).join('');
  socket.end(Buffer.concat([Buffer.from(`HTTP/1.1 ${status}\r\n${head}content-length: ${body.length}\r\n\r\n`), body]));
}

export interface AppOptions extends PostOfficeOptions {
  /** The folder of the built application. */
  dist: string;
}

/** Builds the server; it does not listen yet. */
export async function buildApp(options: AppOptions): Promise<FastifyInstance> {
  const app = Fastify({
    bodyLimit: 36 << 20,
    // A request that never ends, and an answer that nobody takes, are let go.
    requestTimeout: 60_000,
    connectionTimeout: 120_000,
    clientErrorHandler: refuse,
    // An address that can’t be read is answered before any hook.
    frameworkErrors: (_error, _request, reply: FastifyReply) =>
      void reply.headers(headers).code(400).send({ message: 'This address can’t be read.' }),
  });
  const post = new PostOffice(options);

  app.addHook('onRequest', async (request, reply) => {
    reply.headers(headers);
    if (!isOurs(request))
      return reply.code(403).send({ message: 'This server answers only to its own page on this machine.' });
  });

  app.addContentTypeParser('message/rfc822', { parseAs: 'buffer' }, (_request, body, done) => done(null, body));
  await app.register(fastifyStatic, {
    root: path.resolve(options.dist),
    wildcard: false,
    cacheControl: false,
    // The build names its files by their content: the browser may keep them, and what it has compiled of them.
    setHeaders: (reply, file) => {
      const named = file.includes(`${path.sep}assets${path.sep}`);
      void reply.setHeader('cache-control', named ? 'public, max-age=31536000, immutable' : 'no-cache');
    },
  });

  app.get<{ Querystring: { cursor?: string; for?: string } }>('/api/post/changes', async (request) =>
    post.changes(request.query.cursor ?? null, (request.query.for ?? '').slice(0, 40_000).split(',').filter(Boolean)),
  );
  app.post('/api/post/submit', async (request, reply) => {
    const hidden = hiddenSchema.safeParse(request.body);
    if (!Buffer.isBuffer(request.body) && !hidden.success)
      return reply.code(415).send({ message: 'A message is sent as message/rfc822, or with its Bcc as JSON.' });
    const raw = Buffer.isBuffer(request.body) ? request.body : Buffer.from(hidden.data?.raw ?? '', 'base64');
    const asked = z.object({ cursor: z.string().optional() }).safeParse(request.query);
    return post.submit(new Uint8Array(raw), asked.data?.cursor ?? null, hidden.data?.bcc);
  });
  app.post('/api/post/leave', async (request, reply) => {
    const asked = z.object({ url: z.string().max(2_000) }).safeParse(request.body);
    if (!asked.success) return reply.code(400).send({ message: 'Say by which address the list is left.' });
    return post.leave(asked.data.url);
  });
  // What only the demo has.
  app.get('/api/demo/setup', async () => demoSetup(options.now()));
  app.get('/api/demo/agenda', async () => demoAgenda(options.now()));
  app.get('/api/demo/rate', async () => post.rate);
  app.post('/api/demo/rate', async (request, reply) => {
    const asked = z.object({ perMinute: z.number().min(0).max(60), paused: z.boolean() }).safeParse(request.body);
    if (!asked.success) return reply.code(400).send({ message: 'Arrivals a minute go from 0 to 60.' });
    return post.setRate(asked.data.perMinute, asked.data.paused);
  });

  app.setNotFoundHandler((request, reply) => {
    // Addresses of the application are its own business; what is under /api or looks like a file is not there.
    if (request.method !== 'GET' || request.url.startsWith('/api/') || /\.\w+$/.test(request.url.split('?')[0]))
      return reply.code(404).send({ message: 'There is nothing at this address.' });
    return reply.sendFile('index.html');
  });
  return app;
}
