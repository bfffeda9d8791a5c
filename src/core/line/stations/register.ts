// The Register: what is Blocked goes to Junk; what is Safe, the junk filter is not asked about.
import { entryWords } from '../../senders/register';
import { junkPlace, junkPlaceCalled } from './junkPlace';
import type { Station } from './station';

export const register: Station<'register'> = {
  id: 'register',
  name: 'Register',
  page: '/register',
  pass(ride, { setup, register }) {
    const entry = register.lookUp(ride.envelope);
    if (!entry) {
      const nobody = 'It names no sender to look up, and no other entry fits.';
      ride.say(() => ({ by: null, says: ride.envelope.from.address ? 'No entry for it.' : nobody }));
      return false;
    }
    const by = `entry:${entry.id}`;
    const words = entryWords(entry);
    // An address stays as it is written.
    const who = entry.kind === 'address' ? words : words[0].toUpperCase() + words.slice(1);
    if (entry.standing === 'safe') {
      ride.say(() => ({ by, says: `${who} is Safe: never Junk.` }));
      ride.safe = `${words} is Safe`;
      return false;
    }
    ride.decided.place = junkPlace(setup);
    ride.say(() => ({ by, says: `${who} is Blocked, so it went to ${junkPlaceCalled(setup)}.` }));
    return true;
  },
};
