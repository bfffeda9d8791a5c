// The demo's junk: many trades, many hands, and wording that changes from message to message.
import type { Address } from '../src/core/mail/address';
import { expand, type Random } from './random';
import { lexicon } from './lexicon';

/** What a junk message says; the writing of it is mailbox.ts's. */
export interface JunkDraft {
  from: Address;
  replyTo?: Address;
  subject: string;
  lines: string[];
  /** Where its one link claims to go, and where it goes. */
  link?: { text: string; href: string };
  html: boolean;
  attachment?: string;
}

interface Trade {
  names: string[];
  domains: string[];
  subjects: string[];
  lines: string[];
  link?: string;
  /** What the link's text says, where it says one thing and goes to another. */
  linkText?: string;
  attachment?: string;
}

const words: Record<string, readonly string[]> = {
  ...lexicon,
  now: ['today', 'before midnight', 'within {12-72} hours', 'while stocks last', 'at once', 'this week only'],
  sum: ['{2-48},{100-950},000', '{4-28}.{1-9} million', '{650-980},000'],
  country: ['a northern kingdom', 'Lower Castavia', 'the Republic of Ondaria', 'the Free Isles'],
  rank: ['Barrister', 'Dr.', 'Col.', 'Madam', 'Engr.', 'Rev.'],
  pill: ['Vigorol', 'Slendexa', 'Potentia Plus', 'SleepWell Forte', 'Joint-Ease 900', 'Mirafen'],
  doc: ['Invoice', 'Statement', 'Remittance', 'Delivery note', 'Voice message', 'Scanned document'],
};

const trades: Trade[] = [
  {
    names: ['Account Safety', 'Bank Verification Unit', 'Customer Care', 'Sécurité Banque'],
    domains: ['isle-savings-verify.example', 'secure-islebank.example', 'banking-alerts.example'],
    subjects: [
      'Your account was {limited|suspended|locked}',
      'Unusual sign-in from {island}',
      '{Action|Response} required {now}',
      'Confirm your details {now}',
    ],
    lines: [
      'We noticed {2-7} failed sign-ins to your account and have {limited|locked} it for your safety.',
      'Please confirm your card number and your secret answer {today|before midnight|at once}.',
      'If you do not answer, the account is closed and a fee of {fee} is due.',
      'This message was sent by our security team; do not call the branch.',
    ],
    link: 'https://{hex}.isle-savings-verify.example/login?id={100000-999999}',
    linkText: 'https://www.islesavings.example/confirm',
  },
  {
    names: ['{rank} Samuel Okafor-Lindt', '{rank} Mary-Ann de Vries', '{rank} Viktor Halloway', 'Estate Office'],
    domains: ['postbag.example', 'mailhaven.example', 'quickmail-centre.example'],
    subjects: [
      'Inheritance of {sum} {crowns|dollars}',
      'CONFIDENTIAL business proposal',
      'Next of kin needed',
      'I write to you in tears',
      'Re: your unclaimed funds',
    ],
    lines: [
      'I am the {lawyer|widow|banker} of a late client who left {sum} in a security house in {country}.',
      'Since no relation came forward I seek a foreigner of trust to receive it; {20-45} per cent is for you.',
      'There is no risk whatsoever, all papers are with me.',
      'Kindly send your full name, age, telephone and the number of your passport.',
      'Please keep this between us for reasons you will understand.',
    ],
  },
  {
    names: ['Online Chemist', 'Health Outlet', 'Dr. Marlowe’s Store', 'Wellness Today'],
    domains: ['pill-harbour.example', 'cheap-remedies.example', 'wellness-dispatch.example'],
    subjects: [
      '{pill}: {60-90}% off {now}',
      'No prescription? No problem',
      'She will notice',
      '{pill} {10-120} tablets from {19-49} crowns',
    ],
    lines: [
      '{pill} works within {15-45} minutes and lasts the whole weekend.',
      'No questions, no waiting room, plain parcel, sent {now}.',
      'Nine in ten customers order again; the tenth had no time to.',
      'Order {2-6} packs and the {postage|fourth} is free.',
    ],
    link: 'http://{hex}.pill-harbour.example/shop/{1000-9999}',
  },
  {
    names: ['Parcel Service', 'Delivery Notice', 'Tracking'],
    domains: ['parcel-redelivery.example', 'track-your-box.example'],
    subjects: [
      'Your parcel could not be delivered',
      'Parcel {100200-998877}: pay {1-4}.{10-99}',
      'Last attempt {weekday}',
    ],
    lines: [
      'Our driver could not hand over your parcel on {weekday} at {time}.',
      'A customs fee of {1-4}.{10-99} crowns is open; pay it {now} or the parcel goes back.',
      'Choose a new day with the button below.',
    ],
    link: 'http://parcel-redelivery.example/r/{hex}',
    linkText: 'Track parcel {100200-998877}',
  },
  {
    names: ['Lottery Desk', 'Prize Committee', 'Anniversary Draw'],
    domains: ['global-draw.example', 'winners-office.example'],
    subjects: ['You won {sum} crowns!!!', 'WINNING NUMBER {11-99}-{100-999}', 'Final notice to the winner'],
    lines: [
      'Your e-mail address was drawn out of {2-9} million and has won {sum} crowns.',
      'To pay out, we need a handling fee of {fee} first.',
      'Please quote ticket {100-999}/{10-99} in every letter and tell nobody.',
    ],
  },
  {
    names: ['Max Rankings', 'SEO team', 'Lead Factory', 'Growth Partners'],
    domains: ['rank-first.example', 'lead-factory.example', 'growth-letters.example', 'tidewater-offers.example'],
    subjects: [
      'Quick question about skerryline.example',
      'Your website has {11-84} errors',
      '{500-5000} buyers waiting for you',
      'Re: my last letter',
      'Following up again',
    ],
    lines: [
      'I was looking at your website and found {11-84} errors that keep you off the first page.',
      'We bring ferry companies like yours {20-300} new customers a month, guaranteed.',
      'Would {weekday} at {time} suit you for a quick call?',
      'I wrote to you last week but you must have been busy.',
      'If this is not for you, who is the right person?',
    ],
    link: 'https://rank-first.example/?c={hex}',
  },
  {
    names: ['Accounts', 'Billing', 'Office Scanner', 'Mailbox Administrator'],
    domains: ['doc-exchange.example', 'skerry1ine.example', 'files-hub.example'],
    subjects: [
      '{doc} {1001-9999}',
      'Fwd: {doc} for your approval',
      'Mailbox almost full ({90-99}%)',
      'Overdue: {doc} {1001-9999}',
    ],
    lines: [
      'Please find the {doc} attached and settle it {today|before midnight|at once}.',
      'Your mailbox holds {90-99} per cent of its limit; sign in to keep receiving mail.',
      'The document is protected; enable content to read it.',
      'The manager approved it already, only your name is missing.',
    ],
    link: 'http://files-hub.example/{hex}/view',
    linkText: 'https://intranet.skerryline.example/documents',
    attachment: '{doc}_{1001-9999}.html',
  },
  {
    names: ['Tidewater Deals', 'Bargain Quay', 'The Watch Locker', 'Crypto Captain'],
    domains: ['tidewater-offers.example', 'bargain-quay.example', 'watch-locker.example', 'coin-captain.example'],
    subjects: [
      '{70-95}% off everything',
      'Your neighbour made {sum} crowns',
      'Solid gold from {49-99} crowns',
      'Cheap ink for your printer',
      'The coin that {doubles|triples} in {5-30} days',
    ],
    lines: [
      'Only {today|this week|while stocks last}: watches, bags and sunglasses that nobody tells from real ones.',
      'A deck hand of {19-64} put in {fee} and took out {sum}.',
      'Printer ink at {20-40} per cent of the shop’s price, sent {now}.',
      'Our robot trades while you sleep, {3-9} nights a week.',
      'To leave this list, answer with the word STOP and your telephone number.',
    ],
    link: 'https://tidewater-offers.example/go/{hex}',
  },
];

/** One junk message's content. Some of it hides its words as real junk does. */
export function junkDraft(random: Random): JunkDraft {
  const trade = random.pick(trades);
  const say = (template: string) =>
    expand(
      template.replace(/\{hex\}/g, () => random.hex(8)),
      words,
      random,
    );
  const domain = random.pick(trade.domains);
  const local = random.pick([
    'info',
    'office',
    'service',
    'news',
    'no-reply',
    random.hex(6),
    `mail${random.int(1, 99)}`,
  ]);
  const lines = random.some(trade.lines, random.int(2, trade.lines.length)).map(say);
  let subject = say(random.pick(trade.subjects));
  if (random.chance(0.12)) subject = subject.replace(/o/g, '0').replace(/i/g, '1');
  if (random.chance(0.1)) subject = subject.toUpperCase();
  if (random.chance(0.2))
    lines.push(`${random.hex(5)} ${random.pick(lexicon.island)} ${random.hex(7)} ${random.pick(lexicon.dish)}`);
  const draft: JunkDraft = {
    from: { name: say(random.pick(trade.names)), address: `${local}@${domain}` },
    subject,
    lines,
    html: random.chance(0.7),
  };
  if (random.chance(0.25))
    draft.replyTo = { name: draft.from.name, address: `${random.hex(8)}@quickmail-centre.example` };
  if (trade.link) {
    const href = say(trade.link);
    draft.link = {
      href,
      text:
        trade.linkText && random.chance(0.7) ? say(trade.linkText) : random.pick([href, 'Click here', 'Yes, show me']),
    };
  }
  if (trade.attachment && random.chance(0.5)) draft.attachment = say(trade.attachment);
  return draft;
}
