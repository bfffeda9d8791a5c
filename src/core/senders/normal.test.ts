import { countryDomains, countryName, countryOf } from './countries';
import { isPublicSuffix, siteOf } from '../mail/site';
import { scriptOf } from '../text/writingSystem';
import { bothForms, normalAddress, normalDomain, withoutSubaddress } from './normal';

test.each([
  ['case', 'Ana@HARBOUR.Example', 'ana@harbour.example'],
  ['a trailing dot', 'ana@harbour.example.', 'ana@harbour.example'],
  ['quotes that are not needed (RFC 5321, section 4.1.2)', '"ana"@harbour.example', 'ana@harbour.example'],
  ['quotes that are needed', '"ana maria"@harbour.example', '"ana maria"@harbour.example'],
  [
    'comments (RFC 5322, appendix A.5)',
    'Pete(A nice \\) chap) <pete(his account)@silly.test(his host)>',
    'pete@silly.test',
  ],
  ['IDNA, by UTS #46', 'ana@Bücher.example', 'ana@xn--bcher-kva.example'],
  ['a subaddress stays', 'Ana+News@harbour.example', 'ana+news@harbour.example'],
  ['what is no address', ' Desk ', ''],
])('normal form: %s', (_what, typed, normal) => {
  expect(normalAddress(typed)).toBe(normal);
});

test('IDNA is idempotent, and what it refuses stays', () => {
  expect(normalDomain('xn--bcher-kva.example')).toBe('xn--bcher-kva.example');
  expect(normalDomain('bücher .example')).toBe('bücher .example');
});

test.each([
  ['ana+news@x.test', 'ana@x.test'],
  ['ana@x.test', null],
  ['+news@x.test', null],
  ['ana@x+y.test', null],
])('RFC 5233: without its subaddress, %s is %s', (address, expected) => {
  expect(withoutSubaddress(address)).toBe(expected);
});

describe('countries (ISO 3166-1, by the package iso-3166-1)', () => {
  test.each([
    ['ch', 'Switzerland'],
    ['cn', 'China'],
    ['no', 'Norway'],
    ['uk', 'United Kingdom of Great Britain and Northern Ireland'],
  ])('.%s is %s', (code, name) => expect(countryName(code)).toBe(name));

  test.each([
    ['mail.x.ch', 'ch'],
    ['x.co.uk', 'uk'],
    ['x.com', null],
    ['x.gb', null],
    ['', null],
  ])('%s ends in %s', (domain, code) => expect(countryOf(domain)).toBe(code));

  test('every code has a name', () => {
    expect(countryDomains.length).toBeGreaterThan(245);
    for (const code of countryDomains) expect(countryName(code)).toMatch(/\w/);
  });
});

// From the test vectors published with the Public Suffix List (tests/test_psl.txt).
test.each([
  ['example.com', 'example.com'],
  ['b.example.com', 'example.com'],
  ['a.b.example.com', 'example.com'],
  ['example.uk.com', 'example.uk.com'],
  ['test.ac', 'test.ac'],
  ['a.b.c.kobe.jp', 'b.c.kobe.jp'],
  ['city.kobe.jp', 'city.kobe.jp'],
  ['www.test.k12.ak.us', 'test.k12.ak.us'],
])('the site of %s is %s', (host, site) => expect(siteOf(host)).toBe(site));

test.each([
  ['com', true],
  ['co.uk', true],
  ['c.kobe.jp', true],
  ['github.io', true],
  ['example.com', false],
  ['harbour.example', false],
])('%s is a public suffix: %s', (domain, expected) => expect(isPublicSuffix(domain)).toBe(expected));

// The first words of the Universal Declaration of Human Rights, article 1, from memory.
test.each([
  ['Latn', 'All human beings are born free'],
  ['Cyrl', 'Все люди рождаются свободными'],
  ['Grek', 'Όλοι οι άνθρωποι γεννιούνται ελεύθεροι'],
  ['Arab', 'يولد جميع الناس أحرارا'],
  ['Hebr', 'כל בני האדם נולדו בני חורין'],
  ['Hani', '人人生而自由'],
  ['Jpan', 'すべての人間は、生まれながらにして自由'],
  ['Kore', '모든 인간은 태어날 때부터 자유로우며'],
  ['Thai', 'มนุษย์ทั้งหลายเกิดมามีอิสระ'],
  ['Deva', 'सभी मनुष्यों को गौरव'],
  ['', '12345 !?'],
])('text in %s (ISO 15924)', (code, text) => expect(scriptOf(text)).toBe(code));

// “bücher” is a label often used to show Punycode (RFC 3492); from memory.
test.each([
  ['ana@xn--bcher-kva.example', 'ana@xn--bcher-kva.example (ana@bücher.example)'],
  ['xn--bcher-kva.example', 'xn--bcher-kva.example (bücher.example)'],
  ['harbour.example', 'harbour.example'],
  ['xn--', 'xn--'],
  // U+202E, which IDNA refuses.
  ['xn--ab-g4t.example', 'xn--ab-g4t.example'],
  ['Ana@XN--BCHER-KVA.example', 'Ana@XN--BCHER-KVA.example'],
])('%s is shown as %s', (value, shown) => expect(bothForms(value)).toBe(shown));
