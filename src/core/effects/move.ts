// Moving: the message goes to a place, and no rule below is asked.
import { z } from 'zod';
import { placeName, placeSchema, type Place } from '../mail/place';
import { effectKind, nameOf } from './effect';

const schema = z.object({ do: z.literal('move'), place: placeSchema });

export const move = effectKind<'move', z.infer<typeof schema>, { from: Place; to: Place }>({
  do: 'move',
  schema,
  verb: 'move it to',
  ends: true,
  fresh: ({ folders }) => ({ do: 'move', place: folders[0] ? `folder:${folders[0].id}` : 'archive' }),
  words: ({ place }, { folders }) => `move it to ${placeName(place, folders)}`,
  missing: ({ place }, { folders }) => {
    if (!place.startsWith('folder:') || nameOf(folders, place.slice(7)) !== undefined) return null;
    return { field: 'place', says: `there is no folder with the id “${place.slice(7)}”` };
  },
  carryOut: ({ place }, decided, { folders }) => {
    if (place.startsWith('folder:') && nameOf(folders, place.slice(7)) === undefined)
      return { did: 'could not move it, because its folder is gone' };
    decided.place = place;
    return { did: `moved it to ${placeName(place, folders)}`, takes: true };
  },
  change: (message, was, is) => {
    // Only what the line decided does the line decide again: not what the person put where it is.
    if (is.place === was.place || message.byHand || is.place === message.place) return undefined;
    // What a tray delivered it does not take back.
    if (is.place === 'held' && (message.tray ?? null) !== null) return undefined;
    return { from: message.place, to: is.place };
  },
});
