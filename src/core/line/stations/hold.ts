// The hold: what comes in while delivery is stopped, by hand, for a period of quiet or by the timetable, waits until it goes
// on; but for what is let through. It keeps only what comes in, never what is here.
import { throughId } from '../../delivery/letThrough';
import type { Keeper } from '../../delivery/delivery';
import { gathers } from '../../delivery/gathering';
import { normalAddress } from '../../senders/normal';
import type { LineIndex, Ride, Station } from './station';

/** Whether a message is let through all that holds delivery back. */
function letThrough({ envelope, knowledge, decided, safe }: Ride, index: LineIndex): boolean {
  const { setup, gathered, throughContacts, ruleMessage } = index;
  const { letThrough } = setup.delivery;
  if (throughContacts.has(normalAddress(envelope.from.address))) return true;
  if (!letThrough.when && letThrough.labels.length === 0) return false;
  const matching = gathered.all(ruleMessage(envelope, knowledge, safe !== ''));
  return gathers(
    letThrough,
    matching.some(({ id }) => id === throughId),
    decided.labels,
  );
}

const keeperWords: Record<Keeper, string> = {
  hold: 'a hold is on',
  quiet: 'it is a time of quiet',
  timetable: 'it is outside the hours of the timetable',
};

export const hold: Station<'hold'> = {
  id: 'hold',
  name: 'Hold',
  page: '/delivery',
  pass(ride, index) {
    const { decided, knowledge } = ride;
    const passed = (says: string) => {
      ride.say(() => ({ by: null, says }));
      return false;
    };
    const { arrives } = knowledge;
    if (arrives === undefined) return passed('It keeps only what comes in.');
    if (knowledge.silenced) return passed('Its conversation is silenced.');
    const now = knowledge.now ?? arrives;
    const { at, by } = index.deliveries.gate(arrives);
    if (by === null) return passed('Delivery is not held back.');
    if (at <= now) {
      // What is brought in later than it came, and by then would have been delivered.
      decided.delivered = Math.max(decided.delivered ?? 0, index.deliveries.free(arrives).at);
      return passed('Delivery went on since it came.');
    }
    if (letThrough(ride, index)) {
      ride.say(() => ({ by: 'delivery', says: `Let through, although ${keeperWords[by]}.` }));
      return false;
    }
    decided.place = 'held';
    decided.until = at;
    ride.say(() => ({ by: 'delivery', says: `Held, because ${keeperWords[by]}.` }));
    return true;
  },
};
