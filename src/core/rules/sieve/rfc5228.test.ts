// The examples of RFC 5228 and of the extensions that are read; the scripts and messages are the RFCs’, from memory.
import { meaningOf } from './meaning';
import { readScript } from './read';
import { runScript, type Effect } from './runScript';
import { parseScript } from './script';

const setup = { rules: [], folders: [], labels: [], accounts: [] };
const encoder = new TextEncoder();
const mail = (...lines: string[]) => encoder.encode(`${lines.join('\r\n')}\r\n\r\nHello\r\n`);

/** RFC 5228, section 3.1. */
const messageA = mail(
  'From: coyote@desert.example.org',
  'To: roadrunner@acme.example.com',
  'Subject: I have a present for you',
);
const messageB = mail(
  'From: youcouldberich!@reply-by-postal-mail.invalid',
  'To: rube@landru.example.com',
  'Subject: $$$ YOU, TOO, CAN BE A MILLIONAIRE! $$$',
);

function run(script: string, raw: Uint8Array, rest: { from?: string; to?: string; now?: number } = {}): Effect[] {
  const parsed = parseScript(script);
  if (!parsed.ok) throw new Error(parsed.error.says);
  const meaning = meaningOf(parsed.script);
  expect(meaning.problems).toEqual([]);
  return runScript(meaning, { raw, now: 0, ...rest });
}
const words = (effects: readonly Effect[]) =>
  effects
    .map((effect) =>
      'mailbox' in effect ? `fileinto ${effect.mailbox}` : 'to' in effect ? `redirect ${effect.to}` : effect.does,
    )
    .join();

test('section 3.1: if, elsif, else', () => {
  const first = `require "fileinto";
    if header :contains "from" "coyote" { discard; }
    elsif header :contains ["subject"] ["$$$"] { discard; }
    else { fileinto "INBOX"; }`;
  expect([messageA, messageB].map((raw) => words(run(first, raw)))).toEqual(['', '']);
  expect(words(run(first, mail('From: a@b.example', 'Subject: Hello')))).toBe('fileinto INBOX');
  const second = `if header :contains ["From"] ["coyote"] { redirect "acm@example.com"; }
    elsif header :contains "Subject" "$$$" { redirect "postmaster@example.com"; }
    else { redirect "field@example.com"; }`;
  expect([messageA, messageB].map((raw) => words(run(second, raw)))).toEqual([
    'redirect acm@example.com',
    'redirect postmaster@example.com',
  ]);
});

test.each<[string, string, Uint8Array, string]>([
  ['4.4: discard', 'if header :contains ["from"] ["coyote"] { discard; }', messageA, ''],
  ['5.1: address', 'if address :is :all "from" "coyote@desert.example.org" { discard; }', messageA, ''],
  [
    '5.1: the part of an address',
    'if address :domain :is "from" "DESERT.example.org" { stop; } discard;',
    messageA,
    'keep',
  ],
  ['5.1: localpart', 'if address :localpart "to" "roadrunner" { discard; }', messageA, ''],
  ['5.2 and 5.3: allof, anyof', 'if allof (anyof (false, true), not false) { discard; }', messageA, ''],
  ['5.5: exists', 'if not exists ["From","Date"] { discard; }', messageA, ''],
  ['5.7: an empty key', 'if header :is ["X-Caffeine"] [""] { discard; }', mail('X-Caffeine: C8H10N4O2'), 'keep'],
  [
    '5.7: an empty key is contained',
    'if header :contains ["X-Caffeine"] [""] { discard; }',
    mail('X-Caffeine: C8H10N4O2'),
    '',
  ],
  ['5.9: size', 'if size :over 1K { discard; } if size :under 100G { keep; }', messageA, 'keep'],
  [
    '2.7.1: a wildcard that is meant itself',
    'if header :matches "subject" "I \\\\*have*" { discard; }',
    messageA,
    'keep',
  ],
  ['2.7.1: wildcards that fit', 'if header :matches "subject" "I ?ave a*you" { discard; }', messageA, ''],
  ['2.10.3: the same action twice is once', 'require "fileinto"; fileinto "a"; fileinto "a";', messageA, 'fileinto a'],
  ['2.10.2: implicit keep', '', messageA, 'keep'],
  ['2.10.3: the same twice is once', 'keep; keep;', messageA, 'keep'],
  [
    '2.4.2: text over lines',
    'if header :is "subject" text:\r\nI have a present for you\r\n.\r\n { keep; }',
    messageA,
    'keep',
  ],
])('RFC 5228, section %s', (_, script, raw, expected) => {
  expect(words(run(script, raw))).toBe(expected);
});

test.each([
  ['$${hex:40}', '$@'],
  ['${hex: 40 }', '@'],
  ['${HEX: 40}', '@'],
  ['${hex:40', '${hex:40'],
  ['${hex:400}', '${hex:400}'],
  ['${hex:4${hex:30}}', '${hex:40}'],
  ['${unicode:40}', '@'],
  ['${ unicode:40}', '${ unicode:40}'],
  ['${UnICoDE:0000040}', '@'],
  ['${Unicode:Cool}', '${Unicode:Cool}'],
])('RFC 5228, section 2.4.2.4: %s is %s', (text, meant) => {
  expect(words(run(`require ["encoded-character", "fileinto"]; fileinto "${text}";`, messageA))).toBe(
    `fileinto ${meant}`,
  );
});

test('section 5.4: envelope', () => {
  const script = 'require "envelope"; if envelope :all :is "from" "tim@example.com" { discard; }';
  expect(words(run(script, messageA, { from: 'tim@example.com' }))).toBe('');
  expect(words(run(script, messageA, { from: 'tom@example.com' }))).toBe('keep');
});

/** RFC 5228, section 9. */
const extended = `# Example Sieve Filter
require ["fileinto"];
# Handle messages from known mailing lists
if header :is "Sender" "owner-ietf-mta-filters@imc.org"
        {
        fileinto "filter";  # move to "filter" mailbox
        }
elsif address :DOMAIN :is ["From", "To"] "example.com"
        {
        keep;               # keep in "In" mailbox
        }
elsif anyof (NOT address :all :contains
               ["To", "Cc", "Bcc"] "me@example.com",
             header :matches "subject"
               ["*make*money*fast*", "*university*dipl*mas*"])
        {
        fileinto "spam";   # move to "spam" mailbox
        }
else
        {
        fileinto "personal";
        }
`;

test('section 9: the extended example runs, and is read as far as rules can say it', () => {
  expect(words(run(extended, mail('Sender: owner-ietf-mta-filters@imc.org')))).toBe('fileinto filter');
  expect(words(run(extended, mail('From: a@example.com')))).toBe('keep');
  expect(words(run(extended, mail('To: me@example.com.invalid', 'Subject: Make money real fast')))).toBe(
    'fileinto spam',
  );
  expect(words(run(extended, mail('Cc: me@example.com', 'Subject: Lunch')))).toBe('fileinto personal');
  const read = readScript(extended, setup, () => 'id');
  expect(read.ok && read.read.rules.map(({ when, then }) => ({ when, then }))).toMatchObject([
    { when: { of: [{ field: 'header', name: 'Sender', how: 'is', text: 'owner-ietf-mta-filters@imc.org' }] } },
    {
      when: {
        match: 'any',
        of: [
          { field: 'from', how: 'domain', text: 'example.com' },
          { field: 'to', how: 'domain', text: 'example.com' },
        ],
      },
      then: [{ do: 'move', place: 'inbox' }],
    },
  ]);
  // Bcc is nothing that a rule asks for, and what follows that branch would take its mail.
  expect(read.ok && read.read.left.map(({ at, says }) => `${at.line}: ${says.slice(0, 40)}`)).toEqual([
    '12: A rule here asks for addresses in From, ',
    '21: It follows a branch that can’t be taken,',
  ]);
});

test('RFC 5232: flags; RFC 5231: counts and values; RFC 5260: dates; RFC 5173: bodies; RFC 3894: copies', () => {
  const flags = run(
    'require ["imap4flags","fileinto"]; addflag "\\\\Deleted"; addflag ["\\\\Seen \\\\deleted"]; removeflag "\\\\Seen"; fileinto "x";',
    messageA,
  );
  expect(flags).toEqual([{ does: 'fileinto', mailbox: 'x', flags: ['\\Deleted'] }]);
  const has = 'require "imap4flags"; setflag "a b"; if hasflag :contains "B" { discard; }';
  expect(words(run(has, messageA))).toBe('');
  const many = mail('To: a@x.example, b@x.example', 'X-Priority: 3', 'Date: Fri, 4 Sep 2026 00:30:00 +0100');
  const relational =
    'require ["relational","comparator-i;ascii-numeric"]; if allof (address :count "ge" :comparator "i;ascii-numeric" ["to"] ["2"], header :value "lt" :comparator "i;ascii-numeric" "x-priority" "10") { discard; }';
  expect(words(run(relational, many))).toBe('');
  const date = (zone: string, day: string) =>
    words(run(`require "date"; if date ${zone} "date" "date" "${day}" { discard; }`, many));
  expect([
    date(':originalzone', '2026-09-04'),
    date(':zone "+0000"', '2026-09-03'),
    date(':zone "-0500"', '2026-09-04'),
  ]).toEqual(['', '', 'keep']);
  const now = 'require ["date","relational"]; if currentdate :value "ge" "date" "2026-11-25" { discard; }';
  expect(words(run(now, messageA, { now: Date.UTC(2026, 10, 25) }))).toBe('');
  expect(words(run('require "body"; if body :contains "hello" { discard; }', messageA))).toBe('');
  expect(words(run('require ["fileinto","copy"]; fileinto :copy "x";', messageA))).toBe('fileinto x,keep');
});

test.each<[string, number, number, RegExp]>([
  ['if header :is "a" "b" { keep; ', 1, 23, /brace that opens here is never closed/],
  ['keep', 1, 5, /end of the script stands where “;” is needed/],
  ['if true {\n  fileinto "x\n}', 2, 12, /quotation mark that opens here is never closed/],
  ['/* never', 1, 1, /comment that opens here is never closed/],
  ['keep; }', 1, 7, /closes nothing/],
  ['if header ["a" "b"] { }', 1, 16, /where “]” is needed/],
  ['§', 1, 1, /can’t stand here/],
  ['fileinto text: x\n.\n;', 1, 10, /line must end/],
  [`if ${'not '.repeat(200)}true { }`, 1, 164, /nested too deep/],
])('a fault in %j is told with line and column', (script, line, column, says) => {
  const parsed = parseScript(script);
  expect(parsed.ok ? null : parsed.error.at).toEqual({ line, column });
  expect(parsed.ok ? '' : parsed.error.says).toMatch(says);
});

test.each<[string, RegExp]>([
  ['fileinto "x";', /needs “require "fileinto"”/],
  ['require "vacation"; keep;', /extension “vacation” is not known/],
  ['vacation "gone";', /command “vacation” is not known/],
  ['if header :regex "a" "b" { keep; }', /:regex/],
  ['keep; require "fileinto";', /only at the top/],
  ['else { keep; }', /must follow “if”/],
  ['if size 100 { keep; }', /needs :over or :under/],
  ['if header :is :contains "a" "b" { keep; }', /can’t stand together/],
  ['if true, false { keep; }', /./],
  ['stop "x";', /nothing that “stop” takes/],
])('%s is refused with the reason', (script, says) => {
  const parsed = parseScript(script);
  const reason = parsed.ok ? (meaningOf(parsed.script).problems[0]?.says ?? '') : parsed.error.says;
  expect(reason).toMatch(says);
});

test('what can’t be taken is listed by line, what means something else is told', () => {
  const read = readScript(
    'require ["fileinto","copy","envelope","imap4flags"];\nif envelope "from" "a@b" { keep; }\nif header :contains "subject" "x" {\n  fileinto :copy "y";\n  addflag "Later";\n}\nif header :is "subject" "z" { discard; }\nif header :is "subject" "w" { fileinto "Trash"; }\nredirect "a@b.example";\n',
    setup,
    () => 'id',
  );
  if (!read.ok) throw new Error(read.error.says);
  expect(read.read.left.map(({ at }) => at.line)).toEqual([2, 4, 9]);
  expect(read.read.notes.map(({ at, says }) => `${at.line} ${says}`)).toEqual([
    '7 After filing, the script goes on; here the rules below are not asked.',
    '7 It would be deleted unseen; here it goes to the Bin.',
    '8 After filing, the script goes on; here the rules below are not asked.',
    '8 “Trash” is taken for the Bin.',
  ]);
  expect(read.read.labels.map(({ name }) => name)).toEqual(['Later']);
});

test('a character that becomes a wildcard by folding (RFC 5051) is none', () => {
  const script = `require "comparator-i;unicode-casemap";
    if header :matches :comparator "i;unicode-casemap" "subject" "a？c" { discard; }`;
  expect(words(run(script, mail('Subject: abc')))).toBe('keep');
  expect(words(run(script, mail('Subject: A？C')))).toBe('');
  // What was a wildcard stays one, and case is of no account.
  expect(words(run(script.replace('？', '?'), mail('Subject: ABC')))).toBe('');
});
