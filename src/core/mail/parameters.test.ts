import { parseParameters } from './parameters';

describe('RFC 2231', () => {
  test('section 3: a long value in sections', () => {
    const { value, parameters } = parseParameters(
      'message/external-body; access-type=URL;\r\n URL*0="ftp://";\r\n URL*1="cs.utk.edu/pub/moore/bulk-mailer/bulk-mailer.tar"',
    );
    expect(value).toBe('message/external-body');
    expect(parameters).toMatchObject({
      'access-type': 'URL',
      url: 'ftp://cs.utk.edu/pub/moore/bulk-mailer/bulk-mailer.tar',
    });
  });

  test('section 4: a character set and a language', () => {
    const { parameters } = parseParameters(
      "application/x-stuff; title*=us-ascii'en-us'This%20is%20%2A%2A%2Afun%2A%2A%2A",
    );
    expect(parameters.title).toBe('This is ***fun***');
  });

  test('section 4.1: both at once', () => {
    const { parameters } = parseParameters(
      "application/x-stuff; title*0*=us-ascii'en'This%20is%20even%20more%20; title*1*=%2A%2A%2Afun%2A%2A%2A%20; title*2=\"isn't it!\"",
    );
    expect(parameters.title).toBe("This is even more ***fun*** isn't it!");
  });
});

test('RFC 2045, section 5.1: with and without quotes, a comment not taken for a value', () => {
  expect(parseParameters('text/plain; charset=us-ascii').parameters.charset).toBe('us-ascii');
  expect(parseParameters('Text/Plain; Charset="us-ascii"')).toEqual({
    value: 'text/plain',
    parameters: { charset: 'us-ascii' },
  });
});

test.each([
  ['a semicolon in quotes', 'attachment; filename="a;b.txt"', 'a;b.txt'],
  ['an escaped quote', 'attachment; filename="a\\"b.txt"', 'a"b.txt'],
  [
    'encoded words against the RFC (common practice, no source)',
    'attachment; filename="=?utf-8?Q?=C3=A9t=C3=A9?=.txt"',
    'été.txt',
  ],
  ['a quote that is never closed', 'attachment; filename="a.txt', 'a.txt'],
  ['names of the prototype', 'attachment; __proto__=x; filename=a', 'a'],
])('%s', (_what, field, filename) => {
  expect(parseParameters(field).parameters.filename).toBe(filename);
});
