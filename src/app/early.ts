// The rows of the place in the address are made ready while the rest of the page is still on its way.
import { askFirstRows } from './desk/firstRows';
import { readWhere } from './paths';

const here = readWhere(location.pathname, location.search);
const view = here?.view ?? { kind: 'place', place: 'inbox' };
askFirstRows(here && here.account !== null ? { ...view, account: here.account } : view, {
  grouped: false,
  elsewhere: true,
});
