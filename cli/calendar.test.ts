import { cli, put } from './testing';

const now = ['--now', '2026-11-28T09:00:00Z'];
const meeting = {
  uid: 'm1',
  kind: 'appointment',
  title: 'Berths, and more',
  start: '2026-12-01T10:00:00',
  end: '2026-12-01T11:30:00',
  zone: 'Europe/Oslo',
  repeats: 'FREQ=WEEKLY;COUNT=3',
  except: ['2026-12-08T10:00:00'],
  sequence: 2,
  organizer: { name: 'Ana', address: 'ana@x.example' },
  invited: [{ name: 'Bo', address: 'bo@y.example' }],
};
const task = { uid: 't1', kind: 'task', title: 'Figures', due: '2026-12-03' };
const linesOf = (text: string) =>
  text
    .trimEnd()
    .split('\n')
    .map((line) => JSON.parse(line) as Record<string, unknown>);

test('calendar-write and calendar: the same goes out and in; its occurrences between two moments', async () => {
  const written = await cli('calendar-write', put('items.json', JSON.stringify([meeting, task])), ...now);
  expect(written.code).toBe(0);
  expect(written.out).toContain('SUMMARY:Berths\\, and more\r\n');
  const file = put('all.ics', written.out);
  const [one, other] = linesOf((await cli('calendar', file)).out);
  expect(one).toMatchObject({ ...meeting, invited: [{ ...meeting.invited[0], answer: 'needs-action' }] });
  expect(other).toMatchObject({ ...task, zone: null, repeats: null, sequence: 0 });
  const between = await cli('calendar', file, '--from', '2026-12-01T00:00:00Z', '--to', '2026-12-31T00:00:00Z');
  expect(linesOf(between.out).map(({ uid, start }) => [uid, start])).toEqual([
    ['m1', '2026-12-01T10:00:00+01:00'],
    ['m1', '2026-12-15T10:00:00+01:00'],
    ['t1', '2026-12-03T00:00:00+00:00'],
  ]);
});

test('invite: the raw invitation, and the raw answer to it', async () => {
  const invitation = await cli('invite', put('one.json', JSON.stringify(meeting)), ...now);
  expect(invitation.code).toBe(0);
  expect(invitation.out).toMatch(/^Content-Type: text\/calendar; method=REQUEST; charset=utf-8/m);
  expect(invitation.out).toMatch(/^Subject: Changed: Berths, and more\r$/m);
  const answer = await cli('invite', '--answer', 'accepted', put('in.eml', invitation.out), ...now);
  expect(answer.code).toBe(0);
  expect(answer.out).toMatch(/^From: Bo <bo@y\.example>\r$/m);
  expect(answer.out).toMatch(/^To: Ana <ana@x\.example>\r$/m);
  expect(answer.out).toContain('method=REPLY');
  expect((await cli('invite', put('one.json', JSON.stringify(meeting)), ...now)).out).toBe(invitation.out);
});

test.each([
  [['calendar', put('none.ics', 'hello')], /no task and no appointment/],
  [['calendar', put('x.ics', 'hello'), '--from', '2026-12-01'], /go together/],
  [['calendar-write', put('bad.json', '{')], /no JSON/],
  [['calendar-write', put('kind.json', '[{"kind":"feast"}]')], /0\.kind/],
  [['calendar-write', put('zone.json', JSON.stringify([{ ...meeting, zone: 'Nowhere' }]))], /no time zone/],
  [['calendar-write', put('day.json', JSON.stringify([{ ...task, due: '2026-13-01' }]))], /must be a day/],
  [['invite', put('task.json', JSON.stringify(task))], /only to an appointment/],
  [['invite', put('alone.json', JSON.stringify({ ...meeting, invited: [] }))], /who is invited/],
  [['invite', '--answer', 'perhaps', put('a.eml', 'From: a@b.c\n\n')], /accepted, tentative or declined/],
  [['invite', '--answer', 'accepted', put('b.eml', 'From: a@b.c\n\nhi')], /no invitation/],
])('%#: said in words', async (args, says) => {
  const { code, error } = await cli(...args);
  expect(code).toBe(2);
  expect(error).toMatch(says);
});
