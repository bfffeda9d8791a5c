// What the post office handed out, made ready to come in.
import { decodeBase64 } from '../../core/mail/transfer';
import type { Incoming } from '../intake/incoming';
import type { Parse } from '../reading/parsePool';
import type { Changes } from './postOffice';

/**
 * What arrived, ready to come in; `judged`: the junk filter will look at it. What the post office kept elsewhere than in its
 * inbox stays there.
 */
export async function incomingFrom(
  { arrived }: Pick<Changes, 'arrived'>,
  parse: Parse,
  judged: boolean,
): Promise<Incoming[]> {
  // The workers are not started for nothing.
  if (arrived.length === 0) return [];
  const encoder = new TextEncoder();
  const raws = arrived.map(({ raw }) => decodeBase64(encoder.encode(raw)));
  const { envelopes, text, features } = await parse(raws, 'eml', judged);
  return arrived.map(({ place, seen, flagged, due, until, marked }, i) => ({
    stored: { bytes: raws[i], form: 'eml' },
    envelope: envelopes[i],
    text: { batch: text, at: i },
    features: judged ? features[i] : undefined,
    place: place === 'inbox' ? null : place,
    read: seen,
    flagged,
    due,
    until: place === 'held' ? until : undefined,
    marked,
    why:
      place === 'inbox'
        ? null
        : { station: 'post office', by: null, says: 'It already stood there when the post office handed it over.' },
  }));
}
