// What is known of a sender beside the message itself, as features.
import { featureKinds, slotOfWord, type NamedFeature } from './slots';

/** What is known of a sender beside the message itself. */
export const senderSignals = {
  known: 'you know its sender',
  'imitates a name': 'it bears the name of somebody you know, from elsewhere',
  'imitates a domain': 'its domain looks like one you know',
} as const;
export type SenderSignal = keyof typeof senderSignals;

const signalKind = featureKinds.indexOf('signal');

/** Features, ascending, with what is known of the sender. */
export function withSender(features: Uint32Array, signals: readonly SenderSignal[]): Uint32Array {
  if (signals.length === 0) return features;
  const more = signals
    .map((signal) => slotOfWord(signalKind, `sender ${signal}`))
    .filter((slot) => !features.includes(slot));
  const out = new Uint32Array(features.length + more.length);
  out.set(features);
  for (const [n, slot] of more.entries()) {
    let at = features.length + n;
    for (; at > 0 && out[at - 1] > slot; at--) out[at] = out[at - 1];
    out[at] = slot;
  }
  return out;
}

/** What is known of the sender as named features. */
export const namedSender = (signals: readonly SenderSignal[]): NamedFeature[] =>
  signals.map((signal) => ({
    slot: slotOfWord(signalKind, `sender ${signal}`),
    kind: 'signal',
    word: signal,
    says: senderSignals[signal],
  }));
