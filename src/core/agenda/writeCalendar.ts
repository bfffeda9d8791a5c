// Tasks and appointments as a calendar (RFC 5545): what .ics files and invitations are made of.
import { escaped, folded } from '../text/contentLines';
import { oneLine } from '../text/oneLine';
import { anchorOf, type ChangedOccurrence, type Invited, type Item } from './item';
import { isClock, isDay, wallNumber, wallText, type When } from './wallTime';
import { zoneLines } from './zones';

/** Who wrote the file (RFC 5545, section 3.7.3). */
const productId = '-//Wide Sort//EN';

/** Text as the value of a property (RFC 5545, section 3.3.11). */
export const textValue = (text: string): string => escaped(text).replace(/;/g, '\\;');

/** Text as the value of a parameter: no quote may stand in it (RFC 5545, section 3.2). */
const parameter = (text: string): string => `"${oneLine(text).replace(/"/g, '’')}"`;

/** A moment in UTC: `20261128T093000Z`. */
export const stampOf = (moment: number): string =>
  `${new Date(moment).toISOString().slice(0, 19).replace(/[-:]/g, '')}Z`;

const bare = (at: string): string => at.replace(/[-:]/g, '');

/** The zone by which a time is written: one that nobody knows is left out. */
const zoneOf = ({ at, zone }: When): string | null => (at.length > 10 && zone !== null && isClock(zone) ? zone : null);

/** A property that is a day or a time. */
export function timedLine(name: string, when: When): string {
  if (isDay(when)) return `${name};VALUE=DATE:${bare(when.at)}`;
  const zone = zoneOf(when);
  if (zone === 'UTC') return `${name}:${bare(when.at)}Z`;
  return `${name}${zone === null ? '' : `;TZID=${zone}`}:${bare(when.at)}`;
}

/** Wall times of a series in the form of its first: a day for days, else a time of its zone. */
const atOf = (anchor: When, at: string): When => ({
  at: wallText(wallNumber(at) ?? 0, isDay(anchor)),
  zone: anchor.zone,
});

export const personValue = ({ name, address }: { name: string; address: string }, more = ''): string =>
  `${name ? `;CN=${parameter(name)}` : ''}${more}:mailto:${address.replace(/[\r\n]/g, '')}`;

export const attendeeLine = ({ name, address, answer, at }: Invited): string =>
  `ATTENDEE${personValue({ name, address }, `;ROLE=REQ-PARTICIPANT;PARTSTAT=${answer.toUpperCase()}${answer === 'needs-action' ? ';RSVP=TRUE' : ''}${at ? `;X-WIDESORT-ANSWERED=${stampOf(at)}` : ''}`)}`;

/** How long before is told of it: `-PT15M`. */
function trigger(minutes: number): string {
  const size = Math.abs(minutes);
  return `${minutes > 0 ? '-' : ''}PT${size}M`;
}

function alarm({ reminder, title, kind, end }: Item): string[] {
  if (reminder === null) return [];
  const related = kind === 'task' && end ? ';RELATED=END' : '';
  return [
    'BEGIN:VALARM',
    'ACTION:DISPLAY',
    `DESCRIPTION:${textValue(title || 'Reminder')}`,
    `TRIGGER${related}:${trigger(reminder)}`,
    'END:VALARM',
  ];
}

/** A mid: link to a message (RFC 2392). */
const midLink = (messageId: string): string => `mid:${encodeURIComponent(messageId).replace(/%40/g, '@')}`;

/** What a message is sent along as, where it goes itself: its bytes in base64. */
export type Enclosed = ReadonlyMap<string, string>;

const attached = (messageId: string, enclosed: Enclosed | undefined): string[] => {
  const bytes = enclosed?.get(messageId);
  return [
    `ATTACH:${midLink(messageId)}`,
    ...(bytes ? [`ATTACH;FMTTYPE=message/rfc822;ENCODING=BASE64;VALUE=BINARY:${bytes}`] : []),
  ];
};

const times = (kind: Item['kind'], start: When | null, end: When | null): string[] => [
  ...(start ? [timedLine('DTSTART', start)] : []),
  ...(end ? [timedLine(kind === 'task' ? 'DUE' : 'DTEND', end)] : []),
];

const words = ({ title, place, note }: Pick<Item, 'title' | 'place' | 'note'>): string[] => [
  ...(title ? [`SUMMARY:${textValue(title)}`] : []),
  ...(place ? [`LOCATION:${textValue(place)}`] : []),
  ...(note ? [`DESCRIPTION:${textValue(note)}`] : []),
];

function statusOf({ kind, status, done }: Item): string {
  if (kind === 'appointment') return status.toUpperCase();
  return status === 'cancelled' ? 'CANCELLED' : done === null ? 'NEEDS-ACTION' : 'COMPLETED';
}

/** The lines of one item, without its begin and end. */
function body(item: Item, enclosed: Enclosed | undefined): string[] {
  const anchor = anchorOf(item);
  const listed = (name: string, list: readonly string[]): string[] =>
    anchor ? list.map((at) => timedLine(name, atOf(anchor, at))) : [];
  return [
    `UID:${textValue(item.uid)}`,
    `DTSTAMP:${stampOf(item.edited)}`,
    `CREATED:${stampOf(item.made)}`,
    `LAST-MODIFIED:${stampOf(item.edited)}`,
    `SEQUENCE:${item.sequence}`,
    ...(item.only ? [timedLine('RECURRENCE-ID', item.only)] : []),
    ...times(item.kind, item.start, item.end),
    ...(item.repeats === null ? [] : [`RRULE:${item.repeats}`]),
    ...listed('EXDATE', item.except),
    ...listed('RDATE', item.besides),
    ...words(item),
    `STATUS:${statusOf(item)}`,
    ...(item.done === null ? [] : [`COMPLETED:${stampOf(item.done)}`, 'PERCENT-COMPLETE:100']),
    ...(item.organizer ? [`ORGANIZER${personValue(item.organizer)}`] : []),
    ...item.invited.map(attendeeLine),
    ...item.messages.flatMap((message) => attached(message, enclosed)),
    ...item.kept,
    ...alarm(item),
  ];
}

function changedBody(item: Item, one: ChangedOccurrence): string[] {
  const anchor = anchorOf(item) ?? one.start;
  return [
    `UID:${textValue(item.uid)}`,
    `DTSTAMP:${stampOf(item.edited)}`,
    timedLine('RECURRENCE-ID', atOf(anchor, one.on)),
    `SEQUENCE:${one.sequence}`,
    ...times(item.kind, one.start, one.end),
    ...words(one),
    ...(one.cancelled ? ['STATUS:CANCELLED'] : []),
    ...(item.organizer ? [`ORGANIZER${personValue(item.organizer)}`] : []),
    ...item.invited.map(attendeeLine),
  ];
}

/** The component of an item or occurrence. */
function component(kind: Item['kind'], lines: readonly string[]): string {
  const name = kind === 'task' ? 'VTODO' : 'VEVENT';
  return [`BEGIN:${name}`, ...lines, `END:${name}`].map(folded).join('');
}

/** The zones that some items are written by, each once, for the years in which they are. */
export function zonesOf(items: readonly Item[]): string {
  const years = new Map<string, [from: number, to: number]>();
  for (const item of items)
    for (const when of [item.start, item.end, ...item.changed.flatMap(({ start, end }) => [start, end])]) {
      const zone = when && zoneOf(when);
      if (!when || !zone || zone === 'UTC') continue;
      const year = Number(when.at.slice(0, 4));
      const [from, to] = years.get(zone) ?? [year, year];
      years.set(zone, [Math.min(from, year), Math.max(to, year + (item.repeats === null ? 0 : 10))]);
    }
  return [...years]
    .map(([zone, [from, to]]) => zoneLines(zone, Math.max(1970, from - 1), Math.min(to + 1, 9998)))
    .join('');
}

/** A calendar around components: `method` of iTIP (RFC 5546), or none for a file. */
export const calendarOf = (components: string, method: string | null): string =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', `PRODID:${productId}`, ...(method === null ? [] : [`METHOD:${method}`])]
    .map(folded)
    .join('') + `${components}END:VCALENDAR\r\n`;

/** One item, and what of its series is otherwise; `only`: of the series no more than these. */
export const componentsOf = (
  item: Item,
  enclosed?: Enclosed,
  only: readonly ChangedOccurrence[] | null = null,
): string =>
  (only ? '' : component(item.kind, body(item, enclosed))) +
  (only ?? item.changed).map((one) => component(item.kind, changedBody(item, one))).join('');

/**
 * Items as a calendar, lines ended by CRLF. `method`: of an invitation. `enclosed`: the messages that go along themselves, by
 * their Message-ID, in base64.
 */
export const writeCalendar = (items: readonly Item[], method: string | null = null, enclosed?: Enclosed): string =>
  calendarOf(zonesOf(items) + items.map((item) => componentsOf(item, enclosed)).join(''), method);

/** An item and lines in its place: of an answer, which says no more than who answers what (RFC 5546, section 3.2.3). */
export const bareComponent = (item: Item, lines: readonly string[]): string => component(item.kind, lines);
