import { cli, put } from './testing';

const list = [
  {
    name: 'Ana, of X',
    addresses: ['ana@x.test', 'a@y.test'],
    organisation: 'X; Y',
    note: 'one\ntwo',
    role: 'team',
    groups: ['Harbour'],
    kept: ['TEL:123'],
  },
  { name: '', addresses: ['bo@x.test'], organisation: '', note: '', role: null, groups: [], kept: [] },
];

test('contacts go out as vCard 4.0 and come in again the same', async () => {
  const written = await cli('contacts-write', put('list.json', JSON.stringify(list)));
  expect(written.code).toBe(0);
  expect(written.out).toMatch(/^BEGIN:VCARD\r\nVERSION:4\.0\r\nFN:Ana\\, of X\r\n/);
  const read = await cli('contacts', put('list.vcf', written.out));
  expect([read.code, read.error]).toEqual([0, '']);
  const back = read.out
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as (typeof list)[number]);
  expect(back.map((one) => ({ ...one, kept: one.kept.filter((line) => !line.startsWith('UID')) }))).toEqual(list);
});

test('what is wrong is said: in a file of cards line by line, else with exit code 2', async () => {
  const broken = await cli(
    'contacts',
    put('a.vcf', 'BEGIN:VCARD\nVERSION:4.0\nFN:a\nEMAIL:wrong\nEMAIL:a@b.test\nEND:VCARD\n'),
  );
  expect(broken).toMatchObject({
    code: 0,
    error: expect.stringMatching(/a\.vcf:4: card 1: “wrong” is no address\.\n$/) as string,
  });
  expect(await cli('contacts', put('b.vcf', 'hello'))).toMatchObject({
    code: 2,
    error: expect.stringMatching(/no card is in it/) as string,
  });
  expect(await cli('contacts', '/nowhere.vcf')).toMatchObject({ code: 2 });
  expect(await cli('contacts')).toMatchObject({ code: 2 });
  expect(await cli('contacts-write', put('c.json', '[{"name":"a","addresses":[]}]'))).toMatchObject({
    code: 2,
    error: expect.stringMatching(/0\.addresses/) as string,
  });
  expect(await cli('contacts-write', put('d.json', '{'))).toMatchObject({ code: 2 });
});
