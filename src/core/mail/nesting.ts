// Nesting: folders and labels stand in a tree, each by the id of what it stands within.

/** What has a name and may stand within another of its kind. */
export interface Nested {
  id: string;
  name: string;
  parent?: string;
}

/** Deeper than this nobody finds anything. */
export const deepestNest = 8;

/** One of a tree, with how deep it stands: 0 at the top. */
export interface Branch<T> {
  item: T;
  depth: number;
}

/** All in the order in which a tree is read: each before what stands within it, else in the order of the list. */
export function inTree<T extends Nested>(list: readonly T[]): Branch<T>[] {
  const within = new Map<string | undefined, T[]>();
  const ids = new Set(list.map((item) => item.id));
  for (const item of list) {
    // What stands within something that is gone stands at the top.
    const parent = item.parent !== undefined && ids.has(item.parent) ? item.parent : undefined;
    within.set(parent, [...(within.get(parent) ?? []), item]);
  }
  const out: Branch<T>[] = [];
  const visit = (parent: string | undefined, depth: number) => {
    for (const item of within.get(parent) ?? []) {
      out.push({ item, depth });
      if (depth < deepestNest) visit(item.id, depth + 1);
    }
  };
  visit(undefined, 0);
  return out;
}

/** Tells the names from the top down to each: `Weather / Storms`; its id where it is gone. */
export function pathsOf(list: readonly Nested[]): (id: string) => string {
  // Of two with one id the first counts.
  const byId = new Map([...list].reverse().map((item) => [item.id, item]));
  return (id) => {
    const names: string[] = [];
    for (let at = byId.get(id); at && names.length <= deepestNest; at = byId.get(at.parent ?? ''))
      names.unshift(at.name);
    return names.length ? names.join(' / ') : id;
  };
}

/** What each is called where all stand together: its name, or its path where another has that name, too. */
export function namesApart(list: readonly Nested[]): (id: string) => string {
  const path = pathsOf(list);
  const times = new Map<string, number>();
  for (const { name } of list) times.set(name.toLowerCase(), (times.get(name.toLowerCase()) ?? 0) + 1);
  const names = new Map(list.map(({ id, name }) => [id, times.get(name.toLowerCase()) === 1 ? name : path(id)]));
  return (id) => names.get(id) ?? id;
}

/** The names from the top down to one: `Weather / Storms`; its id where it is gone. */
export const pathOf = (list: readonly Nested[], id: string): string => pathsOf(list)(id);

/** Whether one stands within another, however deep, or is it. */
export function standsWithin(list: readonly Nested[], id: string, other: string): boolean {
  const seen = new Set<string>();
  for (let at: string | undefined = id; at !== undefined && !seen.has(at);) {
    if (at === other) return true;
    seen.add(at);
    const now: string = at;
    at = list.find((item) => item.id === now)?.parent;
  }
  return false;
}

/** What is wrong with a tree: a circle, or something too deep; null where nothing is. */
export function nestingTrouble(list: readonly Nested[]): { at: number; says: string } | null {
  const parents = new Map(list.map((item) => [item.id, item.parent]));
  for (const [at, item] of list.entries()) {
    if (item.parent !== undefined && !parents.has(item.parent))
      return { at, says: `there is none with the id “${item.parent}” for “${item.name}” to stand within` };
    let depth = 0;
    for (let up = item.parent; up !== undefined; up = parents.get(up)) {
      if (up === item.id) return { at, says: `“${item.name}” would stand within itself` };
      if (++depth > deepestNest) return { at, says: `“${item.name}” stands deeper than ${deepestNest} within others` };
    }
  }
  return null;
}

/** An item put within another, or at the top. */
export function putWithin<T extends Nested>(item: T, parent: string | undefined): T {
  const next = { ...item };
  delete next.parent;
  return parent === undefined ? next : { ...next, parent };
}
