import { here } from '../reading/here';
import { incomingFrom } from './incomingFrom';
import { standInPostOffice } from './standIn';

const answer = (body: unknown, status = 200) => jest.fn(async () => new Response(JSON.stringify(body), { status }));
const office = (fetch: typeof globalThis.fetch) => {
  globalThis.fetch = fetch;
  return standInPostOffice('http://post.example');
};
const changes = { cursor: '1.2', more: false, arrived: [], altered: [], expunged: [] };

test('the cursor is given back as it was got', async () => {
  const fetch = answer(changes);
  await office(fetch).changes(null);
  await office(fetch).changes('1.2 & more');
  expect(fetch.mock.calls.map(([url]: unknown[]) => url)).toEqual([
    'http://post.example/changes',
    'http://post.example/changes?cursor=1.2%20%26%20more',
  ]);
});

test('a message is submitted raw', async () => {
  const fetch = answer({ messageId: 'x' });
  await office(fetch).submit(new TextEncoder().encode('From: a@b.test\r\n\r\n'), '1.2');
  const [url, init] = fetch.mock.calls[0] as unknown as [string, RequestInit];
  expect(url).toBe('http://post.example/submit?cursor=1.2');
  expect(init).toMatchObject({ method: 'POST', headers: { 'content-type': 'message/rfc822' } });
  expect(await (init.body as Blob).text()).toBe('From: a@b.test\r\n\r\n');
});

test.each([
  [
    'no answer',
    jest.fn(() => Promise.reject(new TypeError('failed'))),
    /does not answer\. Is the server still running\?/,
  ],
  ['a refusal', answer({ message: 'The message names no sender (From).' }, 400), /^The message names no sender/],
  [
    'an error without words',
    jest.fn(async () => new Response('<h1>', { status: 500 })),
    /answered with an error \(500\)/,
  ],
  ['another program', answer({ hello: 1 }), /does not understand/],
  ['a message of another shape', answer({ ...changes, arrived: [{ raw: 1 }] }), /does not understand/],
])('%s is said in words', async (_what, fetch, error) => {
  await expect(office(fetch as typeof globalThis.fetch).changes(null)).rejects.toThrow(error);
});

test('how the connection stands is known by the last call; what the stand-in does not keep it refuses in words', async () => {
  const post = office(answer(changes));
  expect(post.connection).toEqual({ is: 'not tried' });
  await post.changes(null);
  expect(post.connection).toEqual({ is: 'open' });
  globalThis.fetch = jest.fn(() => Promise.reject(new TypeError('failed')));
  await post.changes(null).catch(() => undefined);
  expect(post.connection).toMatchObject({ is: 'broken', error: expect.stringContaining('does not answer') });
  expect(post.abilities).toEqual({ keepsState: false, keepsDrafts: false });
  await expect(post.alter([])).rejects.toThrow(/does not keep/);
  await expect(post.keepDraft(new Uint8Array(0), null)).rejects.toThrow(/does not keep/);
});

test('what stood elsewhere than in the inbox stays there, and says so; the rest rides the line', async () => {
  const raw = Buffer.from('From: a@b.test\r\n\r\nx').toString('base64');
  const list = await incomingFrom(
    {
      ...changes,
      arrived: [
        { there: '1', raw, place: 'inbox', seen: false, flagged: true },
        { there: '2', raw, place: 'archive', seen: true, flagged: false },
      ],
    },
    here.parse,
    false,
  );
  expect(list).toMatchObject([
    { place: null, read: false, flagged: true, why: null, envelope: { from: { address: 'a@b.test' } } },
    { place: 'archive', read: true, why: { station: 'post office' } },
  ]);
});
