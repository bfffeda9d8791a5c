// What comes in by itself: junk, bulletins, machines, letters in other languages.
import { bulletins, colleagues, desk, machines, partners, self } from './cast';
import { bodyOf, fill, htmlPart, multipart, paragraphs, say, textPart } from './compose';
import { idOf, type Draft } from './draft';
import { png } from './files';
import { junkTongues, tongues } from './foreign';
import { junkDraft } from './junk';
import { lexicon } from './lexicon';
import { expand, type Matter, type Random } from './random';

function foreign(random: Random, date: number): Draft {
  const tongue = random.pick(tongues);
  const from = random.pick(tongue.from);
  const matter: Matter = new Map();
  const text = [
    ...random.some(tongue.lines, random.int(2, tongue.lines.length)).map((l) => fill(say(l, random, matter))),
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
      subject: say(random.pick(tongue.subjects), random, matter),
      body: bodyOf(text, random, { charset: tongue.charset, html: random.chance(0.25) }),
    },
  };
}

const bulletinLines: Record<string, string[]> = {
  trade: [
    '{ferryNews}: what the yards say, and what they mean.',
    'Our reader from {harbour} writes about {ferryNews}.',
    'On {ferryNews}: {fee} more than planned, and nobody is surprised.',
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
  const matter: Matter = new Map();
  const subject = say(random.pick(list.subjects), random, matter);
  const lines = random.some(bulletinLines[list.topic], random.int(2, 6)).map((l) => say(l, random, matter));
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
      subject,
      extra: [
        // One request to leave counts only where a signature holds (RFC 8058).
        ['Authentication-Results', `mx.skerryline.example; dkim=pass header.d=${host}`],
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
  const matter: Matter = new Map();
  const above = random.chance(0.5);
  const limit = random.int(70, 110);
  const [subject, text] = from.address.startsWith('alarm')
    ? [
        `Ticket machine ${number} ${at}: ${random.pick(['paper low', 'card reader lost', 'door open', 'coins full', 'out of order'])}`,
        `Machine: ${number}\nPlace: ${at}\nSince: ${say('{time}', random)}\nCode: E${random.int(100, 940)}\nTickets sold today: ${random.int(0, 412)}\n`,
      ]
    : from.address.startsWith('rota')
      ? [
          say('Rota changed: {ship}, {weekday}', random, matter),
          say(
            'The rota of {ship} for {weekday} was changed at {time}.\nPlease look whether it touches you.\n',
            random,
            matter,
          ),
        ]
      : [
          say(`{ship}: {part} ${above ? 'above its limit' : 'back to normal'}`, random, matter),
          say(
            `{ship}\nUnit: {part}\nValue: ${limit + (above ? random.int(1, 18) : -random.int(2, 20))} degrees\nLimit: ${limit} degrees\nPosition: off {harbour}\n`,
            random,
            matter,
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
  const matter: Matter = new Map();
  const subject = say('Picture of the ramp at {harbour}', random, matter);
  const text = say(
    'This is what the ramp at {harbour} looks like {reason}. The {time} can land, I think.',
    random,
    matter,
  );
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
      subject,
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
  const part = expand('{part}', lexicon, random);
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
export function single(random: Random, date: number): Draft {
  const roll = random.next();
  if (roll < 0.42) return junk(random, date);
  if (roll < 0.66) return bulletin(random, date);
  if (roll < 0.84) return machine(random, date);
  if (roll < 0.87) return confirmation(random, date);
  if (roll < 0.95) return foreign(random, date);
  return illustrated(random, date);
}
