import fc from 'fast-check';
import { addressKey, domainOf, formatAddress, parseAddresses } from './address';

const read = (field: string) => parseAddresses(field).map((a) => [a.name, a.address]);

describe('addresses of RFC 5322, appendix A', () => {
  test('A.1.1: a simple originator', () => {
    expect(read('John Doe <jdoe@machine.example>')).toEqual([['John Doe', 'jdoe@machine.example']]);
  });

  test('A.1.2: different types of mailboxes', () => {
    expect(read('"Joe Q. Public" <john.q.public@example.com>')).toEqual([
      ['Joe Q. Public', 'john.q.public@example.com'],
    ]);
    expect(read('Mary Smith <mary@x.test>, jdoe@example.org, Who? <one@y.test>')).toEqual([
      ['Mary Smith', 'mary@x.test'],
      ['', 'jdoe@example.org'],
      ['Who?', 'one@y.test'],
    ]);
    expect(read('<boss@nil.test>, "Giant; \\"Big\\" Box" <sysservices@example.net>')).toEqual([
      ['', 'boss@nil.test'],
      ['Giant; "Big" Box', 'sysservices@example.net'],
    ]);
  });

  test('A.1.3: group addresses', () => {
    expect(read('A Group:Ed Jones <c@a.test>,joe@where.test,John <jdoe@one.test>;')).toEqual([
      ['Ed Jones', 'c@a.test'],
      ['', 'joe@where.test'],
      ['John', 'jdoe@one.test'],
    ]);
    expect(read('Undisclosed recipients:;')).toEqual([]);
  });

  test('A.5: white space, comments and other oddities', () => {
    expect(read('Pete(A nice \\) chap) <pete(his account)@silly.test(his host)>')).toEqual([
      ['Pete', 'pete@silly.test'],
    ]);
    expect(
      read(
        "A Group(Some people)\r\n     :Chris Jones <c@(Chris's host.)public.example>,\r\n         joe@example.org,\r\n  John <jdoe@one.test> (my dear friend); (the end of the group)",
      ),
    ).toEqual([
      ['Chris Jones', 'c@public.example'],
      ['', 'joe@example.org'],
      ['John', 'jdoe@one.test'],
    ]);
    expect(read('(Empty list)(start)Hidden recipients  :(nobody(that I know))  ;')).toEqual([]);
  });

  test('A.6.1: obsolete addressing', () => {
    expect(read('Joe Q. Public <john.q.public@example.com>')).toEqual([['Joe Q. Public', 'john.q.public@example.com']]);
    expect(read('Mary Smith <@node.test:mary@example.net>, , jdoe@test  . example')).toEqual([
      ['Mary Smith', 'mary@example.net'],
      ['', 'jdoe@test.example'],
    ]);
  });

  test('A.6.3: obsolete white space and comments', () => {
    expect(read('John Doe <jdoe@machine(comment).  example>')).toEqual([['John Doe', 'jdoe@machine.example']]);
  });
});

describe('addresses of real mail (common practice, no source)', () => {
  test.each([
    ['joe@where.test (Joe Public)', [['Joe Public', 'joe@where.test']]],
    ['"joe@where.test" <joe@where.test>', [['joe@where.test', 'joe@where.test']]],
    ['=?utf-8?q?Andr=C3=A9?= <a@b.test>', [['André', 'a@b.test']]],
    ['"=?utf-8?B?QW5kcsOp?=" <a@b.test>', [['André', 'a@b.test']]],
    ['nobody in particular', [['nobody in particular', '']]],
    ['<>', [['', '']]],
    ['"unclosed <a@b.test>', [['unclosed <a@b.test>', '']]],
    ['"a b"@c.test', [['', '"a b"@c.test']]],
    ['user@[192.0.2.1]', [['', 'user@[192.0.2.1]']]],
  ])('%s', (field, expected) => {
    expect(read(field)).toEqual(expected);
  });

  test('as many recipients as asked for, and no more', () => {
    expect(parseAddresses('a@b.test,'.repeat(50_000), 2_000)).toHaveLength(2_000);
  });

  test('any text is read without an exception', () => {
    fc.assert(
      fc.property(
        fc.string({
          unit: fc.constantFrom('a', '@', '<', '>', '"', '(', ')', ',', ';', ':', '\\', ' ', '[', ']', '.'),
        }),
        (text) => {
          for (const { name, address } of parseAddresses(text))
            expect(typeof name + typeof address).toBe('stringstring');
        },
      ),
    );
  });

  test('what is written is read back', () => {
    const name = fc
      .string({ unit: fc.constantFrom('A', 'é', ' ', '"', '\\', ',', '.', 'z', '<', '漢') })
      .map((n) => n.replace(/\s+/g, ' ').trim());
    fc.assert(
      fc.property(name, (n) => {
        expect(read(formatAddress({ name: n, address: 'x@y.test' }))).toEqual([[n, 'x@y.test']]);
      }),
    );
  });
});

test('keys and domains take no notice of case', () => {
  expect(addressKey(' Joe@Where.TEST ')).toBe('joe@where.test');
  expect(domainOf('Joe@Where.TEST.')).toBe('where.test');
  expect(domainOf('nobody')).toBe('');
});
