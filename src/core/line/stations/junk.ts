// The junk filter: it takes what scores at or above the person's line.
import { lineOf } from '../../junk/settings';
import { normalAddress } from '../../senders/normal';
import { junkPlace, junkPlaceCalled } from './junkPlace';
import type { LineIndex, Ride, Station } from './station';

/** It lets the message pass. What it says is only put together where it is told. */
function passed(ride: Ride, says: () => string): false {
  ride.say(() => ({ by: 'junk', says: says() }));
  return false;
}

/** Whether it lets a message pass whatever its score. */
function spared(ride: Ride, { setup, contacts }: LineIndex): boolean {
  const { junk } = setup;
  const { address } = ride.envelope.from;
  if (ride.safe) passed(ride, () => `Not asked, because ${ride.safe}.`);
  else if (junk.contactsSafe && contacts.has(normalAddress(address)))
    passed(ride, () => `Not asked, because ${address} is in your contacts.`);
  else if (junk.writtenToSafe && ride.knowledge.writtenTo)
    passed(ride, () => `Not asked, because you wrote to ${address}.`);
  else return false;
  return true;
}

export const junk: Station<'junk'> = {
  id: 'junk',
  name: 'Junk filter',
  page: '/junk-filter',
  pass(ride, index) {
    const { setup } = index;
    const line = lineOf(setup.junk.strictness);
    if (line === null) return passed(ride, () => 'The filter is off.');
    if (spared(ride, index)) return false;
    const { score } = ride.knowledge;
    if (score === null || score === undefined) return passed(ride, () => 'It was not judged.');
    if (score < line) return passed(ride, () => `Score ${Math.round(score)} of 100: below your line at ${line}.`);
    ride.decided.place = junkPlace(setup);
    ride.say(() => ({
      by: 'junk',
      says: `Score ${Math.round(score)} of 100: at or above your line at ${line}, so it went to ${junkPlaceCalled(setup)}.`,
    }));
    return true;
  },
};
