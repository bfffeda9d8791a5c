// A clear-out in the address: what it looks at and what it chooses, so that back, reload and a copied link keep it.
import { clearOutSchema, everythingGoes, type ClearOut } from '../../core/clearout/clearOut';
import type { View } from '../../mailroom/border/views';
import { readWhere, wherePath, type Where } from '../paths';

/** What a clear-out looks at: a view; null for all places but Junk, the Bin, Sent and Drafts. */
export interface ClearOutAt {
  of: View | null;
  choice: ClearOut;
  /** The person said that everything is meant: without that, a choice of nothing in particular is none yet. */
  whole?: boolean;
}

/** Whether anything is chosen. What is left here because it stands out chooses nothing by itself. */
export const isChosen = ({ choice, whole }: ClearOutAt): boolean =>
  whole === true || JSON.stringify({ ...choice, spare: [] }) !== JSON.stringify(everythingGoes);

/** More ticks than these do not fit an address. */
export const mostKept = 500;

const everywhere = 'everywhere';

/** The address of a view with what narrows it: a filter, an account. */
const pathOf = (view: View): string =>
  wherePath({
    view,
    message: null,
    show: view.filter?.by ?? null,
    account: view.account ?? null,
    lanes: false,
  });

/** What a place on the desk shows, as one view: of a filter what fits now. */
export const shownView = ({ view, show, account }: Where): View => ({
  ...view,
  ...(show ? { filter: { by: show, applied: null } } : {}),
  ...(account === null ? {} : { account }),
});

/** The view of an address; the Inbox where it is none's. */
function viewOf(address: string): View {
  const [path, search] = address.split('?');
  const where = readWhere(path, search);
  return where ? shownView(where) : { kind: 'place', place: 'inbox' };
}

/** The address of a clear-out; what is as it is anyway is left out. */
export function clearOutPath({ of, choice, whole }: ClearOutAt): string {
  const query = new URLSearchParams();
  query.set('of', of ? pathOf(of) : everywhere);
  const changed = Object.entries(choice).filter(
    ([key, value]) => JSON.stringify(value) !== JSON.stringify(everythingGoes[key as keyof ClearOut]),
  );
  if (whole) query.set('whole', '1');
  if (changed.length) query.set('choice', JSON.stringify(Object.fromEntries(changed)));
  return `/clear-out?${query.toString()}`;
}

/** What an address says; the Inbox, and nothing chosen, where it says nothing that can be read. */
export function readClearOut(query: URLSearchParams): ClearOutAt {
  const path = query.get('of') ?? '/inbox';
  const of = path === everywhere ? null : viewOf(path);
  let given: unknown = {};
  try {
    given = JSON.parse(query.get('choice') ?? '{}');
  } catch {
    // A spoilt address chooses as if it said nothing.
  }
  const choice = clearOutSchema.safeParse({ ...everythingGoes, ...(typeof given === 'object' ? given : {}) });
  const whole = query.get('whole') === '1' ? { whole: true } : {};
  return { of, choice: choice.success ? choice.data : everythingGoes, ...whole };
}
