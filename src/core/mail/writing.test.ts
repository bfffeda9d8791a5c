import { parseEnvelope } from './envelope';
import { foldField, writeMessage } from './writing';

const bytes = (text: string) => new TextEncoder().encode(text);

test('what is written is read back', () => {
  const raw = writeMessage({
    messageId: 'a.b@c.test',
    date: Date.UTC(2026, 10, 24, 9, 30),
    zone: 60,
    from: { name: 'Ingrid Sørhaug', address: 'ingrid@c.test' },
    to: [{ name: 'Harbour, Office', address: 'office@d.test' }],
    cc: [{ name: '', address: 'x@y.test' }],
    subject: 'Förteckning över båtar '.repeat(5).trim(),
    inReplyTo: 'q@c.test',
    references: ['p@c.test', 'q@c.test'],
    body: {
      type: 'multipart/mixed',
      boundary: 'b1',
      parts: [
        { type: 'text/plain', charset: 'utf-8', bytes: bytes('Hej då\r\n'), encoding: 'quoted-printable' },
        { type: 'text/csv', bytes: bytes('a,b\r\n'), encoding: 'base64', filename: 'över.csv' },
      ],
    },
  });
  expect(parseEnvelope(raw)).toMatchObject({
    messageId: 'a.b@c.test',
    date: Date.UTC(2026, 10, 24, 9, 30),
    from: { name: 'Ingrid Sørhaug', address: 'ingrid@c.test' },
    to: [{ name: 'Harbour, Office', address: 'office@d.test' }],
    cc: [{ name: '', address: 'x@y.test' }],
    subject: 'Förteckning över båtar '.repeat(5).trim(),
    references: ['p@c.test', 'q@c.test'],
    attachments: [{ name: 'över.csv', type: 'text/csv', size: 5 }],
    preview: 'Hej då',
    damage: null,
  });
});

test('fields are folded at 78 characters where they have blanks (RFC 5322, section 2.1.1)', () => {
  const folded = foldField(
    'References',
    Array.from({ length: 12 }, (_, i) => `<message.${i}@machine.example>`).join(' '),
  );
  for (const line of folded.trimEnd().split('\r\n')) expect(line.length).toBeLessThanOrEqual(78);
  expect(folded.replace(/\r\n /g, ' ')).toMatch(/^References: <message\.0@.*<message\.11@machine\.example>\r\n$/);
});
