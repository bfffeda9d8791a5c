// The evidence of a message that is at hand.
import { namedFeaturesOf } from './features';
import type { JunkReading } from './junkReading';
import type { JunkModel } from './model';
import { namedSender, type SenderSignal } from './senderFeatures';
import { evidenceAmong, type Evidence } from './verdict';

/** The evidence of a message, at most `most`; `sender`: what is known of who sent it. */
export const evidenceOf = (
  model: JunkModel,
  reading: JunkReading,
  most = 12,
  sender: readonly SenderSignal[] = [],
): Evidence[] => evidenceAmong(model, [...namedFeaturesOf(reading), ...namedSender(sender)], most);
