// Calendars read (RFC 5545): tasks and appointments out of .ics files and invitations, of whatever program. Lines are taken
// apart by ical.js; what belongs to which component is found here first, so that one that is broken spoils no other.
import ICAL from 'ical.js';
import { textOfFile } from '../mail/charset';
import { unfolded, type ContentLine } from '../text/contentLines';
import { itemSchema, itemTrouble, mostExceptions, type ChangedOccurrence, type Item } from './item';
import { ItemInWork, type Remark, type Value } from './itemInWork';
import { zoneLike, zoneNamed, type ZoneSaid } from './zones';

/** What a file of a calendar holds, and what of it was not taken. */
export interface ReadCalendar {
  items: Item[];
  /** What it is sent for (RFC 5546); null for a file. */
  method: string | null;
  /** Each with the line in the file, from 1, and what is wrong. */
  remarks: Remark[];
  /** How many tasks and appointments there are in it, each of a series that is otherwise among them. */
  components: number;
}

/** No file is read further. */
export const mostItems = 20_000;
const mostCharacters = 50_000_000;
const mostLines = 3_000;
const longestValue = 100_000;
const mostRemarks = 1_000;

interface Component {
  name: string;
  at: number;
  lines: ContentLine[];
  /** Components within it, such as an alarm, as their lines stand. */
  inner: ContentLine[][];
  whole: boolean;
}

/** A property as ical.js takes it apart; null where it can't. */
function propertyOf(text: string): Value | null {
  try {
    const [name, parameters, type, ...values] = ICAL.Property.fromString(text).toJSON() as [
      string,
      Record<string, string | string[]>,
      string,
      ...unknown[],
    ];
    return { name, parameters, type, values, text };
  } catch {
    return null;
  }
}

const wanted = /^(VEVENT|VTODO)$/;

/** Cuts the lines into components: tasks and appointments, and zones. */
function componentsOf(lines: readonly ContentLine[]) {
  const found: Component[] = [];
  const zones: ContentLine[][] = [];
  let method: string | null = null;
  let calendar = false;
  let current: Component | null = null;
  let zone: ContentLine[] | null = null;
  let inner: ContentLine[] | null = null;
  let depth = 0;
  for (const line of lines) {
    const [, edge, name] = /^\s*(BEGIN|END):([A-Z-]+)\s*$/i.exec(line.text) ?? [];
    const which = name?.toUpperCase() ?? '';
    if (which === 'VCALENDAR') {
      calendar ||= edge?.toUpperCase() === 'BEGIN';
      continue;
    }
    if (edge && /BEGIN/i.test(edge)) {
      if (wanted.test(which)) {
        current = { name: which, at: line.at, lines: [], inner: [], whole: false };
        found.push(current);
        inner = null;
        depth = 0;
      } else if (current) {
        if (depth++ === 0) current.inner.push((inner = []));
        inner?.push(line);
      } else if (which === 'VTIMEZONE') zones.push((zone = []));
      continue;
    }
    if (edge) {
      if (current && which === current.name) {
        current.whole = true;
        current = null;
      } else if (current && depth > 0) {
        inner?.push(line);
        if (--depth === 0) inner = null;
      } else if (which === 'VTIMEZONE') zone = null;
      continue;
    }
    if (inner) {
      if (inner.length < 200) inner.push(line);
    } else if (current) current.lines.push(line);
    else if (zone) {
      if (zone.length < mostLines) zone.push(line);
    } else if (/^METHOD[;:]/i.test(line.text))
      method ??= line.text
        .slice(line.text.indexOf(':') + 1)
        .trim()
        .toUpperCase()
        .slice(0, 40);
  }
  return { found, zones, method, calendar };
}

/** Minutes of an offset: `+0130`. */
function offsetOf(text: string): number | null {
  const [, sign, hours, minutes] = /:([+-])(\d{2})(\d{2})/.exec(text) ?? [];
  return sign ? (sign === '-' ? -1 : 1) * (Number(hours) * 60 + Number(minutes)) : null;
}

/** What the file says of its zones, by their names there. */
function zonesSaid(zones: readonly ContentLine[][]): Map<string, ZoneSaid> {
  const out = new Map<string, ZoneSaid>();
  for (const lines of zones) {
    let name = '';
    const all: number[] = [];
    for (const { text } of lines) {
      if (/^TZID[;:]/i.test(text)) name = text.slice(text.indexOf(':') + 1).trim();
      const offset = /^TZOFFSETTO[;:]/i.test(text) ? offsetOf(text) : null;
      if (offset !== null) all.push(offset);
    }
    // The last two that are named are those of now: the greater one is in summer.
    const last = [...new Set(all)].slice(-2).sort((a, b) => a - b);
    if (name) out.set(name, { standard: last.slice(0, 1), daylight: last.slice(1) });
  }
  return out;
}

/** The zones of a file as the database has them, each found once; what is odd about one is said once. */
class FileZones {
  private readonly found = new Map<string, string | null>();

  constructor(
    private readonly said: ReadonlyMap<string, ZoneSaid>,
    private readonly remark: (line: number, says: string) => void,
  ) {}

  of(name: string, line: number): string | null {
    let zone = this.found.get(name);
    if (zone !== undefined) return zone;
    zone = zoneNamed(name);
    if (zone === null) {
      const said = this.said.get(name);
      zone = said ? zoneLike(said) : null;
      this.remark(
        line,
        zone === null
          ? `The time zone “${name.slice(0, 60)}” is not known: its times are taken for those of where you are.`
          : `The time zone “${name.slice(0, 60)}” is taken for ${zone}, whose clocks go alike.`,
      );
    }
    if (this.found.size < 2_000) this.found.set(name, zone);
    return zone;
  }
}

/** Puts the components of one series together: the first without RECURRENCE-ID stands for it. */
function together(list: readonly ItemInWork[]): Item {
  const master = list.find(({ on }) => on === null) ?? list[0];
  const changed = new Map<string, ChangedOccurrence>();
  for (const one of list) {
    const its = one === master ? null : one.changed(master.item);
    if (!its) continue;
    const other = changed.get(its.on);
    if (!other || other.sequence <= its.sequence) changed.set(its.on, its);
  }
  return { ...master.finished(), changed: [...changed.values()].slice(0, mostExceptions) };
}

/** Takes the lines of a component apart. */
function inWork(
  { name, at, lines, inner, whole }: Component,
  now: number,
  zones: FileZones,
  remark: (line: number, says: string) => void,
): ItemInWork {
  const work = new ItemInWork(name === 'VTODO' ? 'task' : 'appointment', now, at, zones, remark);
  for (const { text, at: where } of lines.slice(0, mostLines)) {
    if (text.trim() === '') continue;
    if (text.length > longestValue) {
      remark(where, `“${text.slice(0, 30)}…” is too long and was left out.`);
      continue;
    }
    const property = propertyOf(text);
    if (property) work.take(property, where);
    else remark(where, `“${text.slice(0, 60)}” can’t be read and was left out.`);
  }
  if (lines.length > mostLines) remark(at, `Of ${lines.length} lines only the first ${mostLines} were read.`);
  for (const one of inner)
    work.within(
      one.map(({ text }) => text),
      propertyOf,
    );
  if (!whole) remark(at, 'It does not end: what there was of it was taken.');
  return work;
}

/**
 * Reads a calendar, in whatever character set. `now`: milliseconds since 1970, for what does not say when it was made. Never
 * throws.
 */
export function readCalendar(file: Uint8Array | string, now: number): ReadCalendar {
  const text = (typeof file === 'string' ? file : textOfFile(file)).slice(0, mostCharacters);
  const { found, zones, method, calendar } = componentsOf(unfolded(text));
  const remarks: Remark[] = [];
  const remark = (line: number, says: string) => {
    if (remarks.length < mostRemarks) remarks.push({ line, says });
    else if (remarks.length === mostRemarks)
      remarks.push({ line, says: 'More is odd about it; no more is said here.' });
  };
  if (!calendar) remark(1, 'No calendar is in it: one begins with BEGIN:VCALENDAR.');
  else if (found.length === 0) remark(1, 'No task and no appointment is in it.');
  if (found.length > mostItems)
    remark(found[mostItems].at, `No more than ${mostItems} tasks and appointments are read: the rest was left out.`);
  const its = new FileZones(zonesSaid(zones), remark);
  const byUid = new Map<string, ItemInWork[]>();
  for (const component of calendar ? found.slice(0, mostItems) : []) {
    const work = inWork(component, now, its, remark);
    const key = `${work.item.kind} ${work.item.uid}`;
    const list = byUid.get(key);
    if (list) list.push(work);
    else byUid.set(key, [work]);
  }
  const items: Item[] = [];
  for (const list of byUid.values()) {
    const item = together(list);
    const trouble = itemTrouble(item);
    if (trouble !== null) {
      remark(list[0].at, `“${item.title.slice(0, 60)}” was left out. ${trouble}`);
      continue;
    }
    const checked = itemSchema.safeParse(item);
    if (checked.success) items.push(checked.data);
    else remark(list[0].at, `“${item.title.slice(0, 60)}” was left out: ${checked.error.issues[0].message}.`);
  }
  return { items, method, remarks, components: found.length };
}
