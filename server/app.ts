// The server: the built application, the post office, the demo's setup. It keeps no mail of the person.
import path from 'node:path';
import fastifyStatic from '@fastify/static';
import Fastify, { type FastifyInstance } from 'fastify';
import { z } from 'zod';
import { demoSetup } from '../demo/setup';
import { PostOffice, type PostOfficeOptions } from './postOffice';

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

const here = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;

export interface AppOptions extends PostOfficeOptions {
  /** The folder of the built application. */
  dist: string;
}

/** Builds the server; it does not listen yet. */
export async function buildApp(options: AppOptions): Promise<FastifyInstance> {
  const app = Fastify({ bodyLimit: 26 << 20 });
  const post = new PostOffice(options);

  app.addHook('onRequest', async (request, reply) => {
    // Another site's page may not reach the server through the person's browser, whatever name it gives it.
    const origin = request.headers.origin;
    if (!here.test(request.headers.host ?? '') || (origin && !here.test(origin.replace(/^https?:\/\//, ''))))
      return reply.code(403).send({ message: 'This server answers only to its own page on this machine.' });
    reply.headers({
      'content-security-policy': contentSecurityPolicy,
      'x-content-type-options': 'nosniff',
      'referrer-policy': 'no-referrer',
      'cross-origin-opener-policy': 'same-origin',
      'cross-origin-resource-policy': 'same-origin',
    });
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

  app.get<{ Querystring: { cursor?: string } }>('/api/post/changes', async (request) =>
    post.changes(request.query.cursor ?? null),
  );
  app.post('/api/post/submit', async (request, reply) => {
    if (!Buffer.isBuffer(request.body))
      return reply.code(415).send({ message: 'A message is sent as message/rfc822.' });
    const { copy } = request.query as { copy?: string };
    return post.submit(new Uint8Array(request.body), copy !== 'no');
  });
  app.post('/api/post/leave', async (request, reply) => {
    const asked = z.object({ url: z.string().max(2_000) }).safeParse(request.body);
    if (!asked.success) return reply.code(400).send({ message: 'Say by which address the list is left.' });
    return post.leave(asked.data.url);
  });
  // What only the demo has.
  app.get('/api/demo/setup', async () => demoSetup(options.now()));
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
