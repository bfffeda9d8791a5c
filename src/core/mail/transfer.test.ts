import fc from 'fast-check';
import {
  decodeBase64,
  decodedSize,
  decodeQuotedPrintable,
  encodeBase64,
  encodeQuotedPrintable,
  isCutBase64,
} from './transfer';

const bytes = (text: string) => new TextEncoder().encode(text);
const text = (data: Uint8Array) => new TextDecoder().decode(data);

describe('quoted-printable (RFC 2045, section 6.7)', () => {
  test('the example of soft line breaks', () => {
    const encoded = "Now's the time =\r\nfor all folk to come=\r\n to the aid of their country.";
    expect(text(decodeQuotedPrintable(bytes(encoded)))).toBe(
      "Now's the time for all folk to come to the aid of their country.",
    );
  });

  test('wrong escapes stay, blanks after a soft break go, lower-case hex is read', () => {
    expect(text(decodeQuotedPrintable(bytes('100 =% =zz a=3d=\t \nb')))).toBe('100 =% =zz a=b');
  });

  test('what is encoded is decoded, in lines of at most 76 characters', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 400 }), (data) => {
        // Line breaks are the transport's: they come back as CRLF.
        const plain = Uint8Array.from(data).filter((b) => b !== 10 && b !== 13);
        const encoded = encodeQuotedPrintable(plain);
        for (const line of encoded.split('\r\n')) expect(line.length).toBeLessThanOrEqual(76);
        expect([...decodeQuotedPrintable(bytes(encoded))]).toEqual([...plain]);
      }),
    );
  });
});

describe('base64 (RFC 2045, section 6.8; vectors of RFC 4648, section 10)', () => {
  test.each([
    ['', ''],
    ['f', 'Zg=='],
    ['fo', 'Zm8='],
    ['foo', 'Zm9v'],
    ['foob', 'Zm9vYg=='],
    ['fooba', 'Zm9vYmE='],
    ['foobar', 'Zm9vYmFy'],
  ])('%s', (plain, encoded) => {
    expect(encodeBase64(bytes(plain), '', 0)).toBe(encoded);
    expect(text(decodeBase64(bytes(encoded)))).toBe(plain);
    expect(decodedSize(bytes(encoded), 'base64')).toBe(plain.length);
  });

  test('anything decodes to what was encoded, whatever stands between the letters', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 300 }), (data) => {
        const lines = encodeBase64(data).replace(/\r\n/g, ' \r\n!');
        expect([...decodeBase64(bytes(lines))]).toEqual([...data]);
        expect(decodedSize(bytes(lines), 'base64')).toBe(data.length);
      }),
    );
  });

  test('a cut is seen where it leaves a letter over', () => {
    expect(isCutBase64(bytes('Zm9vYmFyZ'))).toBe(true);
    expect(isCutBase64(bytes('Zm9vYmFy'))).toBe(false);
  });
});

test('whatever stands between its letters is passed over, wherever in a group of four', () => {
  const whole = Buffer.from('The tide was low at noon.').toString('base64');
  for (let at = 0; at <= 12; at++)
    for (const between of [0, 10, 32, 45, 128, 255]) {
      const bytes = Uint8Array.from([...Buffer.from(whole.slice(0, at)), between, ...Buffer.from(whole.slice(at))]);
      expect(Buffer.from(decodeBase64(bytes)).toString()).toBe('The tide was low at noon.');
    }
});
