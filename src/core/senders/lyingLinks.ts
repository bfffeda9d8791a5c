// Links that say one thing and go to another.
import { hostOf } from '../mail/host';
import type { Anchor } from '../mail/links';
import { siteOf } from '../mail/site';
import { normalDomain } from './normal';

const hostIn = /^(?:https?:\/\/)?((?:[\p{L}\p{N}-]+\.)+[\p{L}]{2,})(?:[/:?#]|$)/iu;

/** Links whose words name one site and that lead to another, each pair once. */
export function lyingLinks(anchors: readonly Anchor[]): { says: string; goes: string }[] {
  const out = new Map<string, { says: string; goes: string }>();
  for (const { href, text } of anchors) {
    const shown = hostIn.exec(text.trim())?.[1];
    const goes = /^https?:/i.test(href) ? hostOf(href) : null;
    if (!shown || !goes) continue;
    const says = normalDomain(shown);
    if (siteOf(says) !== siteOf(goes)) out.set(`${says} ${goes}`, { says, goes });
  }
  return [...out.values()];
}
