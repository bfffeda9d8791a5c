// Where the person is, in the address: a view, and perhaps an open message.
import type { Place } from '../core/mail/place';
import { fixedPlaces } from '../core/mail/place';
import type { View } from '../mailroom/api';

/** The address of a view, with a message open in it or not: `/inbox`, `/folder/weather/m/12`. */
export function viewPath(view: View, message?: number | null): string {
  const base =
    view.kind === 'label'
      ? `/label/${encodeURIComponent(view.label)}`
      : view.kind === 'damaged'
        ? '/damaged'
        : view.place.startsWith('folder:')
          ? `/folder/${encodeURIComponent(view.place.slice(7))}`
          : `/${view.place}`;
  return message === null || message === undefined ? base : `${base}/m/${message}`;
}

/** The view and message of an address; null where it is no view. */
export function readPath(path: string): { view: View; message: number | null } | null {
  const [first, ...rest] = path.split('/').filter(Boolean).map(decodeURIComponent);
  let view: View | null = null;
  if (fixedPlaces.includes(first as (typeof fixedPlaces)[number])) view = { kind: 'place', place: first as Place };
  else if (first === 'damaged') view = { kind: 'damaged' };
  else if (first === 'folder' && rest.length) view = { kind: 'place', place: `folder:${rest.shift()}` };
  else if (first === 'label' && rest.length) view = { kind: 'label', label: rest.shift() ?? '' };
  if (!view) return null;
  if (rest.length === 0) return { view, message: null };
  const id = Number(rest[1]);
  return rest[0] === 'm' && Number.isInteger(id) && id >= 0 ? { view, message: id } : null;
}

/** The address of the setting that a trace names: `entry:ID` or `rule:ID`. */
export function settingPath(setting: string): string {
  const at = setting.indexOf(':');
  const id = encodeURIComponent(setting.slice(at + 1));
  return setting.startsWith('entry:') ? `/register/${id}` : `/rules/${id}`;
}
