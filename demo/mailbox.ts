// The demo mailbox: an island ferry company's operations desk over three months, from one seed.
//
// Threads are written as wholes, then all messages are laid along time. What a person would long have dealt with
// stands in Archive, Sent, Bin or Junk, as a mail server keeps it; the rest is in the Inbox and rides the sorting line.
import { formatDate } from '../src/core/mail/date';
import type { FixedPlace } from '../src/core/mail/place';
import { demoInvitations } from './agenda';
import { desk, partners } from './cast';
import { traceFields, writeMessage } from './compose';
import { conversation } from './conversation';
import { day, eveningOf, minute, officeHour, zone, type Draft } from './draft';
import { Random } from './random';
import { single } from './singles';

/** A message as the post office holds it: raw, and where and how the server keeps it (RFC 6154, RFC 9051). */
export interface DemoMessage {
  raw: Uint8Array;
  sender: string;
  date: number;
  place: FixedPlace;
  seen: boolean;
  flagged: boolean;
  /** When what is flagged is due, milliseconds since 1970. */
  due?: number;
  /** Until when it is put off, milliseconds since 1970. */
  until?: number;
  /** What the person marked it as: the keywords $Junk and $NotJunk (RFC 9051, section 2.3.2). */
  marked?: 'junk' | 'good';
}

function written(draft: Draft, random: Random): Uint8Array {
  const to = draft.message.to[0]?.address ?? desk.address;
  const trace =
    draft.kind === 'sent' ? [] : traceFields(draft.message.from, to, formatDate(draft.date + 4_000, zone), random);
  return writeMessage({
    ...draft.message,
    date: draft.date,
    zone,
    extra: [...trace, ...(draft.message.extra ?? [])],
  });
}

/**
 * Where the person left a message: what is recent is still to be done, what is old was mostly dealt with. By the evening of
 * the day, so that it is the same all day.
 */
function kept(
  draft: Draft,
  evening: number,
  random: Random,
): Omit<DemoMessage, 'raw' | 'sender' | 'date' | 'due' | 'marked'> {
  const age = (evening - draft.date) / day;
  if (draft.kind === 'invitation') return { place: 'inbox', seen: false, flagged: false };
  if (draft.kind === 'sent') return { place: 'sent', seen: true, flagged: false };
  if (draft.kind === 'bulletin' || draft.kind === 'machine')
    return { place: 'inbox', seen: age > 2 ? random.chance(0.6) : random.chance(0.2), flagged: false };
  if (draft.kind === 'junk') {
    if (age < 1.6) return { place: 'inbox', seen: random.chance(0.2), flagged: false };
    return { place: age < 45 ? 'junk' : 'bin', seen: random.chance(0.3), flagged: false };
  }
  // Since its domain was blocked nobody has seen its mail, wanted as it is.
  if (draft.message.from === partners.parts[2] && age < 21) return { place: 'inbox', seen: false, flagged: false };
  const recent = age < 3.2;
  const left = random.chance(!recent ? 0.035 : draft.crowd ? 0.12 : 0.5);
  if (left)
    return { place: 'inbox', seen: recent ? random.chance(0.42) : true, flagged: random.chance(recent ? 0.07 : 0.4) };
  return { place: random.chance(0.93) ? 'archive' : 'bin', seen: true, flagged: random.chance(0.03) };
}

/** A third of the junk that is there was marked by hand, and a few of the others were once rescued. */
function markOf(draft: Draft, { place }: { place: FixedPlace }, random: Random): { marked?: 'junk' | 'good' } {
  if (draft.kind === 'junk') return place === 'junk' && random.chance(0.35) ? { marked: 'junk' } : {};
  return place === 'archive' && random.chance(0.06) ? { marked: 'good' } : {};
}

/** Half of the flags have a date: three working days after the message came, at the end of the day. */
function dueOf(draft: Draft, { flagged }: { flagged: boolean }, random: Random): { due?: number } {
  if (!flagged || random.chance(0.5)) return {};
  return { due: (Math.floor(draft.date / day) + random.int(2, 5)) * day + 17 * 60 * minute };
}

/** So much of the last day is fuller than the rest. */
const fullest = 1.1 * day;

/** The matters of that number (from 0): one message, or a conversation. */
function matter(seed: number, i: number, evening: number): Draft[] {
  const random = Random.of(seed, i);
  // The last days are the fullest, as they are in a mailbox that somebody tidies.
  const fresh = random.chance(0.08);
  const age = fresh ? random.next() * fullest : random.next() ** 1.15 * 90 * day;
  const date = fresh ? evening - age : officeHour(evening - age, random);
  return random.chance(0.2) ? conversation(random, date) : [single(random, date)];
}

/**
 * The mailbox as it stands at `now` (milliseconds since 1970): `count` messages, oldest first, over the ninety days
 * before. The same count, seed and moment give the same bytes; at another minute of the day it is the same mailbox, in
 * which what is still to come has not come.
 */
export function demoMailbox(count: number, seed: number, now: number): DemoMessage[] {
  const evening = eveningOf(now);
  const long = conversation(Random.of(seed, 0), evening, Math.min(64, Math.floor(count / 12)));
  const drafts: Draft[] = count >= 200 ? [...long, ...demoInvitations(evening)] : [];
  const isHere = ({ date }: Draft) => date <= now - minute;
  let here = drafts.filter(isHere).length;
  for (let i = 1; here < count; i++) {
    const some = matter(seed, i, evening);
    drafts.push(...some);
    here += some.filter(isHere).length;
  }
  const alone = new Set<Uint8Array>();
  const list = drafts
    .map((draft, i) => ({ draft: { ...draft, date: Math.floor(draft.date / 1000) * 1000 }, i }))
    .filter(({ draft }) => isHere(draft))
    .slice(0, count)
    .map(({ draft, i }) => {
      const raw = written(draft, Random.of(seed ^ 0x5eed, i));
      const keeping = kept(draft, evening, Random.of(seed ^ 0x6e97, i));
      const due = dueOf(draft, keeping, Random.of(seed ^ 0xd0e, i));
      if (draft.kind === 'work' && draft.message.references === undefined) alone.add(raw);
      const marked = markOf(draft, keeping, Random.of(seed ^ 0x3a2c, i));
      return { raw, sender: draft.message.from.address, date: draft.date, ...keeping, ...due, ...marked };
    })
    .sort((a, b) => a.date - b.date);
  putOne(list, alone, evening);
  return list;
}

/** One of the last days’ messages, which nobody answered, is put off: it is back at nine on the day after the next. */
function putOne(list: DemoMessage[], alone: ReadonlySet<Uint8Array>, evening: number): void {
  // What came today may not have come yet at another minute of the day.
  const lately = ({ raw, place, seen, flagged, date }: DemoMessage) =>
    alone.has(raw) && place === 'inbox' && seen && !flagged && date < evening - day && date > evening - 6 * day;
  const one = list.findLast(lately);
  if (one) Object.assign(one, { place: 'held', until: evening + day + 9 * 60 * minute });
}

/** The arrival of that number (from 0) while the page is open: a message as it would come in at `now`. */
export function demoArrival(index: number, seed: number, now: number): DemoMessage {
  const random = Random.of(seed ^ 0xa771, index);
  const date = Math.floor(now / 1000) * 1000;
  let draft: Draft;
  if (random.chance(0.45)) [draft] = conversation(random, date);
  else draft = single(random, date);
  const { address: sender } = draft.message.from;
  return { raw: written({ ...draft, date }, random), sender, date, place: 'inbox', seen: false, flagged: false };
}
