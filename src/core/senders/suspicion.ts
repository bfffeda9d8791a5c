// What looks false about a message: names, domains, reply addresses and links that pretend to be others.
import { domainOf, type Address } from '../mail/address';
import type { Authentication } from '../mail/authentication';
import type { Anchor } from '../mail/links';
import { scriptOf } from '../text/writingSystem';
import { nameKey, type KnownPeople } from './knownPeople';
import { lookAlikeOf } from './lookAlike';
import { lyingLinks } from './lyingLinks';
import { normalAddress, unicodeDomain } from './normal';

/** Something that looks false: a sentence, and whether it alone is reason enough to make links dead. */
export interface Suspicion {
  kind: 'name' | 'address in name' | 'domain' | 'mixed scripts' | 'reply' | 'link' | 'authentication';
  says: string;
  grave: boolean;
}

/** What looks false about a message, the worst first. */
export function suspicionsOf(
  message: { from: Address; replyTo: readonly Address[]; byList: boolean },
  authentication: Authentication,
  anchors: readonly Anchor[],
  known: KnownPeople,
): Suspicion[] {
  const out: Suspicion[] = [];
  const { name, address } = message.from;
  const normal = normalAddress(address);
  const domain = domainOf(normal);
  const theirs = known.byName.get(nameKey(name));
  if (name && theirs && !theirs.has(normal))
    out.push({
      kind: 'name',
      says: [...theirs].some((one) => known.own.has(one))
        ? `It calls itself ${name}, as you are called, but comes from ${normal}.`
        : `It calls itself ${name}, whom you know as ${[...theirs][0]}, but comes from ${normal}.`,
      grave: true,
    });
  const inName = /[\w.+-]+@(?:[\w-]+\.)+\w{2,}/.exec(name)?.[0];
  if (inName && normalAddress(inName) !== normal)
    out.push({
      kind: 'address in name',
      says: `Its name shows the address ${inName}, but it comes from ${normal}.`,
      grave: true,
    });
  const imitated = lookAlikeOf(domain, known.domains);
  if (imitated)
    out.push({
      kind: 'domain',
      says: `${unicodeDomain(domain)} looks like ${imitated}, which ${known.own.has(imitated) ? 'is your own' : 'you write to'}, and is another.`,
      grave: true,
    });
  if (unicodeDomain(domain).split('.').some(mixesScripts))
    out.push({
      kind: 'mixed scripts',
      says: `The domain ${unicodeDomain(domain)} mixes letters of several alphabets.`,
      grave: true,
    });
  for (const { says, goes } of lyingLinks(anchors).slice(0, 3))
    out.push({ kind: 'link', says: `A link says ${says} and goes to ${goes}.`, grave: true });
  const reply = message.replyTo.find((to) => domainOf(normalAddress(to.address)) !== domain);
  // A list's answers go to the list.
  if (reply && domain && !message.byList)
    out.push({ kind: 'reply', says: `Answers would go to ${reply.address}, not to where it came from.`, grave: false });
  if (authentication.dmarc === 'fail' || (authentication.spf === 'fail' && authentication.dkim !== 'pass'))
    out.push({
      kind: 'authentication',
      says: 'Your server found that its sender may not be who it says (RFC 8601).',
      grave: true,
    });
  return out;
}

/** Whether a label has Latin letters beside Cyrillic or Greek ones (UTS #39, section 5.1). */
function mixesScripts(label: string): boolean {
  const scripts = new Set([...label].map((c) => scriptOf(c)).filter(Boolean));
  return scripts.has('Latn') && (scripts.has('Cyrl') || scripts.has('Grek'));
}
