// How undoing an entry of the Logbook is called: undoing an undo does the thing again, and undoing that undoes it.

const prefixes = { undid: 'Undid: ', again: 'Did again: ' } as const;

/** What an entry did, without what it says of undoing; and whether undoing it would do that again. */
export function undoOf(says: string, isUndo: boolean): { what: string; again: boolean } {
  if (!isUndo) return { what: says, again: false };
  const again = says.startsWith(prefixes.undid);
  const prefix = again ? prefixes.undid : says.startsWith(prefixes.again) ? prefixes.again : '';
  return { what: says.slice(prefix.length), again };
}

/** What the Logbook says once an entry is undone. */
export function undoneWords(says: string, isUndo: boolean): string {
  const { what, again } = undoOf(says, isUndo);
  return `${again ? prefixes.again : prefixes.undid}${what}`;
}
