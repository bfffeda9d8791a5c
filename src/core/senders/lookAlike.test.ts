import { editDistance, lookAlikeOf, skeleton } from './lookAlike';
import { unicodeDomain } from './normal';
import { lyingLinks } from './lyingLinks';
import { knownPeople } from './knownPeople';
import { suspicionsOf } from './suspicion';

describe('skeletons (UTS #39, section 4)', () => {
  test.each([
    ['paypal', 'pаypаl'],
    ['scope', 'ѕсоре'],
    ['modern', 'modem'],
  ])('%s and %s look alike', (a, b) => expect(skeleton(a)).toBe(skeleton(b)));

  test('what looks different has another', () => expect(skeleton('harbour')).not.toBe(skeleton('harvest')));
});

// RFC 3492, section 7.1: samples B (Chinese, simplified), I (Russian), L (Japanese, artist and title).
test.each([
  ['xn--ihqwcrb4cv8a8dqg056pqjye', '他们为什么不说中文'],
  ['xn--b1abfaaepdrnnbgefbadotcwatmq2g4l', 'почемужеонинеговорятпорусски'],
  ['xn--3b-ww4c5e180e575a65lsy2b', '3年b組金八先生'],
  ['xn--bcher-kva.example', 'bücher.example'],
  ['xn--!!!.example', 'xn--!!!.example'],
  ['harbour.example', 'harbour.example'],
])('%s is shown as %s', (ascii, shown) => expect(unicodeDomain(ascii)).toBe(shown));

test.each([
  ['kitten', 'kitten', 0],
  ['harbour', 'harbuor', 1],
  ['harbour', 'habour', 1],
  ['harbour', 'harvest', 4],
])('from %s to %s: %d', (a, b, n) => expect(editDistance(a, b, 4)).toBe(n));

describe('look-alike domains', () => {
  const known = new Set(['stonness-harbour.example', 'bank.test']);
  test.each([
    ['stonness-harbuor.example', 'stonness-harbour.example'],
    ['stonness-harb0ur.example', 'stonness-harbour.example'],
    ['xn--stonness-harbur-pfg.example', null],
    ['mail.stonness-harbour.example', null],
    ['stonness-harbour.example', null],
    ['other.example', null],
    ['', null],
  ])('%s could be taken for %s', (domain, other) => expect(lookAlikeOf(domain, known)).toBe(other));
});

describe('what looks false', () => {
  const known = knownPeople([
    { name: 'Eilif Marwick', address: 'e.marwick@stonness-harbour.example' },
    { name: 'Desk', address: 'desk@ferry.example' },
  ]);
  const from = (name: string, address: string, replyTo: string[] = []) => ({
    from: { name, address },
    replyTo: replyTo.map((one) => ({ name: '', address: one })),
    byList: false,
  });
  const kinds = (...args: Parameters<typeof suspicionsOf>) => suspicionsOf(...args).map(({ kind }) => kind);

  test.each([
    ['a known name from elsewhere', from('Eilif Marwick', 'x@mailhaven.example'), ['name']],
    ['in letters that look alike', from('Eilif Mаrwick', 'x@mailhaven.example'), ['name']],
    ['the same name from its own address', from('Eilif Marwick', 'e.marwick@stonness-harbour.example'), []],
    ['a name of one word', from('Desk', 'x@mailhaven.example'), []],
    ['another address in the name', from('e.marwick@stonness-harbour.example', 'x@evil.test'), ['address in name']],
    ['a domain one letter apart', from('', 'x@stonnes-harbour.example'), ['domain']],
    ['answers that go elsewhere', from('', 'a@shop.test', ['b@other.test']), ['reply']],
    ['answers to the same domain', from('', 'a@shop.test', ['b@shop.test']), []],
  ])('%s', (_what, message, expected) => expect(kinds(message, {}, [], known)).toEqual(expected));

  test('one’s own address is one’s own, not somebody’s whom one writes to', () => {
    const own = knownPeople([], [{ name: 'Mara Quill', address: 'mara@skerry-line.example' }]);
    const says = (message: ReturnType<typeof from>) => suspicionsOf(message, {}, [], own).map((one) => one.says);
    expect(says(from('Mara Quill', 'x@mailhaven.example'))).toEqual([
      'It calls itself Mara Quill, as you are called, but comes from x@mailhaven.example.',
    ]);
    expect(says(from('', 'x@skery-line.example'))).toEqual([
      'skery-line.example looks like skerry-line.example, which is your own, and is another.',
    ]);
  });

  test('what the server found (RFC 8601)', () => {
    const message = from('', 'a@shop.test');
    expect(kinds(message, { dmarc: 'fail' }, [], known)).toEqual(['authentication']);
    expect(kinds(message, { spf: 'fail', dkim: 'pass' }, [], known)).toEqual([]);
    expect(kinds(message, { spf: 'pass' }, [], known)).toEqual([]);
  });

  test('letters of two alphabets in one name (UTS #39, section 5.1)', () => {
    expect(kinds(from('', `a@${new URL('http://hаrbor-ferries.test').hostname}`), {}, [], known)).toEqual([
      'mixed scripts',
    ]);
  });

  test('links that say one site and go to another, not those that say none', () => {
    const anchors = [
      { href: 'https://evil.test/login', text: 'https://www.bank.test/login' },
      { href: 'https://www.bank.test/', text: 'bank.test' },
      { href: 'https://evil.test/', text: 'Press here' },
      { href: 'mailto:a@b.test', text: 'bank.test' },
    ];
    expect(lyingLinks(anchors)).toEqual([{ says: 'www.bank.test', goes: 'evil.test' }]);
    expect(kinds(from('', 'a@shop.test'), {}, anchors, known)).toEqual(['link']);
  });
});
