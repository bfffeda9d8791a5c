import fc from 'fast-check';
import { parseAddresses } from './address';
import { decodeEncodedWords, encodeWords } from './encodedWord';

describe('RFC 2047, section 8', () => {
  // The left column is the form in the RFC's table, the right one “Displayed as”.
  test.each([
    ['=?ISO-8859-1?Q?a?=', 'a'],
    ['=?ISO-8859-1?Q?a?= b', 'a b'],
    ['=?ISO-8859-1?Q?a?= =?ISO-8859-1?Q?b?=', 'ab'],
    ['=?ISO-8859-1?Q?a?=  =?ISO-8859-1?Q?b?=', 'ab'],
    ['=?ISO-8859-1?Q?a?=\r\n    =?ISO-8859-1?Q?b?=', 'ab'],
    ['=?ISO-8859-1?Q?a_b?=', 'a b'],
    ['=?ISO-8859-1?Q?a?= =?ISO-8859-2?Q?_b?=', 'a b'],
  ])('%s', (encoded, displayed) => {
    expect(decodeEncodedWords(encoded)).toBe(displayed);
  });

  test('the header fields of the section’s first examples', () => {
    expect(parseAddresses('=?US-ASCII?Q?Keith_Moore?= <moore@cs.utk.edu>')[0].name).toBe('Keith Moore');
    expect(parseAddresses('=?ISO-8859-1?Q?Keld_J=F8rn_Simonsen?= <keld@dkuug.dk>')[0].name).toBe('Keld Jørn Simonsen');
    expect(parseAddresses('=?ISO-8859-1?Q?Andr=E9?= Pirard <PIRARD@vm1.ulg.ac.be>')[0].name).toBe('André Pirard');
    expect(parseAddresses('=?ISO-8859-1?Q?Olle_J=E4rnefors?= <ojarnef@admin.kth.se>')[0].name).toBe('Olle Järnefors');
    expect(parseAddresses('=?ISO-8859-1?Q?Patrik_F=E4ltstr=F6m?= <paf@nada.kth.se>')[0].name).toBe('Patrik Fältström');
    expect(
      decodeEncodedWords(
        '=?ISO-8859-1?B?SWYgeW91IGNhbiByZWFkIHRoaXMgeW8=?=\r\n    =?ISO-8859-2?B?dSB1bmRlcnN0YW5kIHRoZSBleGFtcGxlLg==?=',
      ),
    ).toBe('If you can read this you understand the example.');
    expect(
      parseAddresses(
        'Nathaniel Borenstein <nsb@thumper.bellcore.com>\r\n    (=?iso-8859-8?b?7eXs+SDv4SDp7Oj08A==?=)',
      )[0].name,
    ).toBe('Nathaniel Borenstein');
    // The bytes are from memory of the RFC; in the character set's own (visual) order, as it shows them.
    expect(decodeEncodedWords('=?iso-8859-8?b?7eXs+SDv4SDp7Oj08A==?=')).toBe('םולש ןב ילטפנ');
  });
});

test('a language tag is passed over (RFC 2231, section 5, example)', () => {
  expect(decodeEncodedWords('=?US-ASCII*EN?Q?Keith_Moore?=')).toBe('Keith Moore');
});

test('a character parted between two words is put together (common practice, no source)', () => {
  expect(decodeEncodedWords('=?utf-8?B?4oI=?= =?utf-8?B?rA==?=')).toBe('€');
});

test('a character set with states begins anew in each word', () => {
  // ISO-2022-JP: “日本” and “語”, each with its own escapes.
  expect(decodeEncodedWords('=?iso-2022-jp?B?GyRCRnxLXBsoQg==?= =?iso-2022-jp?B?GyRCOGwbKEI=?=')).toBe('日本語');
});

test('a character set that nobody knows leaves the word as it stands', () => {
  expect(decodeEncodedWords('=?x-moon?Q?abc?= and on')).toBe('=?x-moon?Q?abc?= and on');
});

test('what is encoded is decoded, in words of at most 75 characters', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), (text) => {
      const encoded = encodeWords(text);
      if (encoded !== text) for (const word of encoded.split(' ')) expect(word.length).toBeLessThanOrEqual(75);
      expect(decodeEncodedWords(encoded)).toBe(text);
    }),
  );
});
