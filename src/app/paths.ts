// Where the person is, in the address: a view, what of it is shown and how, and perhaps an open message.
import { type Place, fixedPlaces } from '../core/mail/place';
import { filters, type Filter, type View } from '../mailroom/border/views';

/** A place on the desk. `view` is whole; what narrows it stands beside it. A `message` below 0 is a tray’s row. */
export interface Where {
  view: View;
  message: number | null;
  show: Filter | null;
  /** The id of an account, empty for none of them; null for all. */
  account: string | null;
  /** Side by side in lanes, not in rows. */
  lanes: boolean;
}

/** The address of a view, with a message open in it or not: `/inbox`, `/folder/weather/m/12`. */
export function viewPath(view: View, message?: number | null): string {
  const base = basePath(view);
  return message === null || message === undefined ? base : `${base}/m/${message}`;
}

function basePath(view: View): string {
  switch (view.kind) {
    case 'label':
      return `/label/${encodeURIComponent(view.label)}`;
    case 'silenced':
      return '/silenced';
    case 'damaged':
      return '/damaged';
    case 'found': {
      const within = view.within ? `/in/${encodeURIComponent(basePath(view.within))}` : '';
      return `/find/${encodeURIComponent(view.query)}${within}`;
    }
    case 'place':
      if (view.tray !== undefined)
        return `/tray/${encodeURIComponent(view.tray)}${view.place === 'held' ? '/waits' : ''}`;
      return view.place.startsWith('folder:') ? `/folder/${encodeURIComponent(view.place.slice(7))}` : `/${view.place}`;
  }
}

/** The address of a place on the desk: `/inbox/m/12?show=unread&account=desk&as=lanes`. */
export function wherePath({ view, message, show, account, lanes }: Where): string {
  const query = new URLSearchParams();
  if (show) query.set('show', show);
  if (account !== null) query.set('account', account);
  if (lanes) query.set('as', 'lanes');
  const search = query.toString();
  return viewPath(view, message) + (search && `?${search}`);
}

/** A part of an address; as it stands where it is spoilt. */
function decoded(part: string): string {
  try {
    return decodeURIComponent(part);
  } catch {
    return part;
  }
}

function readView(path: string): { view: View; message: number | null } | null {
  const [first, ...rest] = path.split('/').filter(Boolean).map(decoded);
  let view: View | null = null;
  if (fixedPlaces.includes(first as (typeof fixedPlaces)[number])) view = { kind: 'place', place: first as Place };
  else if (first === 'damaged' || first === 'silenced') view = { kind: first };
  else if (first === 'tray' && rest.length) {
    const tray = rest.shift() ?? '';
    const waits = rest[0] === 'waits';
    if (waits) rest.shift();
    view = { kind: 'place', place: waits ? 'held' : 'inbox', tray };
  } else if (first === 'folder' && rest.length) view = { kind: 'place', place: `folder:${rest.shift()}` };
  else if (first === 'label' && rest.length) view = { kind: 'label', label: rest.shift() ?? '' };
  else if (first === 'find' && rest.length) {
    const query = rest.shift() ?? '';
    const within = rest[0] === 'in' ? readView(rest.splice(0, 2)[1] ?? '')?.view : null;
    if (within !== null && within?.kind !== 'place' && within?.kind !== 'label') return null;
    view = { kind: 'found', query, within };
  }
  if (!view) return null;
  if (rest.length === 0) return { view, message: null };
  const id = Number(rest[1]);
  return rest[0] === 'm' && Number.isInteger(id) && (id >= 0 || isInbox(view)) ? { view, message: id } : null;
}

const isInbox = (view: View): boolean => view.kind === 'place' && view.place === 'inbox' && view.tray === undefined;

/** What an address says; null where it is no view's. */
export function readWhere(path: string, search = ''): Where | null {
  const read = readView(path);
  if (!read) return null;
  const query = new URLSearchParams(search);
  const show = filters.find((filter) => filter === query.get('show')) ?? null;
  return { ...read, show, account: query.get('account'), lanes: query.get('as') === 'lanes' };
}

/** The address of the setting that a trace names: `entry:ID`, `rule:ID`, `tray:ID`, `junk` or `delivery`. */
export function settingPath(setting: string): string {
  if (setting === 'junk') return '/junk-filter';
  if (setting === 'delivery') return '/delivery';
  const at = setting.indexOf(':');
  const id = encodeURIComponent(setting.slice(at + 1));
  const page = { entry: 'register', tray: 'trays' }[setting.slice(0, at)] ?? 'rules';
  return `/${page}/${id}`;
}

/** What a link to that setting says. */
export function settingWords(setting: string): string {
  if (setting === 'junk') return 'Open the junk filter';
  if (setting === 'delivery') return 'Open when mail is delivered';
  if (setting.startsWith('tray:')) return 'Open the tray';
  return setting.startsWith('entry:') ? 'Open the entry' : 'Open the rule';
}
