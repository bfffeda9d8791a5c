import fc from 'fast-check';
import { listIdOf, parseEnvelope } from './envelope';
import { parseStructure } from './structure';

const bytes = (text: string) => new TextEncoder().encode(text);
const crlf = (text: string) => bytes(text.replace(/\n/g, '\r\n'));

describe('messages of RFC 5322, appendix A', () => {
  test('A.1.1: a simple message', () => {
    const envelope = parseEnvelope(
      crlf(`From: John Doe <jdoe@machine.example>
Sender: Michael Jones <mjones@machine.example>
To: Mary Smith <mary@example.net>
Subject: Saying Hello
Date: Fri, 21 Nov 1997 09:55:06 -0600
Message-ID: <1234@local.machine.example>

This is a message just to say hello.
So, "Hello".
`),
    );
    expect(envelope).toMatchObject({
      messageId: '1234@local.machine.example',
      from: { name: 'John Doe', address: 'jdoe@machine.example' },
      to: [{ name: 'Mary Smith', address: 'mary@example.net' }],
      subject: 'Saying Hello',
      date: Date.UTC(1997, 10, 21, 15, 55, 6),
      preview: 'This is a message just to say hello. So, "Hello".',
      damage: null,
    });
  });

  test('A.2: a reply and what it answers', () => {
    const envelope = parseEnvelope(
      crlf(`From: John Doe <jdoe@machine.example>
To: "Mary Smith: Personal Account" <smith@home.example>
Subject: Re: Saying Hello
Date: Fri, 21 Nov 1997 11:00:00 -0600
Message-ID: <abcd.1234@local.machine.test>
In-Reply-To: <3456@example.net>
References: <1234@local.machine.example> <3456@example.net>

This is a reply to your reply.
`),
    );
    expect(envelope.references).toEqual(['1234@local.machine.example', '3456@example.net']);
    expect(envelope.to[0]).toEqual({ name: 'Mary Smith: Personal Account', address: 'smith@home.example' });
  });

  test('A.3: resent fields leave the originator alone', () => {
    const envelope = parseEnvelope(
      crlf(`Resent-From: Mary Smith <mary@example.net>
Resent-To: Jane Brown <j-brown@other.example>
Resent-Date: Mon, 24 Nov 1997 14:22:01 -0800
Resent-Message-ID: <78910@example.net>
From: John Doe <jdoe@machine.example>
To: Mary Smith <mary@example.net>
Subject: Saying Hello
Date: Fri, 21 Nov 1997 09:55:06 -0600
Message-ID: <1234@local.machine.example>

This is a message just to say hello.
`),
    );
    expect(envelope).toMatchObject({
      from: { address: 'jdoe@machine.example' },
      messageId: '1234@local.machine.example',
    });
  });

  test('A.4: trace fields', () => {
    const envelope = parseEnvelope(
      crlf(`Received: from x.y.test
  by example.net
  via TCP
  with ESMTP
  id ABC12345
  for <mary@example.net>;  21 Nov 1997 10:05:43 -0600
Received: from node.example by x.y.test; 21 Nov 1997 10:01:22 -0600
From: John Doe <jdoe@node.example>
To: Mary Smith <mary@example.net>
Subject: Saying Hello
Date: Fri, 21 Nov 1997 09:55:06 -0600
Message-ID: <1234@local.node.example>

This is a message just to say hello.
`),
    );
    expect(envelope).toMatchObject({ from: { address: 'jdoe@node.example' }, subject: 'Saying Hello' });
  });

  test('A.5: comments and folding everywhere', () => {
    const envelope = parseEnvelope(
      crlf(`From: Pete(A nice \\) chap) <pete(his account)@silly.test(his host)>
To:A Group(Some people)
     :Chris Jones <c@(Chris's host.)public.example>,
         joe@example.org,
  John <jdoe@one.test> (my dear friend); (the end of the group)
Cc:(Empty list)(start)Hidden recipients  :(nobody(that I know))  ;
Date: Thu,
      13
        Feb
          1969
      23:32
               -0330 (Newfoundland Time)
Message-ID:              <testabcd.1234@silly.test>

Testing.
`),
    );
    expect(envelope).toMatchObject({
      messageId: 'testabcd.1234@silly.test',
      date: Date.UTC(1969, 1, 14, 3, 2),
      from: { address: 'pete@silly.test' },
      cc: [],
    });
    expect(envelope.to.map((a) => a.address)).toEqual(['c@public.example', 'joe@example.org', 'jdoe@one.test']);
  });

  test('A.6.3: obsolete blanks before the colon, and a line of blanks in the middle of a field', () => {
    const envelope = parseEnvelope(
      crlf(`From  : John Doe <jdoe@machine(comment).  example>
To    : Mary Smith
  \t
          <mary@example.net>
Subject     : Saying Hello
Date  : Fri, 21 Nov 1997 09(comment):   55  :  06 -0600
Message-ID  : <1234   @   local(blah)  .machine .example>

This is a message just to say hello.
`),
    );
    expect(envelope).toMatchObject({
      from: { name: 'John Doe', address: 'jdoe@machine.example' },
      to: [{ name: 'Mary Smith', address: 'mary@example.net' }],
      subject: 'Saying Hello',
      date: Date.UTC(1997, 10, 21, 15, 55, 6),
    });
  });
});

describe('MIME', () => {
  const multipart = `From: Nathaniel Borenstein <nsb@bellcore.com>
To: Ned Freed <ned@innosoft.com>
Date: Sun, 21 Mar 1993 23:56:48 -0800 (PST)
Subject: Sample message
MIME-Version: 1.0
Content-type: multipart/mixed; boundary="simple boundary"

This is the preamble.  It is to be ignored, though it
is a handy place for composition agents to include an
explanatory note to non-MIME conformant readers.

--simple boundary

This is implicitly typed plain US-ASCII text.
It does NOT end with a linebreak.
--simple boundary
Content-type: text/plain; charset=us-ascii

This is explicitly typed plain US-ASCII text.
It DOES end with a linebreak.

--simple boundary--

This is the epilogue.  It is also to be ignored.
`;

  test('RFC 2046, section 5.1.1: the example of two parts', () => {
    const raw = crlf(multipart);
    const { root, damage } = parseStructure(raw);
    const parts = root.parts.map((p) => new TextDecoder().decode(raw.subarray(p.start, p.end)));
    expect(damage).toBeNull();
    expect(parts).toEqual([
      'This is implicitly typed plain US-ASCII text.\r\nIt does NOT end with a linebreak.',
      'This is explicitly typed plain US-ASCII text.\r\nIt DOES end with a linebreak.\r\n',
    ]);
  });

  test('RFC 2046, section 5.1.5: parts of a digest are messages', () => {
    const { root } = parseStructure(
      crlf('Content-Type: multipart/digest; boundary=b\n\n--b\n\nFrom: a@b.test\n\nHi\n--b--\n'),
    );
    expect(root.parts[0].type).toBe('message/rfc822');
  });

  test('a boundary that begins another one does not end it', () => {
    const raw = crlf(
      'Content-Type: multipart/mixed; boundary=a\n\n--a\nContent-Type: multipart/mixed; boundary=ab\n\n--ab\n\none\n--ab--\n\n--a\n\ntwo\n--a--\n',
    );
    const { root, damage } = parseStructure(raw);
    expect(damage).toBeNull();
    expect(root.parts).toHaveLength(2);
    expect(root.parts[0].parts).toHaveLength(1);
  });

  test('attachments: name, type and decoded size', () => {
    const { attachments, preview } = parseEnvelope(
      crlf(`From: a@b.test
Content-Type: multipart/mixed; boundary=b

--b
Content-Type: text/plain

See the picture.
--b
Content-Type: image/png; name="ramp.png"
Content-Transfer-Encoding: base64

AAECAwQF
--b
Content-Type: application/octet-stream
Content-Disposition: attachment; filename*=UTF-8''f%C3%B6rteckning.csv

x
--b--
`),
    );
    expect(attachments).toEqual([
      { name: 'ramp.png', type: 'image/png', size: 6 },
      { name: 'förteckning.csv', type: 'application/octet-stream', size: 1 },
    ]);
    expect(preview).toBe('See the picture.');
  });
});

describe('damaged and hostile messages', () => {
  test.each([
    ['nothing', '', 'It is empty.'],
    ['no header', 'Hello there.\nIt rains.\n', 'It has no header, so it has no sender, subject or date.'],
    [
      'no boundary',
      'From: a@b.test\nContent-Type: multipart/mixed\n\nx\n',
      'It says that it has several parts, but not what parts them (no boundary).',
    ],
    [
      'cut in a part',
      'From: a@b.test\nContent-Type: multipart/mixed; boundary=b\n\n--b\n\nx\n',
      'It ends before its last part is closed: it may have been cut.',
    ],
    [
      'cut before the first part',
      'From: a@b.test\nContent-Type: multipart/mixed; boundary=b\n\n',
      'It says that it has several parts, but none begins: it may have been cut.',
    ],
    [
      'a cut attachment',
      'From: a@b.test\nContent-Type: image/png; name=x.png\nContent-Transfer-Encoding: base64\n\nAAECA\n',
      'Its attachment “x.png” is cut off.',
    ],
  ])('%s', (_what, text, damage) => {
    expect(parseEnvelope(crlf(text)).damage).toBe(damage);
  });

  test('deep nesting ends, and stays readable', () => {
    let text = 'From: a@b.test\n';
    for (let i = 0; i < 300; i++) text += `Content-Type: multipart/mixed; boundary=b${i}.\n\n--b${i}.\n`;
    for (let i = 299; i >= 0; i--) text += `\n--b${i}.--\n`;
    expect(parseEnvelope(crlf(text)).damage).toMatch(/60 deep/);
  });

  test('10,000 header fields, a line of a million characters, NUL bytes', () => {
    const many = parseEnvelope(bytes(`From: a@b.test\n${'X-Filler: y\n'.repeat(10_000)}Subject: there\n\nHi\n`));
    expect(many).toMatchObject({ subject: 'there', damage: null });
    expect(parseEnvelope(bytes(`Subject: ${'x'.repeat(1_000_000)}\n\nHi`)).subject).toHaveLength(2_000);
    expect(parseEnvelope(bytes('Subject: a\0b\n\n\0\0x')).subject).toBe('a b');
  });

  test('wrong character sets still give text', () => {
    const text = (charset: string) =>
      parseEnvelope(Uint8Array.from([...bytes(`Content-Type: text/plain; charset=${charset}\n\nn`), 0xe9])).preview;
    expect(text('utf-8')).toBe('n\ufffd');
    expect(text('iso-8859-1')).toBe('né');
    expect(text('x-unheard-of')).toBe('né');
  });

  test('text that would turn the rest of a row around is taken out', () => {
    expect(parseEnvelope(bytes('Subject: invoice\u202Efdp.exe\n\n')).subject).toBe('invoice fdp.exe');
  });

  test('any bytes give an envelope', () => {
    const piece = fc.constantFrom(
      'From: ',
      'Content-Type: multipart/mixed; boundary=b',
      '\n',
      '\r\n',
      '--b',
      '--b--',
      ' ',
      '\0',
      '=?utf-8?B?',
      '?=',
      'é',
      '"',
      '(',
      '<',
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 60 }), (pieces) => {
        const raw = bytes(pieces.join(''));
        expect(parseEnvelope(raw).size).toBe(raw.length);
      }),
      { numRuns: 500 },
    );
  });
});

test('List-Id: what stands in angle brackets (RFC 2919, section 3, examples)', () => {
  expect(listIdOf('List Header Mailing List <list-header.nisto.com>')).toBe('list-header.nisto.com');
  expect(listIdOf('<commonspace-users.list-id.within.com>')).toBe('commonspace-users.list-id.within.com');
  expect(listIdOf('"Lena\'s Personal Joke List" <lenas-jokes.da39efc25c530ad145d41b86f7420c3b.021999.localhost>')).toBe(
    'lenas-jokes.da39efc25c530ad145d41b86f7420c3b.021999.localhost',
  );
});

test('whatever a stranger names shows no character that turns it around, and nothing that is no text', () => {
  // As it was written it is kept for the rules alone.
  const { written, ...envelope } = parseEnvelope(
    new TextEncoder().encode(
      [
        'From: =?utf-8?q?Ana=E2=80=AE?= <ana\u202e@x.test>',
        'Subject: a\u202eb',
        'Message-ID: <a\rb@x.test>',
        'References: <c\0d@x.test> <e@x.test>',
        'Content-Type: application/pdf; name="invoice\u202efdp.exe"',
        '',
        'x',
      ].join('\n'),
    ),
  );
  expect(JSON.stringify(envelope)).not.toMatch(/[\u202a-\u202e]|\\r|\\u0000/);
  expect(written?.subject).toContain('\u202e');
  expect(envelope.attachments[0].name).toBe('invoice fdp.exe');
  expect(envelope.references).toEqual(['e@x.test']);
});

const received = 'Received: from a by b; Tue, 3 Nov 2026 10:00:00 +0100\n';

test.each<[string, string, number | undefined]>([
  ['a Date like any other', 'Tue, 3 Nov 2026 09:58:00 +0100', undefined],
  ['one that is days late: mail may lie', 'Tue, 20 Oct 2026 09:58:00 +0100', undefined],
  ['a day ahead: clocks and zones are wrong', 'Wed, 4 Nov 2026 09:58:00 +0100', undefined],
  ['none', '', Date.UTC(2026, 10, 3, 9)],
  ['one that can’t be read', 'yesterday', Date.UTC(2026, 10, 3, 9)],
  ['the year 0102', 'Tue, 3 Nov 0102 09:58:00 +0100', Date.UTC(2026, 10, 3, 9)],
  ['the year 1970', 'Thu, 1 Jan 1970 00:00:00 +0000', Date.UTC(2026, 10, 3, 9)],
  ['the year 2038', 'Tue, 19 Jan 2038 03:14:07 +0000', Date.UTC(2026, 10, 3, 9)],
])('by when it was received where its Date can’t be gone by: %s', (_what, date, expected) => {
  const text = `${received}From: a@b.test\n${date ? `Date: ${date}\n` : ''}\nx\n`;
  expect(parseEnvelope(new TextEncoder().encode(text)).received).toBe(expected);
});

test('a Received field without a date is passed over, and without any nothing is made up', () => {
  const of = (header: string) => parseEnvelope(new TextEncoder().encode(`${header}From: a@b.test\n\nx\n`));
  expect(of(`Received: by somebody\n${received}`).received).toBe(Date.UTC(2026, 10, 3, 9));
  expect(of('Received: by somebody\n').received).toBeUndefined();
});
