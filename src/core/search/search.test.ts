// RFC 9051, section 6.4.4: each key by what the RFC says of it; the second and third queries are the RFC's examples.
import fc from 'fast-check';
import { foldSearch } from '../text/fold';
import { dayKeys, parseQuery, queryText, textKeys, type Query } from './query';
import { SearchedMessages } from './searched';
import { Message } from '../mail/message';

const parsed = (text: string): Query => {
  const result = parseQuery(text);
  if (!result.ok) throw new Error(`${result.error} (${result.at})`);
  return result.query;
};

const raw = [
  'Received: from mail.harbour.test by mx.ferry.test; Tue, 1 Sep 2026 12:00:01 +0000',
  'From: "Smith, A." <smith@harbour.test>',
  'To: desk@ferry.test',
  'Cc: Crew <crew@ferry.test>',
  'Bcc: secret@ferry.test',
  'Subject: Fuel for =?utf-8?q?=E2=80=9CSolveig=E2=80=9D?=',
  'Date: Tue, 1 Sep 2026 12:00:00 +0000',
  'Message-ID: <fuel.1@harbour.test>',
  'X-Priority: 1 (very high)',
  'Content-Type: multipart/mixed; boundary=x',
  '',
  '--x',
  'Content-Type: text/plain; charset=utf-8',
  '',
  'Höchst urgent: the tank',
  'is almost empty. 東京へ',
  '--x',
  'Content-Type: application/pdf; name="Rechnung März.pdf"',
  'Content-Disposition: attachment; filename="Rechnung.pdf"',
  '',
  'data',
  '--x--',
].join('\r\n');
const bytes = new TextEncoder().encode(raw);
const one = new SearchedMessages();
one.add(new Message(bytes));
const is = (query: string) => one.search(parsed(query)).length === 1;

test.each([
  ['ALL', true],
  // The second and third are the RFC's examples; what stands in a file was neither read nor flagged.
  ['FLAGGED SINCE 1-Feb-1994 NOT FROM "Smith"', false],
  ['UNFLAGGED SINCE 1-Feb-1994 FROM "Smith"', true],
  ['TEXT "string not in mailbox"', false],
  ['unseen', true],
  ['SEEN', false],
  ['unanswered undeleted undraft', true],
  ['answered', false],
  ['to desk', true],
  ['to crew', false],
  ['cc crew', true],
  ['bcc secret', true],
  ['bcc crew', false],
  ['subject "fuel for"', true],
  ['subject solveig', true],
  ['unkeyword engine', true],
  ['keyword engine', false],
  ['before 1-Sep-2026', false],
  ['on 1-Sep-2026', true],
  ['on 2026-09-01', true],
  ['since 2-Sep-2026', false],
  ['sentbefore "2-Sep-2026"', true],
  ['senton 1-Sep-2026', true],
  ['sentsince 2-Sep-2026', false],
  [`larger ${bytes.length}`, false],
  [`larger ${bytes.length - 1}`, true],
  [`smaller ${bytes.length + 1}`, true],
  ['or seen unflagged', true],
  ['or seen flagged', false],
  ['not (seen) (unflagged)', true],
  ['(unseen (unflagged))', true],
  ['charset utf-8 unseen', true],
  // Text: upper and lower case, accents, and line ends are alike.
  ['body "TANK IS almost"', true],
  ['body hochst', true],
  ['body HÖCHST', true],
  ['body "ank is alm"', true],
  ['body "is tank"', false],
  ['body 東京', true],
  ['body fuel', false],
  ['body smith', false],
  // The header with every field, or the body.
  ['text fuel.1@harbour', true],
  ['text "very high"', true],
  ['text tank', true],
  ['text x-priority', false],
  ['header x-priority "1 (VERY"', true],
  ['header X-Priority ""', true],
  ['header X-None ""', false],
  ['header X-Priority low', false],
  ['header message-id fuel.1', true],
  // What the index does not keep is read in the message.
  ['header received mx.ferry', true],
  ['header received elsewhere', false],
  // A word by itself: people, subject, text, names of attachments.
  ['solveig', true],
  ['"smith, a."', true],
  ['rechnung', true],
  ['urgent', true],
  ['mx.ferry.test', false],
  ['"unseen"', false],
  ['"\\"solve\\\\"', false],
])('%s', (query, expected) => {
  expect(is(query)).toBe(expected);
});

test.each([
  ['from "harbour', 5, 'never closed'],
  ['(unseen', 0, 'never closed'],
  ['unseen)', 6, 'closes none'],
  ['unseen from', 11, 'What from looks for is missing'],
  ['not', 3, 'A key is missing'],
  ['or seen', 7, 'the two keys that “or” takes'],
  ['seen or flagged', 15, 'the two keys that “or” takes'],
  ['since 31-Feb-2026', 6, 'is no date'],
  ['larger much', 7, 'is no size'],
  ['header', 6, 'The name of a header field'],
  ['header "a b" c', 7, 'is no name of a header field'],
  ['header subject', 14, 'What is looked for in subject is missing'],
  ['uid 4:7', 0, 'Messages have no numbers here'],
  ['return (min) seen', 0, 'All that is found is shown'],
  ['charset koi8-r seen', 0, 'Queries are in UTF-8'],
  ['text {12}', 5, 'A length in braces'],
  ['', 0, 'A key is missing'],
  ['()', 0, 'A key is missing'],
  ['x'.repeat(10_001), 10_000, 'at most 10,000'],
  ['('.repeat(200), 51, 'nested too deep'],
])('what is wrong with “%.20s”, and where', (query, at, error) => {
  const result = parseQuery(query);
  expect(result).toMatchObject({ ok: false, at });
  expect(result.ok ? '' : result.error).toContain(error);
});

test('NOT and OR obey logic', () => {
  const key = fc.constantFrom('seen', 'unflagged', 'from smith', 'subject rope', 'larger 10', 'cc nobody', 'body tank');
  fc.assert(
    fc.property(key, key, (a, b) => {
      expect(is(`not (${a} ${b})`)).toBe(is(`or not ${a} not ${b}`));
      expect(is(`or ${a} ${b}`)).toBe(is(a) || is(b));
      expect(is(`not not ${a}`)).toBe(is(a));
    }),
  );
});

test('a query written as text is read as the same query', () => {
  const text = fc.oneof(fc.string(), fc.constantFrom('seen', 'a b', '"', '\\', '(', '{3}', 'or', 'ÖL'));
  const day = fc.integer({ min: 0, max: 40_000 }).map((n) => n * 86_400_000);
  const leaf = fc.oneof(
    fc.constant<Query>({ key: 'all' }),
    fc.record({ key: fc.constantFrom('seen', 'flagged', 'answered', 'draft', 'deleted'), value: fc.boolean() }),
    fc.record({ key: fc.constantFrom(...textKeys, 'words'), text }),
    fc.record({ key: fc.constant('keyword'), label: text }),
    fc.record({ key: fc.constant('header'), name: fc.constantFrom('X-Priority', 'from', '{', 'a(b)'), text }),
    fc.record({ key: fc.constantFrom(...dayKeys), day }),
    fc.record({ key: fc.constantFrom('larger', 'smaller'), bytes: fc.nat() }),
  ) as fc.Arbitrary<Query>;
  const { query } = fc.letrec<{ query: Query }>((tie) => ({
    query: fc.oneof(
      { depthSize: 'small' },
      leaf,
      tie('query').map((of): Query => ({ key: 'not', of })),
      fc.tuple(tie('query'), tie('query')).map((of): Query => ({ key: 'or', of })),
      fc.array(tie('query'), { minLength: 2, maxLength: 3 }).map((of): Query => ({ key: 'and', of })),
    ),
  }));
  fc.assert(
    fc.property(query, (one) => {
      const written = queryText(one);
      expect(parsed(written)).toEqual(one);
      expect(queryText(parsed(written))).toBe(written);
    }),
    { numRuns: 1_000 },
  );
});

test('searching folds case, accents and forms, and keeps words whole', () => {
  expect(foldSearch('Höchst, ÉCLAIR, straße, ﬁn')).toBe('hochst, eclair, strasse, fin');
  expect(foldSearch('don´t\nＡ１')).toBe('don´t\na1');
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), (text) => {
      // Blanks stay where they were: the words of the index stay apart, and none falls apart.
      expect(foldSearch(text).split(/\s/).length).toBe(text.split(/\s/).length);
      expect(foldSearch(foldSearch(text))).toBe(foldSearch(text));
    }),
    { numRuns: 500 },
  );
});

test('a domain of other letters is found in both of its forms, also by a whole label of it', () => {
  const mail = (from: string) => new Message(new TextEncoder().encode(`From: ${from}\r\nSubject: x\r\n\r\nText\r\n`));
  const some = new SearchedMessages();
  some.add(mail('ana@xn--bcher-kva.example'));
  some.add(mail('bo@bücher.example'));
  some.add(mail('cy@bucher.test'));
  const found = (query: string) => some.search(parsed(query));
  expect(found('from bücher.example')).toEqual([0, 1]);
  expect(found('from ana@bücher.example')).toEqual([0]);
  expect(found('from XN--bcher-kva.example')).toEqual([0, 1]);
  expect(found('bücher')).toEqual([0, 1, 2]);
  expect(found('from harbour')).toEqual([]);
});
