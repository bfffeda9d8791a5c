// One task or appointment as it is read, property by property.
import { addressKey } from '../mail/address';
import { lineOfValue, paragraphs } from '../text/contentLines';
import {
  answers,
  anchorOf,
  mostExceptions,
  mostInvited,
  newItem,
  type ChangedOccurrence,
  type Item,
  type ItemKind,
} from './item';
import { readRecurrence } from './recurrence';
import { dayLong, isDay, momentOf, numberOf, wallNumber, wallOfMoment, wallText, type When } from './wallTime';

/** What is odd about a file. `line`: from 1. */
export interface Remark {
  line: number;
  says: string;
}

/** A property as ical.js takes it apart (RFC 7265, section 3.4), and the line as it stood. */
export interface Value {
  name: string;
  parameters: Record<string, string | string[]>;
  type: string;
  values: unknown[];
  text: string;
}

interface Zones {
  of(name: string, line: number): string | null;
}

const one = (value: string | string[] | undefined): string => (Array.isArray(value) ? value[0] : value) ?? '';

/** The milliseconds of a duration: `-P1DT2H` (RFC 5545, section 3.3.6); null where it is none. */
function durationOf(text: string): number | null {
  const [, sign, w, d, h, m, s] =
    /^([+-]?)P(?:(\d{1,6})W)?(?:(\d{1,6})D)?(?:T(?:(\d{1,6})H)?(?:(\d{1,6})M)?(?:(\d{1,8})S)?)?$/.exec(text.trim()) ??
    [];
  if (sign === undefined || [w, d, h, m, s].every((part) => part === undefined)) return null;
  const [weeks, days, hours, minutes, seconds] = [w, d, h, m, s].map((part) => Number(part ?? 0));
  const size = (weeks * 7 + days) * dayLong + hours * 3_600_000 + minutes * 60_000 + seconds * 1_000;
  return sign === '-' ? -size : size;
}

/** A wall time as another clock has it at that moment; days stay days. */
function asOf(when: When, anchor: When): string {
  if (isDay(anchor)) return when.at.slice(0, 10);
  // Of a time that is left out some name only the day.
  if (isDay(when)) return `${when.at}T${anchor.at.slice(11)}`;
  if (when.zone === anchor.zone || when.zone === null || anchor.zone === null) return when.at;
  return wallText(wallOfMoment(momentOf(when, anchor.zone), anchor.zone), false);
}

/** What is not kept as it stands, since it is said anew whenever something is written. */
const saidAnew = new Set(['dtstamp', 'last-modified', 'percent-complete', 'prodid', 'version']);

export class ItemInWork {
  readonly item: Item;
  /** Of one of a series: which one. */
  on: When | null = null;
  private duration: number | null = null;
  private until: { except: When[]; besides: When[] } = { except: [], besides: [] };
  private alarms: { minutes: number; from: 'start' | 'end' | 'moment' }[] = [];
  private rule: string | null = null;
  private status = '';

  constructor(
    kind: ItemKind,
    now: number,
    readonly at: number,
    private readonly zones: Zones,
    private readonly remark: (line: number, says: string) => void,
  ) {
    this.item = newItem(`without-uid-${at}`, kind, now);
  }

  /** A value as a day or time; null, and said, where it is none. */
  private when(value: unknown, { parameters, text }: Value, line: number): When | null {
    const said = String(Array.isArray(value) ? value[0] : value);
    const utc = said.endsWith('Z');
    const at = (utc ? said.slice(0, -1) : said).replace(/\.\d+$/, '');
    if (wallNumber(at) === null) {
      this.remark(line, `“${text.slice(0, 60)}” is no day and no time, and was left out.`);
      return null;
    }
    if (at.length === 10) return { at, zone: null };
    if (utc) return { at, zone: 'UTC' };
    const zone = one(parameters.tzid);
    return { at, zone: zone ? this.zones.of(zone, line) : null };
  }

  private moment(property: Value, line: number): number | null {
    const when = this.when(property.values[0], property, line);
    return when && momentOf(when, 'UTC');
  }

  private keep({ text }: Value): void {
    if (this.item.kept.length < 500) this.item.kept.push(text.replace(/[\0\r\n]/g, ''));
  }

  private person({ parameters, values }: Value, line: number): { name: string; address: string } | null {
    const address = String(values[0])
      .trim()
      .replace(/^mailto:/i, '');
    if (!/^[^\s@]+@[^\s@]+$/.test(address) || address.length > 400) {
      this.remark(line, `“${String(values[0]).slice(0, 60)}” is no address.`);
      return null;
    }
    const name = lineOfValue(one(parameters.cn), 2_000);
    return { name: addressKey(name) === addressKey(address) ? '' : name, address };
  }

  /** Takes a property. */
  take(property: Value, line: number): void {
    const { item } = this;
    const [value] = property.values;
    switch (property.name) {
      case 'uid':
        item.uid = String(value).trim().slice(0, 1_000) || item.uid;
        return;
      case 'summary':
        item.title = lineOfValue(value, 2_000);
        return;
      case 'location':
        item.place = lineOfValue(value, 2_000);
        return;
      case 'description':
        item.note = paragraphs(value);
        return;
      case 'sequence':
        item.sequence = Math.max(0, Math.min(Math.trunc(Number(value)) || 0, 2_000_000_000));
        return;
      case 'status':
        this.status = String(value).toUpperCase();
        return;
      case 'duration':
        this.duration = durationOf(String(value));
        if (this.duration === null) this.remark(line, `“${property.text.slice(0, 60)}” is no length of time.`);
        return;
      case 'organizer':
        item.organizer ??= this.person(property, line);
        return;
      default:
        if (!this.takeTime(property, line)) this.takeMore(property, line);
    }
  }

  private takeTime(property: Value, line: number): boolean {
    const { item } = this;
    const [value] = property.values;
    switch (property.name) {
      case 'dtstart':
        item.start = this.when(value, property, line);
        return true;
      case 'dtend':
      case 'due':
        item.end = this.when(value, property, line);
        return true;
      case 'recurrence-id':
        this.on = this.when(value, property, line);
        if (/future/i.test(one(property.parameters.range)))
          this.remark(line, 'It is meant for this one and all that follow: only this one is changed.');
        return true;
      case 'exdate':
      case 'rdate': {
        const into = property.name === 'exdate' ? this.until.except : this.until.besides;
        for (const one of property.values) {
          const when = into.length < mostExceptions ? this.when(one, property, line) : null;
          if (when) into.push(when);
        }
        return true;
      }
      case 'created':
      case 'dtstamp':
      case 'last-modified': {
        const moment = this.moment(property, line);
        if (moment === null) return true;
        if (property.name === 'created') item.made = moment;
        else item.edited = property.name === 'dtstamp' || item.edited < moment ? moment : item.edited;
        return true;
      }
      case 'completed':
        item.done = this.moment(property, line);
        return true;
      default:
        return false;
    }
  }

  private takeMore(property: Value, line: number): void {
    const { item } = this;
    switch (property.name) {
      case 'rrule':
        this.takeRule(property, line);
        return;
      case 'exrule':
        this.remark(line, 'Days that a rule takes off again (EXRULE) are shown all the same.');
        return this.keep(property);
      case 'attendee': {
        const whom = item.invited.length < mostInvited ? this.person(property, line) : null;
        if (!whom || item.invited.some(({ address }) => addressKey(address) === addressKey(whom.address))) return;
        const said = one(property.parameters.partstat).toLowerCase();
        const stamp = wallNumber(
          one(property.parameters['x-widesort-answered']).replace(
            /^(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)Z$/,
            '$1-$2-$3T$4:$5:$6',
          ),
        );
        item.invited.push({
          ...whom,
          answer: answers.find((answer) => answer === said) ?? 'needs-action',
          at: stamp ?? 0,
        });
        return;
      }
      case 'attach': {
        const link = String(property.values[0]);
        const id = /^mid:/i.test(link) ? messageIdOf(link) : null;
        if (id === null) return this.keep(property);
        if (item.messages.length < 1_000 && !item.messages.includes(id)) item.messages.push(id);
        return;
      }
      default:
        if (!saidAnew.has(property.name)) this.keep(property);
    }
  }

  private takeRule(property: Value, line: number): void {
    const text = property.text.slice(property.text.indexOf(':') + 1).trim();
    const read = readRecurrence(text);
    if (this.rule === null && read.ok) this.rule = text;
    else {
      this.remark(
        line,
        read.ok
          ? 'It comes again by two rules: only the first is followed.'
          : `How it comes again can’t be followed: ${read.says}. Its first time is shown.`,
      );
      this.keep(property);
    }
  }

  /** Takes a component within it: an alarm, or what is kept as it stands. `read`: takes a line apart. */
  within(lines: readonly string[], read: (text: string) => Value | null): void {
    const trigger = /^BEGIN:VALARM/i.test(lines[0])
      ? lines.map((text) => (/^TRIGGER[;:]/i.test(text) ? read(text) : null)).find(Boolean)
      : null;
    if (trigger && this.alarms.length === 0) {
      const moment = triggerMoment(trigger);
      const length = durationOf(String(trigger.values[0]));
      if (moment !== null) this.alarms.push({ minutes: moment, from: 'moment' });
      else if (length !== null)
        this.alarms.push({
          minutes: -length / 60_000,
          from: /end/i.test(one(trigger.parameters.related)) ? 'end' : 'start',
        });
      if (this.alarms.length) return;
    }
    // Files of some programs have thousands of alarms.
    if (this.item.kept.length + lines.length < 500)
      this.item.kept.push(...lines.map((text) => text.replace(/[\0\r\n]/g, '').slice(0, 100_000)));
  }

  /** How long before it is told of: of a task before it is due, else before it begins. */
  private reminder(): number | null {
    const [alarm] = this.alarms;
    const { start, end, kind } = this.item;
    const anchor = kind === 'task' ? (end ?? start) : start;
    if (!alarm || !anchor) return null;
    const [from, at] = [start, end].map((when) => (when ? momentOf(when, 'UTC') : null));
    const base = momentOf(anchor, 'UTC');
    const moment =
      alarm.from === 'moment' ? alarm.minutes : ((alarm.from === 'end' ? at : from) ?? base) - alarm.minutes * 60_000;
    const minutes = Math.round((base - moment) / 60_000);
    return Math.abs(minutes) <= 525_600 ? minutes : null;
  }

  /** What the whole of it comes to. */
  finished(): Item {
    const { item, duration, rule } = this;
    const { start, kind } = item;
    if (!item.end && start && duration !== null && duration >= 0)
      item.end = { at: wallText(numberOf(start.at) + duration, isDay(start)), zone: start.zone };
    if (kind === 'appointment' && item.start && item.end) {
      const same = item.start.zone === item.end.zone && isDay(item.start) === isDay(item.end);
      if (isDay(item.start) !== isDay(item.end) || (same && numberOf(item.end.at) < numberOf(item.start.at))) {
        this.remark(this.at, `“${item.title.slice(0, 60)}” ends before it begins: its end was left out.`);
        item.end = null;
      }
    }
    if (
      kind === 'task' &&
      item.start &&
      item.end &&
      (isDay(item.start) !== isDay(item.end) || numberOf(item.end.at) < numberOf(item.start.at))
    )
      item.start = null;
    const anchor = anchorOf(item);
    item.repeats = anchor ? rule : null;
    if (anchor) {
      item.except = this.until.except.map((when) => asOf(when, anchor));
      item.besides = this.until.besides.map((when) => asOf(when, anchor));
    }
    if (kind === 'task') {
      if (this.status === 'COMPLETED') item.done ??= item.edited;
      else if (this.status === 'NEEDS-ACTION' || this.status === 'IN-PROCESS') item.done = null;
    } else if (this.status === 'TENTATIVE') item.status = 'tentative';
    if (this.status === 'CANCELLED') item.status = 'cancelled';
    item.reminder = this.reminder();
    item.only = this.on;
    return item;
  }

  /** As one of the series of another; null where nothing of it can be said. */
  changed(master: Item): ChangedOccurrence | null {
    const anchor = anchorOf(master);
    if (!this.on || !anchor) return null;
    const { item, duration } = this;
    const on = asOf(this.on, anchor);
    const start =
      item.start ??
      (item.kind === 'appointment' ? { at: on, zone: anchor.zone } : (item.end ?? { at: on, zone: anchor.zone }));
    const end =
      item.end ??
      (duration !== null && duration >= 0
        ? { at: wallText(numberOf(start.at) + duration, isDay(start)), zone: start.zone }
        : null);
    return {
      on,
      title: item.title,
      place: item.place,
      note: item.note,
      start,
      end,
      cancelled: this.status === 'CANCELLED',
      sequence: item.sequence,
    };
  }
}

/** The moment at which an alarm goes, where it names one; some leave out that it is no length of time. */
function triggerMoment({ text }: Value): number | null {
  const [, y, m, d, h, min, s] = /:(\d{4})(\d{2})(\d{2})T(\d{2})(\d{2})(\d{2})Z?$/.exec(text.trim()) ?? [];
  return y ? wallNumber(`${y}-${m}-${d}T${h}:${min}:${s}`) : null;
}

/** The Message-ID that a mid: link names (RFC 2392); null where it names none. */
function messageIdOf(link: string): string | null {
  try {
    const id = decodeURIComponent(link.slice(4).split('/')[0]).replace(/^<(.*)>$/s, '$1');
    return id && id.length <= 1_000 ? id : null;
  } catch {
    return null;
  }
}
