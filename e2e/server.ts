// The tests' server: the application's own, which also keeps mailboxes for them (keptMailboxes.ts).
import { buildApp } from '../server/app';
import { keptPath } from './keptMailboxes';

const app = await buildApp({ dist: 'dist', count: 2_500, seed: 7, perMinute: 0, now: Date.now });
const kept = new Map<string, Buffer>();
app.addContentTypeParser('application/octet-stream', { parseAs: 'buffer' }, (_request, body, done) => done(null, body));
app.put<{ Params: { name: string }; Body: Buffer }>(`${keptPath}:name`, async ({ params, body }) => {
  kept.set(params.name, body);
  return {};
});
app.get<{ Params: { name: string } }>(`${keptPath}:name`, async ({ params }) => kept.get(params.name));
await app.listen({ host: '127.0.0.1', port: Number(process.env.PORT) });
