// The Inbox, at the end of the line: it takes what nobody took, but for answers in silenced conversations.
import type { Station } from './station';

export const inbox: Station<'inbox'> = {
  id: 'inbox',
  name: 'Inbox',
  page: '/inbox',
  pass({ knowledge, decided, say }) {
    if (knowledge.silenced) {
      decided.place = 'archive';
      const says = 'Its conversation is silenced, so it passed the Inbox by and went to the Archive.';
      say(() => ({ station: 'silence', by: null, says }));
      return true;
    }
    decided.place = 'inbox';
    say(() => ({ by: null, says: 'No station took it, so it came to the Inbox.' }));
    return true;
  },
};
