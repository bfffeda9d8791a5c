import { attachmentBytes, bodyBlocks } from '../src/core/mail/body';
import { parseEnvelope } from '../src/core/mail/envelope';
import { unflowed } from '../src/core/mail/flow';
import { parseStructure } from '../src/core/mail/structure';
import { cli, put } from './testing';

let drafts = 0;

/** What `write` prints of a draft. */
async function write(draft: object | string, ...options: string[]) {
  const file = put(`draft${drafts++}.json`, typeof draft === 'string' ? draft : JSON.stringify(draft));
  const { code, error, bytes } = await cli('write', file, '--now', '2026-11-28T10:00:00Z', ...options);
  const raw = new Uint8Array(bytes);
  return { code, error, raw, text: Buffer.from(raw).toString('latin1') };
}

const from = { name: 'Ingrid', address: 'ingrid@ferry.test' };
const to = [{ name: 'Ann', address: 'ann@x.test' }];
const original =
  'From: Ann <ann@x.test>\r\nTo: ingrid@ferry.test, bob@x.test\r\nSubject: Berth\r\nMessage-ID: <1@x.test>\r\n' +
  'Date: Fri, 27 Nov 2026 08:00:00 +0000\r\nContent-Type: multipart/mixed; boundary=b\r\n\r\n--b\r\n' +
  'Content-Type: text/html\r\n\r\n<p>Which <b>berth</b>?</p><img src="http://t.test/x.gif"><script>x</script>\r\n' +
  '--b\r\nContent-Type: text/csv; name=a.csv\r\n\r\n1,2\r\n--b--\r\n';

test('as it goes out and as it stands in Sent', async () => {
  const draft = { from, to, bcc: [{ address: 'cy@x.test' }], subject: 'Hi', text: 'Hello' };
  const out = await write(draft);
  expect(out.code).toBe(0);
  expect(out.text).not.toContain('cy@x');
  expect(parseEnvelope(out.raw)).toMatchObject({
    from,
    to,
    subject: 'Hi',
    date: Date.UTC(2026, 10, 28, 10),
    preview: 'Hello',
  });
  const sent = await write(draft, '--sent');
  expect(sent.text).toMatch(/^Bcc: cy@x\.test\r$/m);
});

test('files, named and of a type by what they are called', async () => {
  put('plan.pdf', 'p');
  const { raw } = await write({
    from,
    to,
    html: '<p>x</p>',
    attachments: [{ file: 'plan.pdf' }, { file: 'plan.pdf', name: 'Ö.bin', type: 'application/x-y' }],
  });
  expect(parseEnvelope(raw).attachments).toEqual([
    { name: 'plan.pdf', type: 'application/pdf', size: 1 },
    { name: 'Ö.bin', type: 'application/x-y', size: 1 },
  ]);
});

describe('answers', () => {
  const answers = put('berth.eml', original);
  const shown = (raw: Uint8Array) => {
    const [{ content }] = bodyBlocks(raw, parseStructure(raw), true);
    return unflowed(content, false);
  };
  test('a reply goes to who wrote, under its subject, in its conversation', async () => {
    const { raw } = await write({ from, text: 'Four', answers, how: 'reply' });
    expect(parseEnvelope(raw)).toMatchObject({ to, cc: [], subject: 'Re: Berth', references: ['1@x.test'] });
    expect(shown(raw).trim()).toBe('Four');
    const quoted = await write({ from, text: 'Four', answers, how: 'reply', quote: true });
    expect(shown(quoted.raw)).toMatch(/^Four\n\nAnn wrote on .*:\n> Which berth\?/);
  });
  test('to all, without oneself', async () => {
    const { raw } = await write({ from, text: 'Four', answers, how: 'reply all' });
    expect(parseEnvelope(raw)).toMatchObject({ to, cc: [{ address: 'bob@x.test' }] });
  });
  test('forwarded: head, cleaned text and files below; nothing of it is fetched or runs', async () => {
    const { raw, text } = await write({ from, to, html: '<p>See</p>', answers, how: 'forward' });
    expect(parseEnvelope(raw)).toMatchObject({ subject: 'Fwd: Berth', attachments: [{ name: 'a.csv' }] });
    expect(shown(raw)).toMatch(
      /^See\n\nForwarded message\n\nFrom: Ann <ann@x\.test>\nDate: [^]*Subject: Berth\n\nWhich berth\?/,
    );
    expect(text).not.toMatch(/t\.test|<script/);
  });
  test('attached: byte for byte', async () => {
    const { raw } = await write({ from, to, text: 'See', answers, how: 'attach' });
    expect(parseEnvelope(raw).attachments).toEqual([
      { name: 'Berth.eml', type: 'message/rfc822', size: original.length },
    ]);
    expect(Buffer.from(attachmentBytes(raw, parseStructure(raw), 0) ?? []).toString()).toBe(original);
  });
});

test.each([
  ['{', /it is no JSON/],
  [{ from, to }, /give html or text/],
  [{ from, text: '' }, /name somebody/],
  [{ from, to: [{ address: 'nobody' }], text: '' }, /to: “nobody” is no address: it has no @/],
  [{ from, to, text: '', attachments: [{ file: 'none.pdf' }] }, /none\.pdf: there is no such file/],
  [{ from, to, text: '', how: 'reply' }, /go together/],
  [{ from, to, text: '', answers: 'none.eml', how: 'reply' }, /none\.eml: there is no such file/],
  [{ from, to, text: '', colour: 'red' }, /colour/],
])('what is wrong is said with exit code 2: %j', async (draft, error) => {
  const { code, error: said, raw } = await write(draft);
  expect(said).toMatch(error);
  expect(code).toBe(2);
  expect(raw).toHaveLength(0);
});
