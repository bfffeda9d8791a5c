// The import floors of docs/architecture.md as lint rules: an import may go down or stay, never up, and never in a circle.
import path from 'node:path';
import { circlesOf, importGraph, importsOf } from './imports.mjs';

/** What each floor may import from, besides itself. The folders not named here (e2e, bench, scripts) may see all. */
const below = {
  'src/core': [],
  'src/mailroom': ['src/core'],
  'src/app': ['src/core', 'src/mailroom'],
  demo: ['src/core'],
  server: ['src/core', 'demo'],
  cli: ['src/core', 'demo'],
};

/** The floors inside the core, lowest first. */
const coreFloors = [
  'data',
  'text',
  'mail',
  'writing',
  'agenda',
  'effects',
  'stamps',
  'conversations',
  'senders',
  'contacts',
  'junk',
  'rules',
  'search',
  'delivery',
  'clearout',
  'line',
];

/** The rooms of the mailroom, and which others each may import from. What stands beside them may see all. */
const rooms = {
  border: [],
  time: [],
  storage: ['time'],
  reading: ['time', 'storage'],
  state: ['time', 'storage'],
  junk: ['time', 'storage', 'reading', 'state'],
  search: ['border', 'time', 'storage', 'reading', 'state', 'junk'],
  // Questions only read: they see neither what commands do nor what comes in.
  questions: ['border', 'time', 'storage', 'reading', 'state', 'junk', 'search'],
  intake: ['border', 'time', 'storage', 'reading', 'state', 'junk', 'search'],
  commands: ['border', 'time', 'storage', 'reading', 'state', 'junk', 'search', 'intake'],
  post: ['border', 'time', 'storage', 'reading', 'state', 'junk', 'search', 'questions', 'intake', 'commands'],
  service: [
    'border',
    'time',
    'storage',
    'reading',
    'state',
    'junk',
    'search',
    'questions',
    'intake',
    'commands',
    'post',
  ],
};

/** Packages that the core may use: pure computation, without a host. */
const corePackages = [
  'zod',
  'tldts',
  'd3-dsv',
  'htmlparser2',
  'punycode',
  'iso-3166-1',
  'date-fns',
  'temporal-polyfill',
  'rrule',
  'ical.js',
  'chrono-node',
  'windows-iana',
];

const packageName = (source) =>
  source
    .split('/')
    .slice(0, source.startsWith('@') ? 2 : 1)
    .join('/');
const floorOf = (file) => Object.keys(below).find((floor) => file === floor || file.startsWith(`${floor}/`));
const coreFloorOf = (file) => coreFloors.indexOf(file.split('/')[2]);
const roomOf = (file) => {
  const [src, mailroom, room, inside] = file.split('/');
  return src === 'src' && mailroom === 'mailroom' && inside !== undefined ? room : null;
};
/** Only tests may see what helps them. */
const testing = 'src/mailroom/testing/';

const downOnly = {
  meta: {
    type: 'problem',
    docs: { description: 'imports go down the floors only' },
    messages: {
      up: '{{from}} may not import from {{to}}: imports go down the floors only (docs/architecture.md).',
      host: 'The core may not import {{name}}: it knows no screen, storage, clock or network.',
    },
    schema: [],
  },
  create(context) {
    const file = path.relative(context.cwd, context.filename).split(path.sep).join('/');
    const from = floorOf(file);
    const test = /\.test\.tsx?$/.test(file);
    // A test may hold two floors against each other; only the core's stay below with the code that they test.
    if (!from || (test && from !== 'src/core')) return {};
    const check = (node, source) => {
      if (!source.startsWith('.')) {
        if (from === 'src/core' && !test && !corePackages.includes(packageName(source)))
          context.report({ node, messageId: 'host', data: { name: source } });
        return;
      }
      const target = path.posix.join(path.posix.dirname(file), source);
      const to = floorOf(target);
      if (!to) {
        if (!test && target.startsWith('src/')) context.report({ node, messageId: 'up', data: { from, to: target } });
        return;
      }
      if (to !== from && !below[from].includes(to)) context.report({ node, messageId: 'up', data: { from, to } });
      if (!test && target.startsWith(testing) && !file.startsWith(testing))
        context.report({ node, messageId: 'up', data: { from: file, to: 'what helps the tests' } });
      const [room, other] = [roomOf(file), roomOf(target)];
      if (
        !test &&
        room in rooms &&
        target.startsWith('src/mailroom/') &&
        room !== other &&
        !rooms[room].includes(other)
      )
        context.report({ node, messageId: 'up', data: { from: `mailroom/${room}`, to: target } });
      if (from === 'src/core' && to === 'src/core' && coreFloorOf(file) >= 0 && coreFloorOf(target) > coreFloorOf(file))
        context.report({
          node,
          messageId: 'up',
          data: { from: `core/${file.split('/')[2]}`, to: `core/${target.split('/')[2]}` },
        });
    };
    const visit = (node) => node.source && check(node, String(node.source.value));
    return {
      ImportDeclaration: visit,
      ExportNamedDeclaration: visit,
      ExportAllDeclaration: visit,
      ImportExpression: (node) => typeof node.source.value === 'string' && check(node, node.source.value),
    };
  },
};

let graph = null;

/** A file that can be reached from what it imports, types counted. */
const noCircle = {
  meta: {
    type: 'problem',
    docs: { description: 'no file imports itself, whatever way it goes' },
    messages: { circle: 'These files import each other: {{files}}.' },
    schema: [],
  },
  create(context) {
    const file = path.relative(context.cwd, context.filename).split(path.sep).join('/');
    graph ??= importGraph(context.cwd);
    if (!graph.has(file)) return {};
    return {
      Program(node) {
        const now = new Map(graph);
        now.set(file, importsOf(file, context.sourceCode.text, new Set(graph.keys())));
        const circle = circlesOf(now).find((files) => files.includes(file));
        if (circle) context.report({ node, messageId: 'circle', data: { files: circle.join(', ') } });
      },
    };
  },
};

export const floors = { rules: { 'down-only': downOnly, 'no-circle': noCircle } };
