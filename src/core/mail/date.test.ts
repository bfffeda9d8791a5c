import { formatAsctime, formatDate, parseDate } from './date';

const iso = (field: string) => {
  const time = parseDate(field);
  return time === null ? null : new Date(time).toISOString();
};

test.each([
  ['RFC 5322, A.1.1', 'Fri, 21 Nov 1997 09:55:06 -0600', '1997-11-21T15:55:06.000Z'],
  ['RFC 5322, A.1.2', 'Tue, 1 Jul 2003 10:52:37 +0200', '2003-07-01T08:52:37.000Z'],
  ['RFC 5322, A.1.3', 'Thu, 13 Feb 1969 23:32:54 -0330', '1969-02-14T03:02:54.000Z'],
  [
    'RFC 5322, A.5',
    'Thu,\r\n      13\r\n        Feb\r\n          1969\r\n      23:32\r\n               -0330 (Newfoundland Time)',
    '1969-02-14T03:02:00.000Z',
  ],
  ['RFC 5322, A.6.2: two digits of year, a zone by name', '21 Nov 97 09:55:06 GMT', '1997-11-21T09:55:06.000Z'],
  ['RFC 5322, A.6.3', 'Fri, 21 Nov 1997 09(comment):   55  :  06 -0600', '1997-11-21T15:55:06.000Z'],
  ['RFC 5322, 4.3: below 50 is of this century', '1 Jan 49 00:00 UT', '2049-01-01T00:00:00.000Z'],
  ['RFC 5322, 4.3: three digits', '1 Jan 103 00:00 EST', '2003-01-01T05:00:00.000Z'],
  ['RFC 5322, 4.3: an unknown zone is UTC', 'Mon, 3 Jun 2002 12:00:00 MESZ', '2002-06-03T12:00:00.000Z'],
  ['common practice: half of the day', '31 May 02 1:28:53 PM', '2002-05-31T13:28:53.000Z'],
  ['common practice: no blank after the comma', 'Wed,29 May 2002 17:55:32 +0800', '2002-05-29T09:55:32.000Z'],
  ['common practice: as asctime writes it', 'Thu Aug 22 12:36:23 2002', '2002-08-22T12:36:23.000Z'],
  ['no date at all', 'yesterday', null],
  ['a year of nobody’s', 'Sat, 02 Feb 0102 11:39:51 +0200', null],
  ['an hour that is none', 'Sat, 02 Feb 2002 47:39:51 +0200', null],
])('%s: %s', (_source, field, expected) => {
  expect(iso(field)).toBe(expected);
});

test('what is written is read back', () => {
  const time = Date.UTC(2026, 10, 24, 23, 5, 9);
  expect(formatDate(time, 60)).toBe('Wed, 25 Nov 2026 00:05:09 +0100');
  expect(parseDate(formatDate(time, -210))).toBe(time);
  expect(formatAsctime(time)).toBe('Tue Nov 24 23:05:09 2026');
  expect(parseDate(formatAsctime(time))).toBe(time);
});
