// Plain signals: what is plain to see of a message besides its words. Each has a sentence for the person.
import { domainOf } from '../mail/address';
import { anchorsOf } from '../mail/links';
import { siteOf } from '../mail/site';
import { lyingLinks } from '../senders/lyingLinks';
import type { JunkReading } from './junkReading';

/** A signal that holds: its name for the model, and what it says. */
export interface Signal {
  name: string;
  says: string;
}

const mostAnchors = 50;
const beyondAscii = /[^\0-\x7f]/;

/** How many doublings: 0, 1, 2–3, 4–7 … as 0, 1, 2, 3 … so that counts of a like size are one signal. */
const size = (n: number): number => Math.round(Math.log2(n + 1));
/** `no links`, `1 link`, `12 links`. */
const counted = (n: number, thing: string): string => `${n === 0 ? 'no' : n} ${thing}${n === 1 ? '' : 's'}`;
const count = (text: string, pattern: RegExp): number => text.match(pattern)?.length ?? 0;

function ofSender({ from, replyTo, recipients }: JunkReading, add: (name: string, says: string) => void): void {
  const domain = domainOf(from.address);
  if (!from.address) add('no sender', 'it names no sender');
  else
    add(
      `sender ends in ${domain.slice(domain.lastIndexOf('.') + 1)}`,
      `its sender’s domain ends in .${domain.slice(domain.lastIndexOf('.') + 1)}`,
    );
  if (!from.name) add('no sender name', 'its sender gives no name');
  if (/\d{3,}/.test(from.address.split('@')[0])) add('digits in sender', 'many digits in its sender’s address');
  if (replyTo.length && domainOf(replyTo[0].address) !== domain)
    add('reply elsewhere', 'answers would go to another domain than it came from');
  const n = recipients.length;
  add(
    `recipients ${n > 10 ? '10+' : n > 3 ? '4+' : n > 1 ? '2+' : n}`,
    n === 0 ? 'it names no recipient' : `it names ${counted(n, 'recipient')}`,
  );
  if (recipients.some((to) => to.name && to.name !== to.address))
    add('recipient named', 'it calls a recipient by name');
}

/** Whether the last word stands four blanks or more behind the rest. */
function hasTail(subject: string): boolean {
  const isBlank = (at: number) => /\s/.test(subject[at] ?? '');
  let word = subject.length;
  while (word > 0 && !isBlank(word - 1)) word--;
  let rest = word;
  while (rest > 0 && isBlank(rest - 1)) rest--;
  return word < subject.length && word - rest >= 4;
}

function ofSubject({ subject }: JunkReading, add: (name: string, says: string) => void): void {
  const capitals = count(subject, /\p{Lu}/gu);
  if (capitals > 4 && capitals > count(subject, /\p{Ll}/gu)) add('subject in capitals', 'a subject in capitals');
  if (subject.includes('!')) add('subject shouts', 'an exclamation mark in its subject');
  if (hasTail(subject)) add('subject tail', 'a lone word far behind its subject');
  if (beyondAscii.test(subject)) add('subject beyond ASCII', 'letters beyond English ones in its subject');
  if (/^\s*re:/i.test(subject)) add('subject of a reply', 'a subject that begins like a reply’s');
}

function ofText({ subject, text }: JunkReading, add: (name: string, says: string) => void): void {
  const start = text.slice(0, 4_000);
  if (/\$\d|\$\$/.test(subject + text)) add('money', 'a sum of money');
  add(`text length ${size(text.length)}`, `a text of ${counted(text.length, 'character')}`);
  if (/unsubscribe|remove/i.test(text.slice(-600))) add('leave words', 'words on leaving a list at its end');
  // Looking letters up by their property takes ten times as long; most mail has none beyond ASCII.
  const capitals = count(start, beyondAscii.test(start) ? /\b\p{Lu}{3,}\b/gu : /\b[A-Z]{3,}\b/g);
  add(`capitals ${size(capitals)}`, `${counted(capitals, 'word')} in capitals`);
  const shouts = count(start, /!/g);
  add(`shouting ${size(shouts)}`, counted(shouts, 'exclamation mark'));
  const quoted = count(text, /^[ \t]*>/gm);
  if (quoted) add(`quotes ${Math.min(5, size(quoted))}`, 'it quotes another message');
  if (/^(?:-- |_{5,})/m.test(text)) add('signature', 'a signature, parted off by a line');
  let longest = 0;
  for (const line of text.split('\n', 200)) longest = Math.max(longest, line.length);
  add(`line length ${size(longest)}`, `lines of up to ${counted(longest, 'character')}`);
}

function ofForm(reading: JunkReading, add: (name: string, says: string) => void): void {
  const { html, text, alsoPlain, parts } = reading;
  if (html) {
    add('html', 'it is written in HTML');
    if (!alsoPlain) add('only html', 'it has no plain text beside its HTML');
    add(
      `html to text ${Math.max(0, Math.min(10, size((html.length + 1) / (text.length + 1))))}`,
      `${counted(html.length, 'character')} of HTML`,
    );
    const pictures = count(html, /<img/gi);
    if (pictures) add(`pictures ${size(pictures)}`, counted(pictures, 'picture'));
    if (/<form/i.test(html)) add('form', 'a form to fill in');
    if (/<script/i.test(html)) add('script', 'a script in its HTML');
  }
  add(`parts ${Math.min(5, parts.length)}`, `it is made of ${counted(parts.length, 'part')}`);
  for (const { type, charset, encoding } of parts) {
    add(`part ${type} ${charset}`, `a part of the type ${type}${charset ? ` in ${charset}` : ''}`);
    add(`encoding ${encoding}`, `a part encoded as ${encoding}`);
  }
}

function ofLinks(reading: JunkReading, add: (name: string, says: string) => void): void {
  const found = reading.links.map(({ host }) => host);
  add(`links ${size(found.length)}`, counted(found.length, 'link'));
  if (found.length === 0) return;
  const sites = found.map(siteOf);
  const own = siteOf(domainOf(reading.from.address));
  add(`sites ${Math.min(6, new Set(sites).size)}`, `its links go to ${counted(new Set(sites).size, 'site')}`);
  const share = sites.filter((site) => site === own).length / sites.length;
  add(
    `links to sender ${share === 0 ? 'none' : share < 0.5 ? 'some' : share < 1 ? 'most' : 'all'}`,
    share === 0 ? 'none of its links goes to its sender’s own site' : 'links to its sender’s own site',
  );
  if (reading.html && lyingLinks(anchorsOf(reading.html, mostAnchors)).length)
    add('link lies', 'a link that says one site and goes to another');
  if (found.some((host) => /^\d+\.\d+\.\d+\.\d+$/.test(host)))
    add('link to a number', 'a link to a bare number instead of a name');
}

const bulkWords = {
  list: 'it came by a mailing list',
  leave: 'it offers a way to leave its list',
  automatic: 'a machine sent it of its own accord',
} as const;

/**
 * The signals of a message. `bulk`: also what mailing software and the receiving server wrote into the header, which a
 * model for comparing on a corpus must not see.
 */
export function signalsOf(reading: JunkReading, bulk: boolean): Signal[] {
  const out: Signal[] = [];
  const add = (name: string, says: string) => void out.push({ name, says });
  ofSender(reading, add);
  ofSubject(reading, add);
  ofText(reading, add);
  ofForm(reading, add);
  ofLinks(reading, add);
  if (!bulk) return out;
  for (const which of reading.bulk) add(`bulk ${which}`, bulkWords[which]);
  for (const [method, result] of Object.entries(reading.authentication))
    if (result !== 'none')
      add(
        `${method} ${result}`,
        `its sender ${result === 'pass' ? 'holds' : 'does not hold'} against ${method.toUpperCase()}`,
      );
  return out;
}
