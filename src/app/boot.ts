// The first thing that runs: the mailroom opens the mail, and the rows of the place in the address are made ready,
// while the rest of the page is still on its way.
import { mailroom } from '../mailroom/client';
import { readPath } from './paths';

const here = readPath(location.pathname);
// What comes of it the page asks again; a mailroom that can't be opened is told there.
void mailroom.rows(here?.view ?? { kind: 'place', place: 'inbox' }, 0, 60).catch(() => undefined);

void import('./main');
