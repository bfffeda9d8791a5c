import { authenticationOf } from './authentication';
import { parseStructure } from './structure';

const read = (field: string) =>
  authenticationOf(parseStructure(new TextEncoder().encode(`${field}\r\nFrom: a@b.test\r\n\r\n`)).fields);

test.each([
  ['B.1: nothing was said', 'Subject: x', {}],
  ['B.2: no authentication done', 'Authentication-Results: example.org 1; none', {}],
  ['B.3: SPF', 'Authentication-Results: example.com; spf=pass smtp.mailfrom=example.net', { spf: 'pass' }],
  [
    'B.4: several methods, with a comment',
    'Authentication-Results: example.com; auth=pass (cram-md5) smtp.auth=sender@example.net; spf=pass smtp.mailfrom=example.net',
    { spf: 'pass' },
  ],
  [
    'B.6: one signature fails, one holds',
    'Authentication-Results: example.com; dkim=pass reason="good signature" header.i=@mail-router.example.net; dkim=fail reason="bad signature" header.i=@newyork.example.com',
    { dkim: 'pass' },
  ],
])('RFC 8601, appendix %s', (_what, field, expected) => {
  expect(read(field)).toEqual(expected);
});

test('only the topmost field counts: those below may be the sender’s own (RFC 8601, section 5)', () => {
  expect(read('Authentication-Results: mx.test; dmarc=fail\r\nAuthentication-Results: mx.test; dmarc=pass')).toEqual({
    dmarc: 'fail',
  });
});

test('results that are neither (section 2.7)', () => {
  expect(read('Authentication-Results: mx.test; spf=softfail; dkim=neutral; dmarc=temperror')).toEqual({
    spf: 'fail',
    dkim: 'none',
    dmarc: 'none',
  });
});
