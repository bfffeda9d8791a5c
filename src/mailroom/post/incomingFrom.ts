// What the post office handed out, made ready to come in.
import { decodeBase64 } from '../../core/mail/transfer';
import type { Incoming } from '../intake/incoming';
import type { Parse } from '../intake/parsePool';
import type { Changes } from './postOffice';

/** What arrived, ready to come in. What the post office kept elsewhere than in its inbox stays there. */
export async function incomingFrom({ arrived }: Pick<Changes, 'arrived'>, parse: Parse): Promise<Incoming[]> {
  // The workers are not started for nothing.
  if (arrived.length === 0) return [];
  const encoder = new TextEncoder();
  const raws = arrived.map(({ raw }) => decodeBase64(encoder.encode(raw)));
  const { envelopes, text } = await parse(raws, 'eml', false);
  return arrived.map(({ place, seen, flagged, due, marked }, i) => ({
    stored: { bytes: raws[i], form: 'eml' },
    envelope: envelopes[i],
    text: { batch: text, at: i },
    place: place === 'inbox' ? null : place,
    read: seen,
    flagged,
    due,
    marked,
    why:
      place === 'inbox'
        ? null
        : { station: 'post office', by: null, says: 'It already stood there when the post office handed it over.' },
  }));
}
