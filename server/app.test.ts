import { mkdtempSync, writeFileSync } from 'node:fs';
import { connect, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { FastifyInstance } from 'fastify';
import { parseEnvelope } from '../src/core';
import { checkSetup } from '../src/core/line/setup';
import { changesSchema } from '../src/mailroom/post/postOffice';
import { buildApp } from './app';

let now = Date.UTC(2026, 10, 24, 9);
const host = { host: '127.0.0.1:4180' };
let app: FastifyInstance;

async function start(): Promise<FastifyInstance> {
  const dist = mkdtempSync(path.join(tmpdir(), 'wide-sort-'));
  writeFileSync(path.join(dist, 'index.html'), '<title>Wide Sort</title>');
  return buildApp({ dist, count: 300, seed: 3, perMinute: 6, now: () => now });
}

beforeEach(async () => {
  app = await start();
});
afterEach(() => app.close());

async function changes(cursor: string | null, from = app) {
  const response = await from.inject({ url: `/api/post/changes${cursor ? `?cursor=${cursor}` : ''}`, headers: host });
  expect(response.statusCode).toBe(200);
  return changesSchema.parse(response.json());
}

const rate = { method: 'POST' as const, url: '/api/demo/rate', headers: host };
const submit = (raw: string, headers: Record<string, string> = {}, cursor = '') =>
  app.inject({
    method: 'POST',
    url: `/api/post/submit${cursor && `?cursor=${cursor}`}`,
    headers: { ...host, 'content-type': 'message/rfc822', ...headers },
    payload: raw,
  });

test('the mailbox is handed out after a cursor, each message once', async () => {
  const first = await changes(null);
  expect(first).toMatchObject({ more: true });
  expect(first.arrived).toHaveLength(250);
  const second = await changes(first.cursor);
  expect(second).toMatchObject({ more: false });
  expect(second.arrived).toHaveLength(50);
  expect((await changes(second.cursor)).arrived).toEqual([]);
});

test('mail arrives while a page asks, at the rate that was set, and not while paused or away', async () => {
  const { cursor } = await changes((await changes(null)).cursor);
  now += 30_000;
  const arrived = await changes(cursor);
  expect(arrived.arrived).toHaveLength(3);
  expect(arrived.arrived.every((m) => m.place === 'inbox' && !m.seen)).toBe(true);
  now += 3_600_000;
  expect((await changes(arrived.cursor)).arrived).toHaveLength(0);
  await app.inject({ ...rate, payload: { perMinute: 30, paused: true } });
  now += 10_000;
  expect((await changes(arrived.cursor)).arrived).toHaveLength(0);
  await app.inject({ ...rate, payload: { perMinute: 30, paused: false } });
  now += 10_000;
  expect((await changes(arrived.cursor)).arrived).toHaveLength(5);
  expect((await app.inject({ ...rate, payload: { perMinute: 999, paused: false } })).statusCode).toBe(400);
});

test('a page goes on where it was after the server was started again', async () => {
  const { cursor } = await changes((await changes(null)).cursor);
  now += 60_000;
  const arrived = await changes(cursor);
  expect(arrived.arrived).toHaveLength(6);
  const later = await start();
  expect((await changes(arrived.cursor, later)).arrived).toEqual([]);
  now += 10_000;
  expect((await changes(arrived.cursor, later)).arrived).toHaveLength(1);
  await later.close();
});

test('what is sent stands in Sent, as it was sent; in no mailbox but the one from which it was', async () => {
  const { cursor } = await changes((await changes(null)).cursor);
  const other = (await changes((await changes(null)).cursor)).cursor;
  const raw = 'From: desk@ferry.example\r\nTo: a@b.example\r\nMessage-ID: <1@ferry.example>\r\n\r\nHello\r\n';
  expect((await submit(raw, {}, cursor)).json()).toEqual({ messageId: '1@ferry.example' });
  const { arrived: messages } = await changes(cursor);
  expect(messages).toMatchObject([{ place: 'sent', seen: true }]);
  expect(Buffer.from(messages[0].raw, 'base64').toString()).toBe(raw);
  expect((await changes(other)).arrived).toEqual([]);
  const { cursor: begun, arrived: first } = await changes(null);
  const anew = [...first, ...(await changes(begun)).arrived].map((one) => Buffer.from(one.raw, 'base64').toString());
  expect(anew).not.toContain(raw);
  expect((await submit(raw, {}, 'nonsense')).statusCode).toBe(400);
});

test.each([
  ['no sender', 'To: a@b.example\r\n\r\nx', /names no sender/],
  ['nobody to send it to', 'From: a@b.example\r\n\r\nx', /names nobody/],
])('a message with %s is refused in words', async (_what, raw, message) => {
  const response = await submit(raw);
  expect(response.statusCode).toBe(400);
  expect(response.json().message).toMatch(message);
});

test('a list that was left sends nothing any more; the others go on', async () => {
  const { cursor } = await changes((await changes(null)).cursor);
  const hosts = async (from: string) => {
    const { arrived: messages } = await changes(from);
    const texts = messages.map(({ raw }) => Buffer.from(raw, 'base64').toString('latin1'));
    return texts.flatMap((text) => /List-Unsubscribe: <https:\/\/([^/]+)/.exec(text)?.[1] ?? []);
  };
  const leave = (url: unknown) =>
    app.inject({ method: 'POST', url: '/api/post/leave', headers: host, payload: { url } });
  await app.inject({ ...rate, payload: { perMinute: 60, paused: false } });
  now += 59_000;
  const [first] = await hosts(cursor);
  expect(first).toBeDefined();
  expect((await leave(`https://${first}/leave/1`)).json()).toEqual({ left: true });
  const { cursor: since } = await changes(cursor);
  let others = 0;
  for (let i = 0, at = since; i < 12; i++) {
    now += 59_000;
    const came = await hosts(at);
    expect(came).not.toContain(first);
    others += came.length;
    at = (await changes(at)).cursor;
  }
  expect(others).toBeGreaterThan(10);
  // Only by https, and only by an address.
  expect((await leave('http://list.example/x')).statusCode).toBe(400);
  expect((await leave('javascript:alert(1)')).statusCode).toBe(400);
  expect((await leave(7)).statusCode).toBe(400);
});

test('a cursor that it never gave is refused', async () => {
  const response = await app.inject({ url: '/api/post/changes?cursor=nonsense', headers: host });
  expect(response.statusCode).toBe(400);
  expect(response.json().message).toMatch(/does not know that cursor/);
});

test('asking changes nothing: whatever cursor another asks with, a page goes on where it was', async () => {
  const { cursor } = await changes((await changes(null)).cursor);
  now += 20_000;
  const [once, again] = [await changes(cursor), await changes(cursor)];
  expect(once.arrived).toHaveLength(2);
  expect(again).toEqual(once);
  // A page that began earlier, and one that nobody ever was.
  await changes(`${now - 86_400_000}.7.0.${now}.0.0`);
  await changes('1700000000000.999999999');
  expect(await changes(cursor)).toEqual(once);
  expect((await changes(null)).arrived[0].there).toBe((await changes(null)).arrived[0].there);
});

test('what is sent again under its Message-ID stands in Sent once', async () => {
  const { cursor } = await changes((await changes(null)).cursor);
  const raw = 'From: desk@ferry.example\r\nTo: a@b.example\r\nMessage-ID: <2@ferry.example>\r\n\r\nHello\r\n';
  await submit(raw, {}, cursor);
  expect((await submit(raw, {}, cursor)).json()).toEqual({ messageId: '2@ferry.example' });
  expect((await changes(cursor)).arrived).toHaveLength(1);
});

test.each([
  ['a picture on another site', { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'no-cors' }, '/api/post/changes'],
  ['a page at another port', { 'sec-fetch-site': 'same-site', 'sec-fetch-mode': 'cors' }, '/api/demo/rate'],
  ['a script at another port', { origin: 'http://127.0.0.1:9999' }, '/api/demo/rate'],
  ['a script on another scheme', { origin: 'https://127.0.0.1:4180' }, '/api/demo/rate'],
  ['a page of a file', { origin: 'null' }, '/api/demo/rate'],
  ['a link to what is no page', { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate' }, '/api/demo/setup'],
])('%s is turned away, with all headers', async (_who, fetched, url) => {
  const response = await app.inject({ url, headers: { ...host, ...fetched } });
  expect(response.statusCode).toBe(403);
  expect(response.headers['content-security-policy']).toContain("default-src 'self'");
});

test('a link to a page of ours is followed, from wherever', async () => {
  const followed = { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate', 'sec-fetch-dest': 'document' };
  expect((await app.inject({ url: '/inbox', headers: { ...host, ...followed } })).statusCode).toBe(200);
});

test.each([
  ['what is no request', 'NONSENSE\r\n\r\n', 400],
  ['an address that can’t be read', 'GET /%zz HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n', 400],
  ['a header without an end', `GET / HTTP/1.1\r\nHost: 127.0.0.1\r\nX: ${'x'.repeat(200_000)}\r\n\r\n`, 431],
])('%s is answered in words, with all headers', async (_what, request, status) => {
  await app.listen({ host: '127.0.0.1', port: 0 });
  const { port } = app.server.address() as AddressInfo;
  const answer = await new Promise<string>((done, failed) => {
    const socket = connect(port, '127.0.0.1', () => socket.write(request));
    let text = '';
    socket.on('data', (data) => (text += data.toString()));
    socket.on('close', () => done(text));
    socket.on('error', (error) => (text ? done(text) : failed(error)));
  });
  expect(answer).toMatch(new RegExp(`^HTTP/1.1 ${status} `));
  expect(answer.toLowerCase()).toContain("content-security-policy: default-src 'self'");
  expect(answer).toMatch(/"message":"/);
});

test('another name for this machine, or another site’s page, is turned away', async () => {
  expect((await app.inject({ url: '/', headers: { host: 'evil.example' } })).statusCode).toBe(403);
  expect((await submit('x', { origin: 'https://evil.example' })).statusCode).toBe(403);
  expect((await app.inject({ url: '/', headers: { ...host, origin: 'http://127.0.0.1:4180' } })).statusCode).toBe(200);
});

test('pages carry the policy; addresses of the application are its page, files that are not there are not', async () => {
  const page = await app.inject({ url: '/inbox/m/12', headers: host });
  expect(page.body).toContain('<title>Wide Sort</title>');
  expect(page.headers['content-security-policy']).toContain("script-src 'self'");
  expect((await app.inject({ url: '/missing.js', headers: host })).statusCode).toBe(404);
  expect((await app.inject({ url: '/api/nothing', headers: host })).statusCode).toBe(404);
});

test('the demo’s setup is a setup, and its mail is whole', async () => {
  expect(checkSetup((await app.inject({ url: '/api/demo/setup', headers: host })).json()).ok).toBe(true);
  const { arrived: messages } = await changes(null);
  for (const { raw } of messages)
    expect(parseEnvelope(new Uint8Array(Buffer.from(raw, 'base64')))).toMatchObject({ damage: null });
});
