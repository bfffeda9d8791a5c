// The trays: what is good to read and never urgent waits for its tray’s round.
import { askedAsRule, gathers } from '../../delivery/gathering';
import { roundWords } from '../../delivery/rounds';
import type { Tray } from '../../delivery/tray';
import { conditionWords } from '../../rules/ruleWords';
import { heldBy } from '../../rules/match';
import type { LineIndex, Ride, Station } from './station';

/** The tray that gathers a message: the one that a rule named, else the first that means it; undefined for none. */
function trayOf({ decided }: Ride, { setup }: LineIndex, matching: ReadonlySet<string>): Tray | undefined {
  if (decided.tray !== null) return setup.trays.find(({ id }) => id === decided.tray);
  return setup.trays.find((tray) => gathers(tray, matching.has(tray.id), decided.labels));
}

/** Why a tray gathers a message, in words. */
function because(tray: Tray, ride: Ride, { setup, ruleMessage }: LineIndex): string {
  const asked = askedAsRule(tray.id, tray);
  const held = asked ? heldBy(asked, ruleMessage(ride.envelope, ride.knowledge, ride.safe !== '')) : [];
  const label = setup.labels.find(({ id }) => tray.labels.includes(id) && ride.decided.labels.includes(id));
  const why = [
    ...held.map((condition) => conditionWords(condition, setup)),
    ...(label ? [`labelled ${label.name}`] : []),
  ];
  return why.length ? ` (${why.join(', ')})` : '';
}

export const trays: Station<'trays'> = {
  id: 'trays',
  name: 'Trays',
  page: '/trays',
  pass(ride, index) {
    const { setup, gathered, deliveries } = index;
    const { decided, knowledge, envelope } = ride;
    if (setup.trays.length === 0) {
      ride.say(() => ({ by: null, says: 'There are no trays.' }));
      return false;
    }
    const named = decided.tray !== null;
    const matching = new Set(
      named ? [] : gathered.all(index.ruleMessage(envelope, knowledge, ride.safe !== '')).map(({ id }) => id),
    );
    // What is silenced passes the Inbox by, in a tray or not.
    const tray = knowledge.silenced ? undefined : trayOf(ride, index, matching);
    decided.tray = tray?.id ?? null;
    if (!tray) {
      ride.say(() => ({ by: null, says: 'No tray gathers it.' }));
      return false;
    }
    const now = knowledge.now ?? envelope.date ?? 0;
    const came = Math.min(now, knowledge.came ?? now);
    // A round that was set only later is none that the message has missed.
    const at = deliveries.nextRound(tray.id, came) ?? came;
    const by = `tray:${tray.id}`;
    const what = () => `Gathered in “${tray.name}”${named ? ' by a rule' : because(tray, ride, index)}`;
    if (at <= now) {
      // Its round was before it came in here: it stands as of that.
      if (at > came) decided.delivered = at;
      const when = at > came ? 'whose round it has had' : 'which is delivered as mail comes';
      ride.say(() => ({ by, says: `${what()}, ${when}.` }));
      return false;
    }
    decided.place = 'held';
    decided.until = deliveries.release(now, tray.id, false).at;
    ride.say(() => ({ by, says: `${what()}, where it waits: the tray is delivered ${roundWords(tray.round)}.` }));
    return true;
  },
};
