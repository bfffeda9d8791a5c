// Taking up a setup in place of the one here: what becomes of folders and labels in which mail stands, and what differs.
import { pathsOf, putWithin, type Nested } from '../mail/nesting';
import { ruleName } from '../rules/ruleWords';
import { entryWords } from '../senders/register';
import { setupLists, type Setup } from './setup';
import type { SetupList } from './setupEdit';

/** Ids of folders or labels. */
type Ids = ReadonlySet<string>;

/** Whither the mail of what goes: to what is called the same in the setup from elsewhere. */
type Moved = ReadonlyMap<string, string>;

export interface TakenUp {
  /** The setup as it will stand here. */
  setup: Setup;
  /** Folders and labels here that the setup has under another id, by that one. */
  folders: Moved;
  labels: Moved;
  /** What isn't in the setup but stays, because mail stands in it or bears it: by name. */
  kept: { folders: string[]; labels: string[] };
}

/** One list of nested names taken up: what mail stands in is found again by its name, or stays. */
function takenList<T extends Nested>(now: readonly T[], next: readonly T[], used: Ids) {
  const nameNow = pathsOf(now);
  const nameNext = pathsOf(next);
  const nextIds = new Set(next.map(({ id }) => id));
  const byName = new Map(next.map(({ id }) => [nameNext(id), id]));
  const moved = new Map<string, string>();
  for (const { id } of now) {
    const same = byName.get(nameNow(id));
    if (!nextIds.has(id) && same !== undefined) moved.set(id, same);
  }
  // With what mail stands in stays what it stands within.
  const byId = new Map(now.map((item) => [item.id, item]));
  const staying = new Set<string>();
  const stays = (id: string | undefined) => {
    const item = byId.get(id ?? '');
    if (!item || nextIds.has(item.id) || moved.has(item.id) || staying.has(item.id)) return;
    staying.add(item.id);
    stays(item.parent);
  };
  for (const id of used) stays(id);
  const kept = now
    .filter(({ id }) => staying.has(id))
    .map((item) => putWithin(item, moved.get(item.parent ?? '') ?? item.parent));
  return { list: [...next, ...kept], moved, kept: kept.map(({ id }) => nameNow(id)) };
}

/**
 * What a setup from elsewhere comes to here. `used`: the folders in which mail stands, and the labels that it bears.
 */
export function takeUp(now: Setup, next: Setup, used: { folders: Ids; labels: Ids }): TakenUp {
  const folders = takenList(now.folders, next.folders, used.folders);
  const labels = takenList(now.labels, next.labels, used.labels);
  return {
    setup: { ...next, folders: folders.list, labels: labels.list },
    folders: folders.moved,
    labels: labels.moved,
    kept: { folders: folders.kept, labels: labels.kept },
  };
}

/** What of one list comes, changes and goes, by name; how many stay as they are. */
export interface ListDifference {
  list: SetupList;
  comes: string[];
  changes: string[];
  goes: string[];
  stays: number;
  /** Whether those that stay come in another order, where the order has a meaning. */
  reordered: boolean;
}

/** What differs about the junk filter. */
export const junkFields = [
  'strictness',
  'keepDays',
  'toBin',
  'contactsSafe',
  'writtenToSafe',
  'shipped',
  'carried',
] as const;
export type JunkField = (typeof junkFields)[number];

/** What differs about delivery. */
export const deliveryFields = ['morning', 'zone', 'hold', 'letThrough', 'timetable', 'quiet', 'answer'] as const;
export type DeliveryField = (typeof deliveryFields)[number];

export interface SetupDifference {
  lists: ListDifference[];
  junk: JunkField[];
  delivery: DeliveryField[];
}

/** What an item of a list is called, so that the same one is found in another setup. */
function namers(setup: Setup): { [L in SetupList]: (item: Setup[L][number]) => string } {
  const folder = pathsOf(setup.folders);
  const label = pathsOf(setup.labels);
  return {
    folders: ({ id }) => folder(id),
    labels: ({ id }) => label(id),
    register: (entry) => entryWords(entry),
    accounts: ({ address }) => address,
    searches: ({ name }) => name,
    lanes: ({ of, name }) => `${name} (${of})`,
    left: ({ id }) => id,
    told: ({ by, value }) => (by === 'label' ? label(value) : value),
    contacts: ({ name, address }) => (name ? `${name} <${address}>` : address),
    trays: ({ name }) => name,
    blocks: ({ name }) => name,
    stamps: ({ name }) => name,
    rules: (rule) => ruleName(rule, setup),
  };
}

/** In which lists the order decides: the first rule that fits, the first label that inks. */
const inOrder: ReadonlySet<SetupList> = new Set(['rules', 'stamps', 'labels', 'lanes', 'trays']);

function listDifference<L extends SetupList>(list: L, now: Setup, next: Setup): ListDifference {
  const nameNow = namers(now)[list];
  const nameNext = namers(next)[list];
  // Ids may differ between two setups that mean the same; what something stands within is part of its name.
  const content = (item: Setup[L][number], name: string) => JSON.stringify([name, { ...item, id: '', parent: '' }]);
  const difference: ListDifference = { list, comes: [], changes: [], goes: [], stays: 0, reordered: false };
  const byId = new Map(now[list].map((item) => [item.id, item]));
  const byName = new Map<string, Setup[L][number]>();
  for (const item of [...now[list]].reverse()) byName.set(nameNow(item), item);
  const met = new Set<string>();
  const stayed: string[] = [];
  for (const item of next[list]) {
    const named = byName.get(nameNext(item));
    const old = byId.get(item.id) ?? (named && !met.has(named.id) ? named : undefined);
    if (!old) difference.comes.push(nameNext(item));
    else if (content(old, nameNow(old)) !== content(item, nameNext(item))) difference.changes.push(nameNext(item));
    else stayed.push(old.id);
    if (old) met.add(old.id);
  }
  for (const item of now[list]) if (!met.has(item.id)) difference.goes.push(nameNow(item));
  const staying = new Set(stayed);
  const before = now[list].filter(({ id }) => staying.has(id)).map(({ id }) => id);
  difference.stays = stayed.length;
  difference.reordered = inOrder.has(list) && before.join(' ') !== stayed.join(' ');
  return difference;
}

/** How a setup differs from the one here. */
export function setupDifference(now: Setup, next: Setup): SetupDifference {
  const lists = (Object.keys(setupLists) as SetupList[]).map((list) => listDifference(list, now, next));
  return {
    lists,
    junk: junkFields.filter((field) => now.junk[field] !== next.junk[field]),
    delivery: deliveryFields.filter(
      (field) => JSON.stringify(now.delivery[field]) !== JSON.stringify(next.delivery[field]),
    ),
  };
}
