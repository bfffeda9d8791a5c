// Calendars: examples of RFC 5545 (from memory), files as other programs write them, and what is damaged.
import { newItem, type Item } from './item';
import { occurrencesOf } from './occurrences';
import { readCalendar } from './readCalendar';
import { momentOf, timeIn, type When } from './wallTime';
import { writeCalendar } from './writeCalendar';

const now = Date.UTC(2026, 10, 28, 9);
const calendar = (...lines: string[]) =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//x//y', ...lines, 'END:VCALENDAR', ''].join('\r\n');
const one = (...lines: string[]) => readCalendar(calendar('BEGIN:VEVENT', 'UID:u', ...lines, 'END:VEVENT'), now);
const iso = (moment: number) => new Date(moment).toISOString();

describe('RFC 5545', () => {
  test('section 4: a three-day conference, with folded and escaped text', () => {
    const { items, remarks } = readCalendar(
      calendar(
        'BEGIN:VEVENT',
        'DTSTAMP:19960704T120000Z',
        'UID:uid1@example.com',
        'ORGANIZER:mailto:jsmith@example.com',
        'DTSTART:19960918T143000Z',
        'DTEND:19960920T220000Z',
        'STATUS:CONFIRMED',
        'CATEGORIES:CONFERENCE',
        'SUMMARY:Networld+Interop Conference',
        'DESCRIPTION:Networld+Interop Conference',
        '  and Exhibit\\nAtlanta World Congress Center\\n',
        ' Atlanta\\, Georgia',
        'END:VEVENT',
      ),
      now,
    );
    expect(remarks).toEqual([]);
    expect(items).toMatchObject([
      {
        uid: 'uid1@example.com',
        kind: 'appointment',
        title: 'Networld+Interop Conference',
        note: 'Networld+Interop Conference and Exhibit\nAtlanta World Congress Center\nAtlanta, Georgia',
        start: { at: '1996-09-18T14:30:00', zone: 'UTC' },
        end: { at: '1996-09-20T22:00:00', zone: 'UTC' },
        organizer: { name: '', address: 'jsmith@example.com' },
        edited: Date.UTC(1996, 6, 4, 12),
        kept: ['CATEGORIES:CONFERENCE'],
      },
    ]);
  });
  test('section 4: a meeting with a zone of its own and people; a task with a reminder', () => {
    const { items, remarks } = readCalendar(
      calendar(
        'BEGIN:VTIMEZONE',
        'TZID:America/New_York',
        'BEGIN:STANDARD',
        'DTSTART:19981025T020000',
        'TZOFFSETFROM:-0400',
        'TZOFFSETTO:-0500',
        'TZNAME:EST',
        'END:STANDARD',
        'BEGIN:DAYLIGHT',
        'DTSTART:19990404T020000',
        'TZOFFSETFROM:-0500',
        'TZOFFSETTO:-0400',
        'TZNAME:EDT',
        'END:DAYLIGHT',
        'END:VTIMEZONE',
        'BEGIN:VEVENT',
        'DTSTAMP:19980309T231000Z',
        'UID:guid-1.example.com',
        'ORGANIZER:mailto:mrbig@example.com',
        'ATTENDEE;RSVP=TRUE;ROLE=REQ-PARTICIPANT;CUTYPE=GROUP:',
        ' mailto:employee-A@example.com',
        'DESCRIPTION:Project XYZ Review Meeting',
        'CATEGORIES:MEETING',
        'CLASS:PUBLIC',
        'CREATED:19980309T130000Z',
        'SUMMARY:XYZ Project Review',
        'DTSTART;TZID=America/New_York:19980312T083000',
        'DTEND;TZID=America/New_York:19980312T093000',
        'LOCATION:1CP Conference Room 4350',
        'END:VEVENT',
        'BEGIN:VTODO',
        'DTSTAMP:19980130T134500Z',
        'SEQUENCE:2',
        'UID:uid4@example.com',
        'ORGANIZER:mailto:unclesam@example.com',
        'ATTENDEE;PARTSTAT=ACCEPTED:mailto:jqpublic@example.com',
        'DUE:19980415T000000',
        'STATUS:NEEDS-ACTION',
        'SUMMARY:Submit Income Taxes',
        'BEGIN:VALARM',
        'ACTION:AUDIO',
        'TRIGGER:19980403T120000Z',
        'ATTACH;FMTTYPE=audio/basic:http://example.com/pub/audio-',
        ' files/ssbanner.aud',
        'REPEAT:4',
        'DURATION:PT1H',
        'END:VALARM',
        'END:VTODO',
      ),
      now,
    );
    expect(remarks).toEqual([]);
    const [meeting, task] = items;
    expect(iso(momentOf(meeting.start as When, 'UTC'))).toBe('1998-03-12T13:30:00.000Z');
    expect(meeting.invited).toEqual([{ name: '', address: 'employee-A@example.com', answer: 'needs-action', at: 0 }]);
    expect(task).toMatchObject({
      kind: 'task',
      end: { at: '1998-04-15T00:00:00', zone: null },
      done: null,
      sequence: 2,
      // April 3, 12:00 UTC is 11½ days before midnight of April 15.
      reminder: 11.5 * 1_440,
      invited: [{ name: '', address: 'jqpublic@example.com', answer: 'accepted', at: 0 }],
    });
  });
  test('section 3.8.4.4: one of a series moved; 3.8.5.1: some left out; 3.6.1: days, and a length in place of an end', () => {
    const { items } = readCalendar(
      calendar(
        'BEGIN:VEVENT',
        'UID:s',
        'DTSTART;TZID=Europe/Berlin:20261005T100000',
        'DURATION:PT1H30M',
        'RRULE:FREQ=WEEKLY;BYDAY=MO;UNTIL=20261130T090000Z',
        'EXDATE;TZID=Europe/Berlin:20261012T100000,20261019T100000',
        'SUMMARY:Berths',
        'END:VEVENT',
        'BEGIN:VEVENT',
        'UID:s',
        'RECURRENCE-ID;TZID=Europe/Berlin:20261102T100000',
        'DTSTART;TZID=Europe/Berlin:20261103T140000',
        'DTEND;TZID=Europe/Berlin:20261103T150000',
        'SUMMARY:Berths\\, a day later',
        'END:VEVENT',
        'BEGIN:VEVENT',
        'UID:d',
        'DTSTART;VALUE=DATE:20261224',
        'DURATION:P3D',
        'END:VEVENT',
      ),
      now,
    );
    const [series, days] = items;
    const all = occurrencesOf(series, Date.UTC(2026, 9, 1), Date.UTC(2027, 0, 1), 'Europe/Berlin');
    // Of summer time until October 25, and at 10:00 by the clock on the wall in either.
    expect(all.map(({ start, end, title }) => [iso(start), (end - start) / 60_000, title])).toEqual([
      ['2026-10-05T08:00:00.000Z', 90, 'Berths'],
      ['2026-10-26T09:00:00.000Z', 90, 'Berths'],
      ['2026-11-03T13:00:00.000Z', 60, 'Berths, a day later'],
      ['2026-11-09T09:00:00.000Z', 90, 'Berths'],
      ['2026-11-16T09:00:00.000Z', 90, 'Berths'],
      ['2026-11-23T09:00:00.000Z', 90, 'Berths'],
      ['2026-11-30T09:00:00.000Z', 90, 'Berths'],
    ]);
    expect(days).toMatchObject({ start: { at: '2026-12-24' }, end: { at: '2026-12-27' } });
  });
});

describe('files of others', () => {
  test('zones by the names of an office system, by a path, by their offsets alone, and by nothing', () => {
    const zoneOf = (name: string, ...before: string[]) => {
      const read = readCalendar(
        calendar(...before, 'BEGIN:VEVENT', 'UID:u', `DTSTART;TZID=${name}:20260701T090000`, 'END:VEVENT'),
        now,
      );
      return [read.items[0].start?.zone, read.remarks.map(({ says }) => says).join()];
    };
    expect(zoneOf('W. Europe Standard Time')).toEqual(['Europe/Berlin', '']);
    expect(zoneOf('/freeassociation.example/Tzfile/Europe/Oslo')).toEqual(['Europe/Oslo', '']);
    expect(zoneOf('Custom')).toEqual([null, expect.stringContaining('“Custom” is not known')]);
    const said = [
      'BEGIN:VTIMEZONE',
      'TZID:Custom',
      'BEGIN:STANDARD',
      'DTSTART:16010101T030000',
      'TZOFFSETFROM:+0200',
      'TZOFFSETTO:+0100',
      'END:STANDARD',
      'BEGIN:DAYLIGHT',
      'DTSTART:16010101T020000',
      'TZOFFSETFROM:+0100',
      'TZOFFSETTO:+0200',
      'END:DAYLIGHT',
      'END:VTIMEZONE',
    ];
    expect(zoneOf('Custom', ...said)).toEqual(['Europe/Berlin', expect.stringContaining('whose clocks go alike')]);
  });
  test('an alarm without an end, text in another character set, no end of the file', () => {
    const bytes = new Uint8Array([
      ...Buffer.from('BEGIN:VCALENDAR\nBEGIN:VEVENT\nUID:u\nDTSTART:20260701T090000Z\nSUMMARY:F'),
      0xe4,
      ...Buffer.from('hre\nBEGIN:VALARM\nTRIGGER:-PT10M\n'),
    ]);
    const { items, remarks } = readCalendar(bytes, now);
    expect(items).toMatchObject([{ title: 'Fähre', reminder: 10 }]);
    expect(remarks).toEqual([{ line: 2, says: expect.stringContaining('does not end') as string }]);
  });
  test('what nothing is made of goes out again as it came', () => {
    const [item] = one('DTSTART:20260701T090000Z', 'CLASS:PRIVATE', 'X-WEATHER;WIND=4:gale', 'GEO:55.6;12.6').items;
    expect(writeCalendar([item])).toContain('CLASS:PRIVATE\r\nX-WEATHER;WIND=4:gale\r\nGEO:55.6;12.6\r\n');
  });
  test('one of a series alone says still which one it is', () => {
    const read = one('RECURRENCE-ID:20260701T090000Z', 'DTSTART:20260702T090000Z').items[0];
    expect(writeCalendar([read])).toContain('RECURRENCE-ID:20260701T090000Z');
  });
});

describe('damaged', () => {
  test.each([
    ['', /No calendar/],
    ['hello', /No calendar/],
    [calendar(), /No task and no appointment/],
    [calendar('BEGIN:VEVENT', 'UID:u', 'END:VEVENT'), /begins at some time/],
    [calendar('BEGIN:VEVENT', 'DTSTART:20261340T990000Z', 'END:VEVENT'), /no day and no time/],
    [calendar('BEGIN:VEVENT', 'DTSTART:20260701', 'RRULE:FREQ=SECONDLY', 'END:VEVENT'), /more often than a day/],
    [
      calendar('BEGIN:VEVENT', 'DTSTART:20260702T000000Z', 'DTEND:20260701T000000Z', 'END:VEVENT'),
      /ends before it begins/,
    ],
    [calendar('BEGIN:VEVENT', 'DTSTART:20260702T000000Z', 'ATTENDEE:mailto:nobody', 'END:VEVENT'), /is no address/],
    [calendar('BEGIN:VEVENT', 'DTSTART:20260702T000000Z', `SUMMARY:${'x'.repeat(200_000)}`, 'END:VEVENT'), /too long/],
  ])('%#: in words', (text, says) => {
    expect(
      readCalendar(text, now)
        .remarks.map((remark) => remark.says)
        .join('\n'),
    ).toMatch(says);
  });
  test('text can’t turn a line around or run into another', () => {
    const [item] = one('DTSTART:20260701T090000Z', 'SUMMARY:a\u202eb\\nEND:VEVENT', 'LOCATION:\u0000x\\;y').items;
    expect([item.title, item.place]).toEqual(['a b END:VEVENT', 'x;y']);
    expect(readCalendar(writeCalendar([{ ...item, title: 'a\nEND:VEVENT\nBEGIN:VTODO' }]), now).items).toHaveLength(1);
  });
  test('10 MB of it take seconds, not minutes', () => {
    const many = Array.from({ length: 20_500 }, (_, n) =>
      ['BEGIN:VEVENT', `UID:${n}`, 'DTSTART:20260701T090000Z', `SUMMARY:${'x'.repeat(400)}`, 'END:VEVENT'].join('\r\n'),
    );
    const { items, remarks } = readCalendar(calendar(...many), now);
    expect(items).toHaveLength(20_000);
    expect(remarks.map(({ says }) => says)).toEqual([expect.stringContaining('No more than 20000')]);
  });
});

test('what comes next, and by which clock', () => {
  const item = { ...newItem('a', 'appointment', now), start: timeIn(now, 'Asia/Tokyo'), repeats: 'FREQ=DAILY' };
  const next = (of: Item, after: number, zone: string, days = 400) =>
    occurrencesOf(of, after, after + days * 86_400_000, zone)[0]?.start;
  expect(next(item, now + 1, 'UTC')).toBe(now + 86_400_000);
  const floating = { ...newItem('a', 'appointment', now), start: { at: '2026-11-28T10:00:00', zone: null } };
  expect(iso(next(floating, 0, 'America/New_York', 30_000))).toBe('2026-11-28T15:00:00.000Z');
});
