// The junk filter: it takes what scores at or above the person's line.
import { lineOf } from '../../junk/settings';
import { normalAddress } from '../../senders/normal';
import { junkPlace, junkPlaceCalled } from './junkPlace';
import type { LineIndex, Ride, Station } from './station';

/** Why the filter lets a message pass whatever its score; null where it goes by the score. */
function notAsked({ envelope, knowledge, safe }: Ride, { setup, contacts }: LineIndex): string | null {
  const { junk } = setup;
  if (safe) return `Not asked, because ${safe}.`;
  const { address } = envelope.from;
  if (junk.contactsSafe && contacts.has(normalAddress(address)))
    return `Not asked, because ${address} is in your contacts.`;
  if (junk.writtenToSafe && knowledge.writtenTo) return `Not asked, because you wrote to ${address}.`;
  return null;
}

export const junk: Station<'junk'> = {
  id: 'junk',
  name: 'Junk filter',
  page: '/junk-filter',
  pass(ride, index) {
    const { setup } = index;
    const passed = (says: string): false => {
      ride.say(() => ({ by: 'junk', says }));
      return false;
    };
    const line = lineOf(setup.junk.strictness);
    if (line === null) return passed('The filter is off.');
    const why = notAsked(ride, index);
    if (why !== null) return passed(why);
    const { score } = ride.knowledge;
    if (score === null || score === undefined) return passed('It was not judged.');
    const shown = Math.round(score);
    if (score < line) return passed(`Score ${shown} of 100: below your line at ${line}.`);
    ride.decided.place = junkPlace(setup);
    ride.say(() => ({
      by: 'junk',
      says: `Score ${shown} of 100: at or above your line at ${line}, so it went to ${junkPlaceCalled(setup)}.`,
    }));
    return true;
  },
};
