import { byteText, decodeText, decodeUnlabelled, isKnownCharset } from './charset';
import { fieldValue, readHeader } from './header';
import { placeName, placeSchema } from './place';

const bytes = (text: string) => new TextEncoder().encode(text);
const headerOf = (raw: Uint8Array) => readHeader(raw, byteText(raw), 0, raw.length);
const fields = (text: string) => headerOf(bytes(text)).fields.map((f) => [f.name, f.value]);

describe('header fields (RFC 5322, section 2.2)', () => {
  test('section 2.2.3: the folded Subject of the RFC is one line', () => {
    expect(fields('Subject: This\r\n is a test\r\n\r\nbody')).toEqual([['Subject', 'This is a test']]);
  });

  test('the body begins after the first empty line', () => {
    const raw = bytes('A: b\n\nA: c\n');
    expect(headerOf(raw).bodyStart).toBe(6);
    expect(fieldValue(headerOf(raw).fields, 'a')).toBe('b');
  });

  test('a From_ line at the top is passed over, one further down ends the header', () => {
    expect(fields('From x@y Thu\nA: b\n\n')).toEqual([['A', 'b']]);
    expect(headerOf(bytes('A: b\nFrom x@y Thu\nC: d\n\n')).fields).toHaveLength(1);
  });

  test('a line that is no field ends the header, and is the body’s', () => {
    const raw = bytes('A: b\nthis is text\nC: d\n\n');
    const header = headerOf(raw);
    expect(header.fields).toHaveLength(1);
    expect(new TextDecoder().decode(raw.subarray(header.bodyStart))).toMatch(/^this is text/);
  });

  test('raw UTF-8 (RFC 6532) and raw windows-1252 (common practice, no source)', () => {
    expect(fields('Subject: Fähre\n\n')).toEqual([['Subject', 'Fähre']]);
    const raw = Uint8Array.from([...bytes('Subject: F'), 0xe4, ...bytes('hre\n\n')]);
    expect(headerOf(raw).fields[0].value).toBe('Fähre');
  });
});

describe('character sets', () => {
  test('byte text has one unit for each byte', () => {
    const all = Uint8Array.from({ length: 256 }, (_, i) => i);
    expect(byteText(all)).toHaveLength(256);
    expect(byteText(bytes('abc'))).toBe('abc');
  });

  test.each([
    ['utf-8', [0xc3, 0xa9], 'é'],
    ['ISO-8859-1', [0xe9], 'é'],
    ['koi8-r', [0xc6, 0xc1], 'фа'],
    ['gb2312', [0xba, 0xa3], '海'],
    ['shift_jis', [0x93, 0xfa], '日'],
    ['cp1252', [0x80], '€'],
    ['us-ascii', [0x41, 0xc3, 0xa9], 'Aé'],
    ['default_charset', [0xe9], 'é'],
  ])('%s', (label, data, text) => {
    expect(decodeText(Uint8Array.from(data), label)).toBe(text);
  });

  test('a label of nobody’s is known as such, and read without one', () => {
    expect(isKnownCharset('x-moon')).toBe(false);
    expect(decodeText(Uint8Array.of(0xe9), 'x-moon')).toBe('é');
    expect(decodeUnlabelled(bytes('é'))).toBe('é');
  });
});

test('places: the fixed ones and folders, nothing else; named as on the screen', () => {
  for (const place of ['inbox', 'archive', 'junk', 'bin', 'sent', 'drafts', 'folder:x'])
    expect(placeSchema.safeParse(place).success).toBe(true);
  for (const place of ['attic', 'folder:', '', 3]) expect(placeSchema.safeParse(place).success).toBe(false);
  expect(placeName('inbox', [])).toBe('Inbox');
  expect(placeName('folder:x', [{ id: 'x', name: 'Weather' }])).toBe('Weather');
  expect(placeName('folder:gone', [])).toBe('gone');
});
