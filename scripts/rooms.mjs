// The picture of the rooms in docs/architecture.md, made from the imports. `node scripts/rooms.mjs` writes it anew.
import { readFileSync, writeFileSync } from 'node:fs';
import { importGraph, roomGraph } from './imports.mjs';

const root = new URL('..', import.meta.url).pathname;
const file = `${root}docs/architecture.md`;
const [begins, ends] = ['<!-- rooms: made by scripts/rooms.mjs -->\n', '<!-- end of rooms -->'];

/** The rooms of a floor: the folders in it; what lies beside them is left out. */
const roomsOf = (floor) => (path) => {
  const [src, its, room, inside] = path.split('/');
  return src === 'src' && its === floor && inside !== undefined && room !== 'testing' ? room : null;
};

/** How high each room stands: one above the highest that it imports from. */
function heights(rooms) {
  const height = new Map();
  const of = (room) => {
    if (!height.has(room)) height.set(room, Math.max(0, ...rooms.get(room).map((one) => of(one) + 1)));
    return height.get(room);
  };
  for (const room of rooms.keys()) of(room);
  return height;
}

/** A floor as lines, the highest rooms first: each with those that it imports from. */
function drawn(graph, floor) {
  const rooms = roomGraph(graph, roomsOf(floor));
  const height = heights(rooms);
  const files = (room) => [...graph.keys()].filter((path) => roomsOf(floor)(path) === room).length;
  const width = Math.max(...[...rooms.keys()].map((room) => room.length));
  return [...rooms]
    .sort(([a], [b]) => height.get(b) - height.get(a) || (a < b ? -1 : 1))
    .map(([room, to]) => {
      const below = to.sort((a, b) => height.get(b) - height.get(a) || (a < b ? -1 : 1));
      return `${String(height.get(room)).padStart(2)}  ${room.padEnd(width)}  ${String(files(room)).padStart(3)}  ${below.length ? `─▶ ${below.join(', ')}` : ''}`.trimEnd();
    });
}

/** The picture as it is now. */
export function picture() {
  const graph = importGraph(root);
  const floors = ['mailroom', 'core'].map((floor) => [`src/${floor}/`, ...drawn(graph, floor)].join('\n'));
  return `\`\`\`\n${floors.join('\n\n')}\n\`\`\`\n`;
}

/** The page with the picture in it. */
export function withPicture(page) {
  const [from, to] = [page.indexOf(begins) + begins.length, page.indexOf(ends)];
  if (to < from) throw new Error('docs/architecture.md has no place for the picture of the rooms.');
  return `${page.slice(0, from)}\n${picture()}\n${page.slice(to)}`;
}

if (process.argv[1]?.endsWith('rooms.mjs')) writeFileSync(file, withPicture(readFileSync(file, 'utf8')));
