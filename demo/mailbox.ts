// The demo mailbox: an island ferry company's operations desk over three months, from one seed.
//
// Threads are written as wholes, then all messages are laid along time. What a person would long have dealt with
// stands in Archive, Sent, Bin or Junk, as a mail server keeps it; the rest is in the Inbox and rides the sorting line.
import type { Address } from '../src/core/mail/address';
import { formatDate } from '../src/core/mail/date';
import type { FixedPlace } from '../src/core/mail/place';
import type { MessageToWrite } from '../src/core/mail/writing';
import { bulletins, colleagues, desk, machines, ownAddresses, partners, passengers, self } from './cast';
import {
  attachment,
  bodyOf,
  fill,
  htmlPart,
  multipart,
  paragraphs,
  quote,
  say,
  textPart,
  traceFields,
  writeMessage,
} from './compose';
import { png } from './files';
import { junkTongues, tongues } from './foreign';
import { junkDraft } from './junk';
import { topics } from './lexicon';
import { expand, Random } from './random';
import { lexicon } from './lexicon';

/** A message as the post office holds it: raw, and where and how the server keeps it (RFC 6154, RFC 9051). */
export interface DemoMessage {
  raw: Uint8Array;
  sender: string;
  date: number;
  place: FixedPlace;
  seen: boolean;
  flagged: boolean;
}

interface Draft {
  message: Omit<MessageToWrite, 'date' | 'zone'>;
  date: number;
  kind: 'work' | 'bulletin' | 'junk' | 'machine' | 'sent';
}

const day = 86_400_000;
const minute = 60_000;

/** The clock of the islands: an hour east of UTC. */
const zone = 60;

/** Moves a moment into the hours when offices write, mostly. */
function officeHour(time: number, random: Random): number {
  const start = Math.floor(time / day) * day;
  const weekday = new Date(start).getUTCDay();
  const away = (weekday === 0 || weekday === 6) && random.chance(0.7) ? -random.int(1, 2) * day : 0;
  const hour = random.chance(0.85) ? 6 + random.next() * 11 : random.next() * 24;
  return Math.floor((start + away + hour * 60 * minute) / 1000) * 1000;
}

const idOf = (from: Address, random: Random): string =>
  `${random.hex(12)}.${random.hex(6)}@${from.address.slice(from.address.lastIndexOf('@') + 1)}`;

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
function conversation(random: Random, end: number, length?: number): Draft[] {
  const name = length ? 'staff' : random.pick(topicNames);
  const topic = topics[name];
  const people = length ? [...colleagues] : peopleFor(name, random);
  const subject = say(random.pick(topic.subjects), random);
  const count = length ?? (random.chance(0.42) ? 1 : random.chance(0.8) ? random.int(2, 6) : random.int(7, 16));
  const out: Draft[] = [];
  const texts: string[] = [];
  let date = end - (length ? random.int(2, 3) * day : random.int(0, Math.min(9, count)) * day);
  const shared = random.chance(0.45);
  for (let i = 0; i < count; i++) {
    const answered = i === 0 ? -1 : random.chance(0.75) ? i - 1 : random.int(0, i - 1);
    const mine = i > 0 && !length && random.chance(0.36) && out[answered].message.from.address !== self.address;
    const from = mine ? (shared ? desk : self) : i === 0 ? people[0] : random.pick(people);
    const lines =
      i === 0
        ? [
            say(random.pick(topic.openings), random),
            ...random.some(topic.middles, random.int(1, 4)).map((l) => say(l, random)),
          ]
        : random.some(topic.replies, random.int(1, length ? 1 : 3)).map((l) => say(l, random));
    const own = [
      say('{greeting}', random),
      '',
      fill(lines.join(' ')),
      '',
      `${say('{closing}', random)},`,
      from.name.split(/[ ,]/)[0],
    ].join('\n');
    const signature = random.chance(0.5) ? `\n-- \n${from.name}\n${from.address}\n` : '\n';
    const before = answered >= 0 ? out[answered] : null;
    const quoted = before
      ? `\n${before.message.from.name} wrote on ${formatDate(before.date, zone).slice(5, 16)}:\n${quote(texts[answered])}\n`
      : '';
    texts.push(own);
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
      ? Array.from({ length: random.int(1, 2) }, () => attachment(random, subject))
      : [];
    out.push({
      date,
      kind: mine ? 'sent' : 'work',
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
      : random.chance(0.6)
        ? random.int(8, 240) * minute
        : officeHour(date + day, random) - date;
  }
  return out;
}

function foreign(random: Random, date: number): Draft {
  const tongue = random.pick(tongues);
  const from = random.pick(tongue.from);
  const text = [
    ...random.some(tongue.lines, random.int(2, tongue.lines.length)).map((l) => fill(say(l, random))),
    '',
    from.name,
  ].join('\n');
  return {
    date,
    kind: 'work',
    message: {
      messageId: idOf(from, random),
      from,
      to: [random.chance(0.6) ? desk : self],
      subject: say(random.pick(tongue.subjects), random),
      body: bodyOf(text, random, { charset: tongue.charset, html: random.chance(0.25) }),
    },
  };
}

const bulletinLines: Record<string, string[]> = {
  trade: [
    '{ferryNews}: what the yards say, and what they mean.',
    'Our reader from {harbour} writes about {ferryNews}.',
    '{ferryNews} cost {money} more than planned.',
  ],
  weather: [
    'Sea area {island}: {wind}. {swell}.',
    'Forecast for {weekday}: {wind}.',
    'Visibility good, locally poor near {harbour}.',
  ],
  travel: [
    '{3-7} nights in {harbour}, half board, {money}.',
    'Walk the cliffs of {island} in the company of a baker.',
    'Book by {weekday} and the bicycle is free.',
  ],
  staff: [
    'The meeting of {weekday} spoke about rest hours on {ship}.',
    'A survey on noise is open until {weekday}.',
    '{aside}',
  ],
  software: [
    'Reports can now be sorted by {harbour|weekday|ship}.',
    'On {weekday} between {time} and {time} the shop is closed for maintenance.',
    'We mended {3-22} faults, some of them old.',
  ],
  food: [
    '{weekday}: {dish}. {weekday}: {dish}.',
    'Bring your own cup, the dishwasher is on strike.',
    'No {dish} this week, the boat with the leeks was late.',
  ],
};

function bulletin(random: Random, date: number): Draft {
  const list = random.pick(bulletins);
  const lines = Array.from({ length: random.int(2, 6) }, () => say(random.pick(bulletinLines[list.topic]), random));
  const host = list.listId.slice(list.listId.indexOf('.') + 1);
  const pixel = `https://count.${host}/open/${random.hex(16)}.gif`;
  const html = `<html><head><style>td{padding:8px}</style></head><body><table width="600"><tr><td><img src="https://img.${host}/banner.png" width="600" alt="${list.listName}"></td></tr><tr><td>${paragraphs(lines)}<p><a href="https://www.${host}/read/${random.int(100, 999)}">Read on</a></p></td></tr></table><img src="${pixel}" width="1" height="1"></body></html>`;
  return {
    date,
    kind: 'bulletin',
    message: {
      messageId: idOf(list.from, random),
      from: list.from,
      to: [random.chance(0.5) ? desk : self],
      subject: say(random.pick(list.subjects), random),
      extra: [
        ['List-Id', `${list.listName} <${list.listId}>`],
        ['List-Unsubscribe', `<https://www.${host}/leave/${random.hex(10)}>, <mailto:leave@${host}?subject=leave>`],
        ['List-Unsubscribe-Post', 'List-Unsubscribe=One-Click'],
        ['Precedence', 'bulk'],
      ],
      body: multipart('multipart/alternative', [textPart(lines.map(fill).join('\n\n')), htmlPart(html)], random),
    },
  };
}

function machine(random: Random, date: number): Draft {
  const from = random.pick(machines);
  const at = say('{harbour}', random);
  const number = random.int(1, 14);
  const [subject, text] = from.address.startsWith('alarm')
    ? [
        `Ticket machine ${number} ${at}: ${random.pick(['paper low', 'card reader lost', 'door open', 'coins full', 'out of order'])}`,
        `Machine: ${number}\nPlace: ${at}\nSince: ${say('{time}', random)}\nCode: E${random.int(100, 940)}\nTickets sold today: ${random.int(0, 412)}\n`,
      ]
    : from.address.startsWith('rota')
      ? [
          say('Rota changed: {ship}, {weekday}', random),
          say('The rota of {ship} for {weekday} was changed at {time}.\nPlease look whether it touches you.\n', random),
        ]
      : [
          say('{ship}: {part} {above its limit|back to normal}', random),
          say(
            '{ship}\nUnit: {part}\nValue: {60-118} degrees\nLimit: {70-110} degrees\nPosition: off {harbour}\n',
            random,
          ),
        ];
  return {
    date,
    kind: 'machine',
    message: {
      messageId: idOf(from, random),
      from,
      to: [desk],
      subject,
      extra: [['Auto-Submitted', 'auto-generated']],
      body: textPart(text),
    },
  };
}

function junk(random: Random, date: number): Draft {
  if (random.chance(0.09)) {
    const tongue = random.pick(junkTongues);
    const from = {
      name: '',
      address: `${random.hex(7)}@${random.pick(['bulk-post.example', 'quickmail-centre.example'])}`,
    };
    const lines = random.some(tongue.lines, random.int(2, tongue.lines.length)).map((l) => expand(l, lexicon, random));
    return {
      date,
      kind: 'junk',
      message: {
        messageId: idOf(from, random),
        from,
        to: [desk],
        subject: expand(random.pick(tongue.subjects), lexicon, random),
        body: textPart(lines.join('\n'), tongue.charset),
      },
    };
  }
  const draft = junkDraft(random);
  const { link } = draft;
  const text = [...draft.lines.map(fill), ...(link ? [link.href] : [])].join('\n\n');
  const html = `<html><body bgcolor="#ffffff"><center><img src="http://img.${draft.from.address.split('@')[1]}/top.jpg" alt=""></center>${paragraphs(draft.lines)}${link ? `<p><a href="${link.href}"><b>${link.text}</b></a></p>` : ''}<font color="#fefefe">${random.hex(12)}</font></body></html>`;
  const main = draft.html ? htmlPart(html) : textPart(text);
  const files = draft.attachment
    ? [
        {
          type: 'text/html',
          bytes: new TextEncoder().encode(html),
          encoding: 'base64' as const,
          filename: draft.attachment,
        },
      ]
    : [];
  return {
    date,
    kind: 'junk',
    message: {
      messageId: idOf(draft.from, random),
      from: draft.from,
      to: [random.chance(0.7) ? desk : self],
      subject: draft.subject,
      extra: draft.replyTo
        ? [['Reply-To', `${draft.replyTo.name ? `"${draft.replyTo.name}" ` : ''}<${draft.replyTo.address}>`]]
        : [],
      body: files.length ? multipart('multipart/mixed', [main, ...files], random) : main,
    },
  };
}

/** A picture in the text, by its Content-ID. */
function illustrated(random: Random, date: number): Draft {
  const from = random.pick(colleagues);
  const contentId = `${random.hex(8)}@skerryline.example`;
  const text = say('{crossing}: this is what the ramp looks like {reason}.', random);
  const html = `<html><body>${paragraphs([text])}<p><img src="cid:${contentId}" alt="The ramp"></p></body></html>`;
  const picture = {
    type: 'image/png',
    bytes: png(random, 240, 120),
    encoding: 'base64' as const,
    filename: 'ramp.png',
    contentId,
    inline: true,
  };
  return {
    date,
    kind: 'work',
    message: {
      messageId: idOf(from, random),
      from,
      to: [self],
      subject: say('Picture of the ramp at {harbour}', random),
      body: multipart(
        'multipart/related',
        [multipart('multipart/alternative', [textPart(text), htmlPart(html)], random), picture],
        random,
      ),
    },
  };
}

/** An order's confirmation, which is wanted, from a domain that was blocked in anger. */
function confirmation(random: Random, date: number): Draft {
  const from = partners.parts[2];
  const number = random.int(70_012, 99_870);
  const part = say('{part}', random);
  const text = say(
    `Your order ${number} is confirmed: {1-4} x ${part}, {money}.\nDelivery to {harbour}, {weekday} or {weekday}.\nPlease tell us today if the quay is closed.\n`,
    random,
  );
  return {
    date,
    kind: 'work',
    message: {
      messageId: idOf(from, random),
      from,
      to: [desk],
      subject: `Order ${number} confirmed: ${part}`,
      body: textPart(text),
    },
  };
}

/** One thing that comes in by itself: what a mailbox is full of besides conversations. */
function single(random: Random, date: number): Draft {
  const roll = random.next();
  if (roll < 0.42) return junk(random, date);
  if (roll < 0.66) return bulletin(random, date);
  if (roll < 0.84) return machine(random, date);
  if (roll < 0.87) return confirmation(random, date);
  if (roll < 0.95) return foreign(random, date);
  return illustrated(random, date);
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

/** Where the person left a message: what is recent is still to be done, what is old was mostly dealt with. */
function kept(draft: Draft, now: number, random: Random): Omit<DemoMessage, 'raw' | 'sender' | 'date'> {
  const age = (now - draft.date) / day;
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
  const left = recent ? random.chance(0.5) : random.chance(0.035);
  if (left)
    return { place: 'inbox', seen: recent ? random.chance(0.42) : true, flagged: random.chance(recent ? 0.07 : 0.4) };
  return { place: random.chance(0.93) ? 'archive' : 'bin', seen: true, flagged: random.chance(0.03) };
}

/**
 * The mailbox as it stands at `now` (milliseconds since 1970): `count` messages, oldest first, over the ninety days
 * before. The same count, seed and moment give the same bytes.
 */
export function demoMailbox(count: number, seed: number, now: number): DemoMessage[] {
  const drafts: Draft[] = [];
  const span = 90 * day;
  for (let i = 0; drafts.length < count; i++) {
    const random = Random.of(seed, i);
    if (i === 0 && count >= 200) {
      const length = Math.min(64, Math.floor(count / 12));
      drafts.push(...conversation(random, now, length).filter((draft) => draft.date <= now - minute));
      continue;
    }
    // The last days are the fullest, as they are in a mailbox that somebody tidies.
    const age = random.chance(0.06) ? random.next() * day * 0.35 : random.next() ** 1.15 * span;
    const office = age < day * 0.35 ? now - age : officeHour(now - age, random);
    const date = office > now - minute ? now - minute - random.next() * day * 0.35 : office;
    if (random.chance(0.2)) drafts.push(...conversation(random, date).filter((draft) => draft.date <= now - minute));
    else drafts.push(single(random, date));
  }
  const writer = new Random(seed ^ 0x5eed);
  return drafts
    .slice(0, count)
    .map((draft) => ({ ...draft, date: Math.floor(draft.date / 1000) * 1000 }))
    .sort((a, b) => a.date - b.date)
    .map((draft) => ({
      raw: written(draft, writer),
      sender: draft.message.from.address,
      date: draft.date,
      ...kept(draft, now, writer),
    }));
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

export { ownAddresses };
