// Calendars at random: what is written is read alike by ical.js and by Python's icalendar, and nothing cut off ever throws.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import ICAL from 'ical.js';
import { cases } from '../../../bench/chance';
import { itemSchema, itemTrouble, newItem, type Item } from './item';
import { occurrencesOf } from './occurrences';
import { readCalendar } from './readCalendar';
import { readRecurrence } from './recurrence';
import { momentOf, numberOf, wallText, type When } from './wallTime';
import { writeCalendar } from './writeCalendar';

const now = Date.UTC(2026, 10, 28, 9);
const iso = (moment: number) => new Date(moment).toISOString();

/** What both readers tell of a component. */
interface Told {
  uid: string;
  kind: string;
  title: string;
  note: string;
  place: string;
  start: string;
  end: string;
  rule: string;
  except: string[];
  invited: string[];
}

const python = `
import sys, json, datetime
from icalendar import Calendar
def when(p):
    if p is None: return ''
    d = p.dt
    if not isinstance(d, datetime.datetime): return d.isoformat()
    if d.tzinfo is None: return d.isoformat()
    return d.astimezone(datetime.timezone.utc).strftime('%Y-%m-%dT%H:%M:%SZ')
def listed(p):
    if p is None: return []
    p = p if isinstance(p, list) else [p]
    return [when(d) for one in p for d in one.dts]
out = []
cal = Calendar.from_ical(open(sys.argv[1], 'rb').read())
for c in cal.walk():
    if c.name not in ('VEVENT', 'VTODO') or 'RECURRENCE-ID' in c: continue
    if c.errors: raise Exception(str(c.errors))
    people = c.get('attendee') or []
    people = people if isinstance(people, list) else [people]
    out.append(dict(uid=str(c['uid']), kind=c.name, title=str(c.get('summary', '')), note=str(c.get('description', '')),
        place=str(c.get('location', '')), start=when(c.get('dtstart')), end=when(c.get('dtend') or c.get('due')),
        rule=sorted(c['rrule'].to_ical().decode().split(';')) if 'rrule' in c else [], except_=listed(c.get('exdate')),
        invited=[str(p) + ' ' + p.params['PARTSTAT'] + ' ' + str(p.params.get('CN', '')) for p in people]))
print(json.dumps(out))
`;

function toldByPython(text: string): Told[] {
  const folder = mkdtempSync(path.join(tmpdir(), 'calendar-'));
  try {
    writeFileSync(path.join(folder, 'read.py'), python);
    writeFileSync(path.join(folder, 'all.ics'), text);
    const out = execFileSync('/usr/bin/python3', [path.join(folder, 'read.py'), path.join(folder, 'all.ics')], {
      maxBuffer: 1 << 28,
    });
    type Raw = Omit<Told, 'except' | 'rule'> & { except_: string[]; rule: string[] };
    return (JSON.parse(out.toString()) as Raw[]).map(({ except_, rule, ...rest }) => ({
      ...rest,
      rule: rule.join(';'),
      except: except_,
    }));
  } finally {
    rmSync(folder, { recursive: true });
  }
}

function toldByIcal(text: string): Told[] {
  const root = new ICAL.Component(ICAL.parse(text) as unknown[]);
  const when = (time: unknown): string => {
    if (!(time instanceof ICAL.Time)) return '';
    if (time.isDate) return time.toString();
    return time.zone === ICAL.Timezone.localTimezone
      ? time.toString()
      : iso(time.toUnixTime() * 1_000).replace('.000', '');
  };
  return [...root.getAllSubcomponents('vevent'), ...root.getAllSubcomponents('vtodo')]
    .filter((component) => !component.hasProperty('recurrence-id'))
    .map((component) => {
      const text = (name: string) => String(component.getFirstPropertyValue(name) ?? '');
      return {
        uid: text('uid'),
        kind: component.name.toUpperCase(),
        title: text('summary'),
        note: text('description'),
        place: text('location'),
        start: when(component.getFirstPropertyValue('dtstart')),
        end: when(component.getFirstPropertyValue('dtend') ?? component.getFirstPropertyValue('due')),
        rule: text('rrule').split(';').filter(Boolean).sort().join(';'),
        except: component.getAllProperties('exdate').flatMap((one) => one.getValues().map(when)),
        invited: component
          .getAllProperties('attendee')
          .map(
            (one) =>
              `${String(one.getFirstValue())} ${String(one.getParameter('partstat'))} ${String(one.getParameter('cn') ?? '')}`,
          ),
      };
    });
}

/** The same of an item as it was meant. */
function meant(item: Item): Told {
  const when = (one: When | null): string => {
    if (!one) return '';
    if (one.at.length === 10 || one.zone === null) return one.at;
    return iso(momentOf(one, 'UTC')).replace('.000', '');
  };
  return {
    uid: item.uid,
    kind: item.kind === 'task' ? 'VTODO' : 'VEVENT',
    title: item.title,
    note: item.note,
    place: item.place,
    start: when(item.start),
    end: when(item.end),
    rule: (item.repeats ?? '').split(';').filter(Boolean).sort().join(';'),
    except: item.except.map((at) => when({ at, zone: (item.start ?? item.end)?.zone ?? null })),
    invited: item.invited.map(({ name, address, answer }) => `mailto:${address} ${answer.toUpperCase()} ${name}`),
  };
}

const words = fc
  .array(
    fc.constantFrom('Berth', 'crew;', 'rota,', 'Fähre', 'Ελλάδα', '横浜', 'a\\b', '“late”', 'x'.repeat(90), '🚢'),
    {
      minLength: 1,
      maxLength: 12,
    },
  )
  .map((list) => list.join(' '));
const zones = fc.constantFrom(
  'Europe/Copenhagen',
  'America/New_York',
  'Asia/Kolkata',
  'Australia/Sydney',
  'UTC',
  'America/Sao_Paulo',
  null,
);
/** Not in the hours in which clocks change: of one that is struck twice pytz takes the second, RFC 5545 the first. */
const hour = fc.integer({ min: 5, max: 22 });
const items = fc
  .record({
    uid: fc.uuid(),
    kind: fc.constantFrom('task' as const, 'appointment' as const),
    title: words,
    place: fc.oneof(fc.constant(''), words),
    note: fc.oneof(
      fc.constant(''),
      fc.array(words, { maxLength: 5 }).map((list) => list.join('\n')),
    ),
    day: fc.integer({ min: 19_500, max: 22_000 }),
    hour,
    lasts: fc.integer({ min: 0, max: 90 }),
    wholeDay: fc.boolean(),
    zone: zones,
    reminder: fc.constantFrom(null, 0, 15, 1_440, -30),
    repeats: fc.constantFrom(
      null,
      null,
      'FREQ=DAILY;COUNT=20',
      'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,FR',
      'FREQ=MONTHLY;BYDAY=-1FR',
      'FREQ=YEARLY;BYMONTH=6;BYMONTHDAY=1',
    ),
    except: fc.integer({ min: 0, max: 3 }),
    moved: fc.boolean(),
    invited: fc.array(
      fc.record({
        name: fc.constantFrom('', 'Ana Lind', 'Øst; vagt', 'Kim “K” Ro'),
        address: fc.emailAddress(),
        answer: fc.constantFrom('needs-action' as const, 'accepted' as const, 'declined' as const),
        at: fc.constantFrom(0, now),
      }),
      { maxLength: 4 },
    ),
    messages: fc.array(fc.constantFrom('a@harbour.example', 'x%y+z/ü@x.example', '<odd> id'), { maxLength: 2 }),
    done: fc.constantFrom(null, now),
  })
  .map((r): Item => {
    const at = wallText(r.day * 86_400_000 + (r.wholeDay ? 0 : r.hour * 3_600_000), r.wholeDay);
    const zone = r.wholeDay ? null : r.zone;
    const start = { at, zone };
    const end = {
      at: wallText(
        numberOf(at) + (r.wholeDay ? (r.lasts % 5) + 1 : 0) * 86_400_000 + (r.wholeDay ? 0 : r.lasts * 60_000),
        r.wholeDay,
      ),
      zone,
    };
    const rule = r.repeats === null ? null : readRecurrence(r.repeats);
    const next = rule
      ? occurrencesOf({ ...newItem('x', 'appointment', now), start, repeats: r.repeats }, 0, 4e12, 'UTC').slice(1)
      : [];
    const ats = next.slice(0, 5).flatMap(({ on }) => on ?? []);
    const { uid, kind, title, place, note, reminder, messages } = r;
    return {
      ...newItem(uid, kind, now),
      title,
      place,
      note,
      start,
      end: kind === 'task' || r.lasts % 7 ? end : null,
      reminder,
      repeats: ats.length ? r.repeats : null,
      except: ats.slice(0, Math.min(r.except, ats.length)),
      changed:
        r.moved && ats.length > 4
          ? [
              {
                on: ats[4],
                title,
                place,
                note,
                start: { at: wallText(numberOf(ats[4]) + 86_400_000, r.wholeDay), zone },
                end: null,
                cancelled: false,
                sequence: 1,
              },
            ]
          : [],
      done: kind === 'task' ? r.done : null,
      messages: [...new Set(messages)],
      organizer: r.invited.length ? { name: 'Me', address: 'me@y.example' } : null,
      invited: r.invited.filter(
        ({ address }, n) => r.invited.findIndex((other) => other.address.toLowerCase() === address.toLowerCase()) === n,
      ),
      sequence: r.lasts,
    };
  });

const number = cases(60);

test(`${number} at random: ical.js and Python’s icalendar read the same, and they come in again the same`, () => {
  const all = fc.sample(items, { numRuns: number, seed: 7 });
  for (const item of all) {
    expect(itemTrouble(item)).toBeNull();
    itemSchema.parse(item);
  }
  const text = writeCalendar(all);
  for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
  const byUid = (list: Told[]) => new Map(list.map((one) => [one.uid, one]));
  const [expected, ical, py] = [all.map(meant), toldByIcal(text), toldByPython(text)].map(byUid);
  expect(ical).toEqual(expected);
  expect(py).toEqual(expected);
  const again = readCalendar(text, now + 5);
  expect(again.remarks).toEqual([]);
  expect(again.items).toEqual(all);
});
test('cut anywhere, or with any bytes in it, it never throws, and keeps what stands before', () => {
  const whole = Buffer.from(writeCalendar(fc.sample(items, { numRuns: 5, seed: 3 })).replace(/END:VCALENDAR\r\n$/, ''));
  fc.assert(
    fc.property(fc.nat(whole.length), fc.uint8Array({ maxLength: 40 }), (at, junk) => {
      const read = readCalendar(new Uint8Array([...whole.subarray(0, at), ...junk]), now);
      expect(read.items.length).toBeLessThanOrEqual(6);
      for (const item of read.items) itemSchema.parse(item);
    }),
    { numRuns: 200 },
  );
});
