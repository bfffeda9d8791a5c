// What is written, read by another program: Python's own email package (3.11) reads random messages without a defect,
// and finds in them what was written.
import { cases } from '../../../bench/chance';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import { parseEnvelope } from '../mail/envelope';
import { bodyBlocks } from '../mail/body';
import { unflowed } from '../mail/flow';
import { parseStructure } from '../mail/structure';
import { composeMessage, plainTextOf, type FileToSend, type WrittenMessage } from './composing';
import { escapeHtml, outgoingHtml } from './outgoingHtml';
import { typedLines } from './flowed';

/** Words in twelve writing systems, with emoji and marks that join. */
const words = [
  'harbour',
  'Überfahrt',
  'Åse-Marit',
  'Пристань',
  'Λιμάνι',
  'נמל',
  'ميناء',
  'घाट',
  'বন্দর',
  '港口',
  'みなと',
  '항구',
  'ท่าเรือ',
  'ნავსადგური',
  '👩‍👩‍👧‍👦',
  '⛴️',
  '🇳🇴',
  'a,b',
  '"quoted"',
  'back\\slash',
  '(comment)',
  '=?x?q?y?=',
  '<tag>',
  'Q:',
  '%41',
  "o'clock",
  'e\u0301',
];
const word = fc.constantFrom(...words);
const phrase = (most: number) => fc.array(word, { minLength: 1, maxLength: most }).map((list) => list.join(' '));
const address = fc.record({
  name: fc.oneof(fc.constant(''), phrase(4), phrase(10)),
  address: fc
    .tuple(
      fc.stringMatching(/^[a-z][a-z0-9+_-]{0,20}$/),
      fc.constantFrom('ferry.test', 'xn--80apqffhh6f.xn--p1ai', 'a.b.c.d.test'),
    )
    .map(([local, domain]) => `${local}@${domain}`),
});
const line = fc.oneof(
  { weight: 8, arbitrary: phrase(40) },
  fc.constant(''),
  fc.constantFrom('From here on', '> not a quote', ' stuffed', '.', '-- ', '--', 'x'.repeat(10_000)),
  word.map((one) => new Array(Math.floor(10_000 / (one.length + 1))).fill(one).join(' ')),
);
const text = fc.array(line, { maxLength: 12 }).map((lines) => lines.join('\n'));
const html = fc
  .array(fc.tuple(fc.constantFrom('p', 'blockquote', 'li', 'strong', 'em', 'pre'), line), { maxLength: 10 })
  .map((list) =>
    list
      .map(([name, said]) =>
        name === 'li' ? `<ul><li><p>${escapeHtml(said)}</p></li></ul>` : `<${name}>${escapeHtml(said)}</${name}>`,
      )
      .join(''),
  );
const file = fc.record({
  name: fc.oneof(phrase(3), phrase(25)).map((name) => `${name}.pdf`),
  type: fc.constantFrom('application/pdf', 'text/plain', 'image/png', 'not a type'),
  bytes: fc.uint8Array({ maxLength: 300 }),
});
const message: fc.Arbitrary<WrittenMessage> = fc
  .record({
    from: address,
    to: fc.array(address, { minLength: 1, maxLength: 8 }),
    cc: fc.array(address, { maxLength: 8 }),
    bcc: fc.array(address, { maxLength: 2 }),
    subject: fc.oneof(phrase(6), phrase(60), fc.constant(''), fc.constant('x'.repeat(1_500))),
    html: fc.option(html),
    text,
    files: fc.array(file, { maxLength: 3 }),
    picture: fc.boolean(),
  })
  .map(({ picture, ...draft }) => {
    const shown = picture && draft.html !== null;
    const files: FileToSend[] = shown
      ? [
          ...draft.files,
          { name: 'båt.png', type: 'image/png', bytes: Uint8Array.of(137, 80, 78, 71), contentId: 'pic1@wide' },
        ]
      : draft.files;
    return {
      ...draft,
      html: shown ? `${draft.html}<img src="cid:pic1@wide" alt="boat">` : draft.html,
      files,
      messageId: 'one.two@ferry.test',
      date: Date.UTC(2026, 10, 28, 9, 30),
      zone: 60,
      references: ['a@b.test', 'c@d.test'],
      inReplyTo: 'c@d.test',
    };
  });

const reader = `
import email, email.policy, json, sys, os
out = []
for name in sorted(os.listdir(sys.argv[1])):
    raw = open(os.path.join(sys.argv[1], name), 'rb').read()
    m = email.message_from_bytes(raw, policy=email.policy.default)
    defects, texts, files = [], {}, []
    for part in m.walk():
        defects += [repr(d) for d in part.defects]
        for k, v in part.items():
            defects += [k + ': ' + repr(d) for d in getattr(v, 'defects', [])]
        if part.is_multipart(): continue
        content = part.get_payload(decode=True)
        if part.get_filename() is not None:
            files.append([part.get_filename(), content.hex(), part['content-id']])
        else:
            texts[part.get_content_type()] = content.decode('utf-8')
    people = {k: [[a.display_name, a.addr_spec] for a in m[k].addresses] if m[k] else [] for k in ('from', 'to', 'cc', 'bcc')}
    lines = raw.split(b'\\r\\n')
    head = raw[:raw.index(b'\\r\\n\\r\\n')].split(b'\\r\\n')
    out.append(dict(defects=defects, subject=m['subject'] or '', people=people, texts=texts, files=files,
        longest=max(map(len, lines)), longestField=max(map(len, head)), bare=raw.replace(b'\\r\\n', b'').count(b'\\n') + raw.replace(b'\\r\\n', b'').count(b'\\r')))
json.dump(out, open(sys.argv[2], 'w'))
`;

interface ReadByPython {
  defects: string[];
  subject: string;
  people: Record<'from' | 'to' | 'cc' | 'bcc', [string, string][]>;
  texts: Record<string, string>;
  files: [string, string, string | null][];
  longest: number;
  longestField: number;
  bare: number;
}

/** Python 3.11 leaves the blank between two encoded words of a name, which RFC 2047, section 6.2, takes out. */
const unspaced = (name: string) => name.replace(/\s+/g, '');
const oneBlank = (name: string) => name.replace(/\s+/g, ' ').trim();
/** Lines as they were meant: quoted alike, without blanks at their ends. */
const meant = (body: string) => typedLines(body).map(({ depth, text: said }) => `${depth} ${said.trimEnd()}`);
const trimmed = (body: string) => body.replace(/[ \t]+$/gm, '').trimEnd();

const number = cases(60);

test(`${number} random messages: no defect, the same people, subject, texts and files; no line too long`, () => {
  const drafts = fc.sample(message, { numRuns: number, seed: 15 });
  const folder = mkdtempSync(path.join(tmpdir(), 'written-'));
  try {
    const sent = drafts.map((draft, n) => {
      const own = n % 2 === 0;
      const raw = composeMessage(draft, own);
      writeFileSync(path.join(folder, String(n).padStart(4, '0')), raw);
      return { raw, own };
    });
    const answer = path.join(tmpdir(), `read-${process.pid}.json`);
    execFileSync('/usr/bin/python3', ['-c', reader, folder, answer]);
    const read = JSON.parse(readFileSync(answer, 'utf8')) as ReadByPython[];
    rmSync(answer);
    expect(read).toHaveLength(number);
    for (const [n, draft] of drafts.entries()) {
      const { raw, own } = sent[n];
      const found = read[n];
      expect(found.defects).toEqual([]);
      expect(found.bare).toBe(0);
      expect(found.longest).toBeLessThanOrEqual(998);
      expect(found.longestField).toBeLessThanOrEqual(78);
      expect(found.subject).toBe(oneBlank(draft.subject));
      const people = (list: WrittenMessage['to'] = []) => list.map((one) => [unspaced(one.name), one.address]);
      const names = Object.entries(found.people).map(([field, list]) => [
        field,
        list.map(([name, address]) => [unspaced(name), address]),
      ]);
      expect(Object.fromEntries(names)).toEqual({
        from: people([draft.from]),
        to: people(draft.to),
        cc: people(draft.cc),
        bcc: own ? people(draft.bcc) : [],
      });
      // The text as it reads once its lines flow again.
      expect(meant(trimmed(unflowed(found.texts['text/plain'], false)))).toEqual(meant(trimmed(plainTextOf(draft))));
      if (draft.html === null) expect(found.texts['text/html']).toBeUndefined();
      else
        expect(found.texts['text/html'].replace(/\r\n/g, '\n')).toContain(`<body>${outgoingHtml(draft.html)}</body>`);
      expect(found.files.map(([, hex]) => hex).sort()).toEqual(
        draft.files.map(({ bytes }) => Buffer.from(bytes).toString('hex')).sort(),
      );
      // And we read the same.
      const envelope = parseEnvelope(raw);
      expect(envelope.damage).toBeNull();
      expect(envelope.subject).toBe(oneBlank(draft.subject));
      expect(envelope.attachments.map(({ name }) => name).sort()).toEqual(found.files.map(([name]) => name).sort());
      if (plainTextOf(draft).trim() !== '')
        expect(bodyBlocks(raw, parseStructure(raw), true)[0].flowed).toEqual({ delSp: false });
    }
  } finally {
    rmSync(folder, { recursive: true });
  }
});
