import { createHash } from 'node:crypto';
import { messageKey, readBatch } from './readMessages';

const bytes = (text: string) => new TextEncoder().encode(text);

test('the key is SHA-256 of the bytes, whatever line breaks end them', async () => {
  const key = await messageKey(bytes('a: b\n\nx'));
  expect(key).toBe(createHash('sha256').update('a: b\n\nx').digest('hex').slice(0, 32));
  expect(await messageKey(bytes('a: b\n\nx\r\n\n'))).toBe(key);
  expect(await messageKey(bytes('a: b\n\ny'))).not.toBe(key);
});

test('a message has the same key in an mbox and by itself', async () => {
  const message = 'From: a@b.test\nSubject: x\n\nFrom here\n';
  const [alone] = (await readBatch([bytes(message)], 'eml', false)).envelopes;
  const stored = `From a@b.test Thu Aug 22 12:36:23 2002\n${message.replace(/^From here/m, '>From here')}\n`;
  const [wrapped] = (await readBatch([bytes(stored)], 'mbox', false)).envelopes;
  expect(wrapped).toEqual(alone);
});
