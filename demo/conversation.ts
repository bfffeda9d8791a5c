// Conversations: written as wholes, each answer quoting what it answers.
import type { Address } from '../src/core/mail/address';
import { formatDate } from '../src/core/mail/date';
import { colleagues, desk, partners, passengers, self } from './cast';
import { attachment, bodyOf, fill, quote, say } from './compose';
import { day, idOf, minute, officeHour, zone, type Draft } from './draft';
import type { Matter, Random } from './random';
import { topics } from './topics';

/** Who signs with a first name; an office with all of its own. */
const persons = new Set<Address>([...colleagues, ...passengers, self]);
const topicNames = Object.keys(topics) as (keyof typeof topics)[];

function peopleFor(topic: keyof typeof topics, random: Random): Address[] {
  const outside: Record<keyof typeof topics, Address[]> = {
    harbour: partners.harbour.slice(0, 3),
    parts: partners.parts,
    charter: partners.charter.slice(0, 2),
    crew: colleagues,
    complaint: passengers,
    staff: colleagues,
    inspection: partners.agency,
    freight: [...partners.harbour.slice(0, 2), partners.parts[0]],
    council: partners.council,
  };
  return [random.pick(outside[topic]), ...random.some(colleagues, random.int(1, 3))];
}

/** One conversation from its first message to its last; answers quote what they answer. */
export function conversation(random: Random, end: number, length?: number): Draft[] {
  const name = length ? 'staff' : random.pick(topicNames);
  const topic = topics[name];
  const people = length ? [...colleagues] : peopleFor(name, random);
  const matter: Matter = new Map();
  const about = random.int(0, topic.subjects.length - 1);
  const subject = say(topic.subjects[about], random, matter);
  const count = length ?? (random.chance(0.42) ? 1 : random.chance(0.8) ? random.int(2, 6) : random.int(7, 16));
  const out: Draft[] = [];
  const texts: string[] = [];
  let date = end - (length ? random.int(2, 3) * day : random.int(0, Math.min(9, count)) * day);
  const shared = random.chance(0.45);
  // Some matters take weeks.
  const slow = !length && random.chance(0.15);
  if (slow) date -= Math.min(10, count * 2) * day;
  for (let i = 0; i < count; i++) {
    const answered = i === 0 ? -1 : random.chance(0.75) ? i - 1 : random.int(0, i - 1);
    const mine = i > 0 && !length && random.chance(0.36) && out[answered].message.from.address !== self.address;
    const from = mine ? (shared ? desk : self) : i === 0 ? people[0] : random.pick(people);
    const lines =
      i === 0
        ? [
            say(topic.openings[about], random, matter),
            ...random.some(topic.middles, random.int(1, 4)).map((l) => say(l, random, matter)),
          ]
        : random
            .some(
              topic.only?.[about] ?? (from === people[0] ? topic.theirs : null) ?? topic.replies,
              random.int(1, length ? 1 : 3),
            )
            .map((l) => say(l, random, matter));
    const own = [
      say(from === self ? '{ownGreeting}' : '{greeting}', random),
      '',
      fill(lines.join(' ')),
      '',
      `${say('{closing}', random)},`,
      persons.has(from) ? from.name.split(/[ ,]/)[0] : from.name,
    ].join('\n');
    const signature = random.chance(0.5) ? `\n-- \n${from.name}\n${from.address}\n` : '\n';
    const before = answered >= 0 ? out[answered] : null;
    const quoted = before
      ? `\n${before.message.from.name} wrote on ${formatDate(before.date, zone).slice(5, 16)}:\n${quote(texts[answered])}\n`
      : '';
    // An answer quotes all of what it answers, with what that quoted, as long as anybody would read it.
    texts.push(quoted.split('\n').length < 60 ? own + quoted : own);
    const to = mine && before ? [before.message.from] : [shared ? desk : self];
    const cc =
      !mine && (count > 3 || random.chance(0.3))
        ? random.some(
            people.filter((p) => p !== from),
            random.int(1, length ? 8 : 3),
          )
        : [];
    const messageId = idOf(from, random);
    const references = before ? [...(before.message.references ?? []), before.message.messageId] : [];
    const files = random.chance(0.14)
      ? Array.from({ length: random.int(1, 2) }, () => attachment(random, subject, matter))
      : [];
    out.push({
      date,
      kind: mine ? 'sent' : 'work',
      ...(length && { crowd: true as const }),
      message: {
        messageId,
        from,
        to,
        cc,
        subject: i === 0 ? subject : `Re: ${subject}`,
        inReplyTo: before?.message.messageId,
        references,
        body: bodyOf(own + signature + quoted, random, { html: random.chance(0.3), files }),
      },
    });
    date += length
      ? random.int(3, 90) * minute
      : !slow && random.chance(0.6)
        ? random.int(8, 240) * minute
        : officeHour(date + (slow ? random.int(2, 6) : 1) * day, random) - date;
  }
  return out;
}
