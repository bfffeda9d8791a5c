// What is sent of appointments to those who are invited, and to who invites (RFC 5546): the calendar of it, and its words.
import type { Address } from '../mail/address';
import { itemTitle, type ChangedOccurrence, type InvitedAnswer, type Item } from './item';
import { recurrenceWords } from './recurrenceWords';
import { numberOf, wallText, type When } from './wallTime';
import {
  attendeeLine,
  bareComponent,
  calendarOf,
  componentsOf,
  personValue,
  stampOf,
  textValue,
  timedLine,
  writeCalendar,
  zonesOf,
} from './writeCalendar';

/** What is sent: its calendar, the method of it, and a subject and text for whoever reads no calendars. */
export interface Sent {
  method: 'REQUEST' | 'CANCEL' | 'REPLY';
  calendar: string;
  subject: string;
  text: string;
}

const weekdayNames = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'];
const monthNames = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

function dayWords(number: number): string {
  const date = new Date(number);
  return `${weekdayNames[date.getUTCDay()]} ${date.getUTCDate()} ${monthNames[date.getUTCMonth()]} ${date.getUTCFullYear()}`;
}

/** From when to when, in words: `Fri 27 Nov 2026, 14:00 to 15:30 (Europe/Copenhagen)`. */
export function timesWords(start: When, end: When | null): string {
  const [from, to] = [numberOf(start.at), end ? numberOf(end.at) : null];
  if (start.at.length === 10) {
    // A calendar names the day after the last.
    const last = to === null ? from : to - 86_400_000;
    return last > from ? `${dayWords(from)} to ${dayWords(last)}` : dayWords(from);
  }
  const clock = (number: number) => wallText(number, false).slice(11, 16);
  const sameDay = to !== null && wallText(to, true) === wallText(from, true);
  const until = to === null || to === from ? '' : ` to ${sameDay ? '' : `${dayWords(to)}, `}${clock(to)}`;
  return `${dayWords(from)}, ${clock(from)}${until}${start.zone === null ? '' : ` (${start.zone})`}`;
}

function words(item: Item, one: ChangedOccurrence | null): string {
  const { place, note, start, end } = one ?? item;
  return [
    ...(start ? [timesWords(start, end)] : []),
    ...(item.repeats !== null && !one ? [`Comes again ${recurrenceWords(item.repeats)}.`] : []),
    ...(place ? [`Where: ${place}`] : []),
    ...(note ? ['', note] : []),
  ].join('\n');
}

/** An invitation; `one`: to one of a series that is otherwise than the rest. `changed`: they were invited before. */
export function requestOf(item: Item, changed: boolean, one: ChangedOccurrence | null = null): Sent {
  const title = one?.title || itemTitle(item);
  return {
    method: 'REQUEST',
    calendar: one
      ? calendarOf(zonesOf([item]) + componentsOf(item, undefined, [one]), 'REQUEST')
      : writeCalendar([item], 'REQUEST'),
    subject: `${changed ? 'Changed' : 'Invitation'}: ${title}`,
    text: `${changed ? 'This is otherwise now' : 'You are invited'}: ${title}\n${words(item, one)}\n`,
  };
}

/** That something does not take place; `one`: of its series. */
export function cancelOf(item: Item, one: ChangedOccurrence | null = null): Sent {
  const title = one?.title || itemTitle(item);
  const off: Item = { ...item, status: 'cancelled' };
  return {
    method: 'CANCEL',
    calendar: one
      ? calendarOf(zonesOf([item]) + componentsOf(item, undefined, [{ ...one, cancelled: true }]), 'CANCEL')
      : writeCalendar([off], 'CANCEL'),
    subject: `Called off: ${title}`,
    text: `This does not take place: ${title}\n${words(item, one)}\n`,
  };
}

const said: Record<Exclude<InvitedAnswer, 'needs-action'>, [subject: string, text: string]> = {
  accepted: ['Accepted', 'comes'],
  tentative: ['Tentative', 'may come'],
  declined: ['Declined', 'does not come'],
};

/**
 * The answer to an invitation: who answers what, and to which version (RFC 5546, section 3.2.3). `now`: milliseconds since
 * 1970.
 */
export function replyOf(item: Item, me: Address, answer: Exclude<InvitedAnswer, 'needs-action'>, now: number): Sent {
  const title = itemTitle(item);
  const [subject, does] = said[answer];
  const lines = [
    `UID:${textValue(item.uid)}`,
    `DTSTAMP:${stampOf(now)}`,
    `SEQUENCE:${item.sequence}`,
    ...(item.only ? [timedLine('RECURRENCE-ID', item.only)] : []),
    ...(item.start ? [timedLine('DTSTART', item.start)] : []),
    ...(item.title ? [`SUMMARY:${textValue(item.title)}`] : []),
    ...(item.organizer ? [`ORGANIZER${personValue(item.organizer)}`] : []),
    attendeeLine({ ...me, answer, at: 0 }),
  ];
  return {
    method: 'REPLY',
    calendar: calendarOf(zonesOf([item]) + bareComponent(item, lines), 'REPLY'),
    subject: `${subject}: ${title}`,
    text: `${me.name || me.address} ${does}: ${title}\n${item.start ? timesWords(item.start, item.end) : ''}\n`,
  };
}
