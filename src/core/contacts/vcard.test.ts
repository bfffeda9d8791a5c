// Cards: the examples of RFC 6350, cards as programs write them, and what is damaged.
import { cases } from '../../../bench/chance';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import ICAL from 'ical.js';
import { contactSchema, doubles, merged, newContact, type Contact } from './contact';
import { readCards, writeCards } from './vcard';

const card = (...lines: string[]) => ['BEGIN:VCARD', ...lines, 'END:VCARD', ''].join('\r\n');
const one = (...lines: string[]) => readCards(card(...lines)).contacts[0];

describe('RFC 6350', () => {
  test('section 8: the author’s card', () => {
    const read = readCards(
      card(
        'VERSION:4.0',
        'FN:Simon Perreault',
        'N:Perreault;Simon;;;ing. jr,M.Sc.',
        'BDAY:--0203',
        'ANNIVERSARY:20090808T1430-0500',
        'GENDER:M',
        'LANG;PREF=1:fr',
        'LANG;PREF=2:en',
        'ORG;TYPE=work:Viagenie',
        'ADR;TYPE=work:;Suite D2-630;2875 Laurier;',
        ' Quebec;QC;G1V 2M2;Canada',
        'TEL;VALUE=uri;TYPE="work,voice";PREF=1:tel:+1-418-656-9254;ext=102',
        'TEL;VALUE=uri;TYPE="work,cell,voice,video,text":tel:+1-418-262-6501',
        'EMAIL;TYPE=work:simon.perreault@viagenie.ca',
        'GEO;TYPE=work:geo:46.772673,-71.282945',
        'KEY;TYPE=work;VALUE=uri:',
        ' http://www.viagenie.ca/simon.perreault/simon.asc',
        'TZ:-0500',
        'URL;TYPE=home:http://nomis80.org',
      ),
    );
    expect(read.remarks).toEqual([]);
    expect(read.contacts).toMatchObject([
      { name: 'Simon Perreault', address: 'simon.perreault@viagenie.ca', organisation: 'Viagenie' },
    ]);
    const out = writeCards([{ id: 'i', ...read.contacts[0] }]);
    for (const kept of ['GENDER:M', 'TZ:-0500', 'N:Perreault;Simon;;;ing. jr,M.Sc.', 'BDAY:--0203'])
      expect(out).toContain(`\r\n${kept}\r\n`);
    expect(readCards(out).contacts).toMatchObject([{ name: 'Simon Perreault', organisation: 'Viagenie' }]);
  });
  test('section 3.2: a folded line; section 3.4: escaped values', () => {
    const note = 'NOTE:This is a long description that exists o\r\n n a long line.';
    expect(one('VERSION:4.0', 'FN:a', 'EMAIL:a@b.test', note).note).toBe(
      'This is a long description that exists on a long line.',
    );
    expect(
      one('VERSION:4.0', 'FN:A\\, B\\; C', 'EMAIL:a@b.test', 'NOTE:Mythical Manager\\nHyjinx Software Division').name,
    ).toBe('A, B; C');
    expect(
      one(
        'VERSION:4.0',
        'FN:a',
        'EMAIL:a@b.test',
        'NOTE:Mythical Manager\\nHyjinx Software Division\\nBabsCo\\, Inc.\\n',
      ).note,
    ).toBe('Mythical Manager\nHyjinx Software Division\nBabsCo, Inc.\n');
  });
  test('section 6.6.4 and 6.6.5: an organisation in parts; a group and its members', () => {
    expect(
      one('VERSION:4.0', 'FN:a', 'EMAIL:a@b.test', 'ORG:ABC\\, Inc.;North American Division;Marketing').organisation,
    ).toBe('ABC, Inc.');
    const { contacts } = readCards(
      card(
        'VERSION:4.0',
        'KIND:group',
        'FN:The Doe family',
        'MEMBER:urn:uuid:03a0e51f-d1aa-4385-8a53-e29025acd8af',
        'MEMBER:mailto:subscriber2@example.com',
      ) +
        card('VERSION:4.0', 'FN:John Doe', 'EMAIL:john@doe.test', 'UID:urn:uuid:03a0e51f-d1aa-4385-8a53-e29025acd8af') +
        card('VERSION:4.0', 'FN:Two', 'EMAIL:subscriber2@example.com'),
    );
    expect(contacts.map(({ name, groups }) => [name, groups])).toEqual([
      ['John Doe', ['The Doe family']],
      ['Two', ['The Doe family']],
    ]);
  });
  test('section 6.7.1: categories are groups', () => {
    expect(
      one('VERSION:4.0', 'FN:a', 'EMAIL:a@b.test', 'CATEGORIES:INTERNET,IETF,INDUSTRY,INFORMATION TECHNOLOGY').groups,
    ).toEqual(['INTERNET', 'IETF', 'INDUSTRY', 'INFORMATION TECHNOLOGY']);
  });
});

test('vCard 2.1: quoted-printable over several lines, a character set, bare parameters', () => {
  const read = readCards(
    card(
      'VERSION:2.1',
      'N;CHARSET=UTF-8;ENCODING=QUOTED-PRINTABLE:S=C3=B8rhaug;Ingrid',
      'EMAIL;INTERNET;PREF:Ingrid@Ferry.test',
      'NOTE;ENCODING=QUOTED-PRINTABLE;CHARSET=ISO-8859-1:Over =',
      'two lines =E5=0D=0Aand three',
      'TEL;HOME;VOICE:123',
    ),
  );
  expect(read.remarks).toEqual([]);
  expect(read.contacts).toMatchObject([
    { name: 'Ingrid Sørhaug', address: 'ingrid@ferry.test', note: 'Over two lines å\nand three' },
  ]);
});

test('vCard 3.0 with groups of lines, several addresses, other character sets of the file', () => {
  const lines = card(
    'VERSION:3.0',
    'FN:Åse',
    'item1.EMAIL;type=INTERNET;type=pref:a@b.test',
    'EMAIL:mailto:c@d.test',
    'item1.X-ABLabel:work',
  );
  expect(readCards(Buffer.from(lines, 'latin1')).contacts).toMatchObject([
    { name: 'Åse', address: 'a@b.test', more: ['c@d.test'] },
  ]);
  const wide = Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(lines, 'utf16le')]);
  expect(readCards(wide).contacts[0].name).toBe('Åse');
});

test('damaged, hostile and empty files: what was taken and what not, each with its line', () => {
  expect(readCards('nothing').remarks).toEqual([
    { card: 0, line: 1, says: 'No card is in it: a card begins with BEGIN:VCARD.' },
  ]);
  const read = readCards(
    card('VERSION:4.0', 'FN:One', 'EMAIL:one@x.test', 'no line at all') +
      card('VERSION:4.0', 'FN:No address') +
      card('VERSION:4.0', 'FN:Wrong', 'EMAIL:wrong', 'EMAIL:right@x.test') +
      'BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Cut\r\nEMAIL:cut@x.test\r\n',
  );
  expect(read.contacts.map(({ address }) => address)).toEqual(['one@x.test', 'right@x.test', 'cut@x.test']);
  expect(read.remarks).toEqual([
    { card: 1, line: 5, says: '“no line at all” can’t be read and was left out.' },
    { card: 2, line: 7, says: '“No address” has no address of mail and was left out.' },
    { card: 3, line: 14, says: '“wrong” is no address.' },
    { card: 4, line: 17, says: 'The card does not end: what there was of it was taken.' },
  ]);
  const [evil] = readCards(card('VERSION:4.0', 'FN:a\\nBCC:b\u202e', 'EMAIL:a@b.test\\n', 'NOTE:\0x')).contacts;
  expect(evil.name).toBe('a BCC:b');
  expect(writeCards([{ id: 'i\r\nEND:VCARD', ...evil }])).not.toMatch(/^(BCC|END:VCARD\r\nN)/m);
});

/** Contacts by chance, with names in several writing systems and all that has to be escaped. */
const word = fc.constantFrom(
  'Ana',
  'Ångström',
  'Пристань',
  'נמל',
  '港口',
  '👩‍👩‍👧',
  'a,b',
  'c;d',
  'e\\f',
  '"g"',
  'h:i',
  'long'.repeat(30),
);
const words = (most: number) =>
  fc.array(word, { minLength: 1, maxLength: most }).map((list) => list.join(' ').slice(0, 190).trim());
const address = fc
  .tuple(fc.stringMatching(/^[a-z][a-z0-9.+-]{0,15}[a-z0-9]$/), fc.constantFrom('ferry.test', 'a.b.test'))
  .map((parts) => parts.join('@'));
const contact: fc.Arbitrary<Contact> = fc
  .record({
    id: fc.uuid(),
    name: fc.oneof(words(4), fc.constant('')),
    addresses: fc.uniqueArray(address, { minLength: 1, maxLength: 4 }),
    organisation: fc.oneof(words(3), fc.constant('')),
    note: fc.array(words(5), { maxLength: 3 }).map((lines) => lines.join('\n')),
    role: fc.constantFrom('manager' as const, 'team' as const, null),
    groups: fc.uniqueArray(
      words(2).map((name) => name.slice(0, 90).trim()),
      { maxLength: 3 },
    ),
  })
  .map(({ addresses: [first, ...more], ...rest }) => contactSchema.parse({ ...rest, address: first, more }));

const number = cases(100);

test(`${number} contacts go round, and Debian’s python3-vobject and ical.js read the same`, () => {
  const list = fc.sample(contact, { numRuns: number, seed: 6350 });
  const folder = mkdtempSync(path.join(tmpdir(), 'cards-'));
  try {
    for (const version of ['4.0', '3.0'] as const) {
      const out = writeCards(list, version);
      for (const line of out.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
      const read = readCards(out);
      expect(read.remarks).toEqual([]);
      // Written again, the UID is one of the lines that are kept; N is 3.0’s own.
      expect(read.contacts.map((one) => ({ ...one, id: undefined, kept: [] }))).toEqual(
        list.map((one) => ({ ...one, id: undefined })),
      );
      const again = writeCards(
        read.contacts.map((one, n) => ({ id: `other ${n}`, ...one })),
        version,
      );
      expect(readCards(again)).toEqual(read);

      const parsed = (ICAL.parse(out) as unknown[][]).map((one) => new ICAL.Component(one as never));
      expect(parsed.map((one) => one.getAllProperties('email').map((p) => String(p.getFirstValue())))).toEqual(
        list.map(({ address: first, more }) => [first, ...more]),
      );
      expect(parsed.map((one) => String(one.getFirstPropertyValue('fn')))).toEqual(
        list.map(({ name, address: first }) => name || first),
      );
      expect(parsed.map((one) => String(one.getFirstPropertyValue('note') ?? ''))).toEqual(
        list.map(({ note }) => note),
      );

      const file = path.join(folder, `${version}.vcf`);
      writeFileSync(file, out);
      const script = `
import json, sys, vobject
out = []
for c in vobject.readComponents(open(sys.argv[1], encoding='utf-8', newline='').read()):
    out.append([c.fn.value, [e.value for e in c.contents.get('email', [])], c.note.value if hasattr(c, 'note') else '',
        c.categories.value if hasattr(c, 'categories') else []])
json.dump(out, open(sys.argv[2], 'w'))
`;
      execFileSync('/usr/bin/python3', ['-c', script, file, `${file}.json`]);
      expect(JSON.parse(readFileSync(`${file}.json`, 'utf8'))).toEqual(
        list.map(({ name, address: first, more, note, groups }) => [name || first, [first, ...more], note, groups]),
      );
    }
  } finally {
    rmSync(folder, { recursive: true });
  }
});

test('doubles by address or whole name; merged, nothing of either is lost', () => {
  const [a, b, c, d] = [
    newContact('1', 'Ana Berg', 'ana@x.test'),
    { ...newContact('2', 'ana  berg', 'ana@y.test'), note: 'Pier 4', groups: ['Harbour'] },
    newContact('3', 'Bo', 'bo@x.test'),
    { ...newContact('4', 'Bo', 'other@x.test'), more: ['ana@y.test'] },
  ];
  expect(doubles([a, b, c, d]).map((set) => set.map(({ id }) => id))).toEqual([['1', '2', '4']]);
  expect(merged(a, b)).toMatchObject({
    id: '1',
    name: 'Ana Berg',
    address: 'ana@x.test',
    more: ['ana@y.test'],
    note: 'Pier 4',
    groups: ['Harbour'],
  });
});
