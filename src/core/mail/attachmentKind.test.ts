// What of an attachment is seen, by its bytes: signatures as the specifications of PNG, JPEG, GIF, WebP and BMP have them.
import { attachmentName, longestSeen, maybeSeen, seenAs } from './attachmentKind';

const bytes = (text: string) => new TextEncoder().encode(text);
const sign = (...list: number[]) => Uint8Array.from([...list, ...new Array<number>(20).fill(0)]);

test.each<[string, Uint8Array, string]>([
  ['PNG', sign(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a), 'image/png'],
  ['JPEG', sign(0xff, 0xd8, 0xff, 0xe0), 'image/jpeg'],
  ['GIF', bytes('GIF89a\0\0'), 'image/gif'],
  ['WebP', bytes('RIFF\0\0\0\0WEBPVP8 '), 'image/webp'],
  ['BMP', bytes('BM\0\0\0\0'), 'image/bmp'],
])('%s is a picture, whatever it is called', (_what, its, type) =>
  expect(seenAs(its)).toEqual({ kind: 'picture', type }),
);

test('text is text, whatever its character set; a picture that can act is its source', () => {
  expect(seenAs(bytes('tide,time\nhigh,06:15\n'))).toEqual({
    kind: 'text',
    text: 'tide,time\nhigh,06:15\n',
    cut: false,
  });
  expect(seenAs(Uint8Array.of(0x48, 0xf6, 0x63, 0x68, 0x73, 0x74))).toMatchObject({ text: 'H\u00f6chst' });
  expect(seenAs(Uint8Array.of(0xff, 0xfe, 0x48, 0, 0xf6, 0))).toMatchObject({ text: 'H\u00f6' });
  expect(seenAs(bytes('<svg onload="alert(1)"/>'))).toMatchObject({ kind: 'text' });
  const long = seenAs(bytes('a'.repeat(longestSeen + 1)));
  expect(long).toMatchObject({ kind: 'text', cut: true });
});

test('what is neither shows nothing', () => {
  expect(seenAs(bytes('%PDF\0\u0001\u0002'))).toEqual({ kind: 'nothing' });
  expect(seenAs(Uint8Array.from({ length: 500 }, (_, i) => (i * 7) % 32))).toEqual({ kind: 'nothing' });
});

test('what may be worth a look, by type or name, and not too large', () => {
  const its = (type: string, name: string | null, size = 10) => maybeSeen({ type, name, size });
  expect([its('image/png', null), its('application/octet-stream', 'a.JPG'), its('text/csv', 'x')]).toEqual([
    true,
    true,
    true,
  ]);
  expect([its('application/pdf', 'a.pdf'), its('image/svg+xml', 'a.svg'), its('image/png', 'a.png', 30e6)]).toEqual([
    false,
    false,
    false,
  ]);
});

test.each([
  ['plan.pdf', 'application/pdf', 'plan.pdf'],
  [null, 'text/calendar', 'calendar-2.ics'],
  [null, 'message/rfc822', 'message-2.eml'],
  ['', 'application/x-y', 'attachment-2'],
])('“%s” of %s is called %s', (name, type, called) => expect(attachmentName({ name, type }, 1)).toBe(called));
