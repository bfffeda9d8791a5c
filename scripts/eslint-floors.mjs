// The import floors of docs/architecture.md as a lint rule: an import may go down or stay, never up.
import path from 'node:path';

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
  'mail',
  'conversations',
  'senders',
  'junk',
  'rules',
  'search',
  'delivery',
  'clearout',
  'agenda',
  'line',
];

/** Packages that the core may use: pure computation, without a host. */
const corePackages = [
  'zod',
  'entities',
  'tldts',
  'papaparse',
  'htmlparser2',
  'punycode',
  'iso-3166-1',
  'date-fns',
  'rrule',
  'ical.js',
  'chrono-node',
];

const packageName = (source) =>
  source
    .split('/')
    .slice(0, source.startsWith('@') ? 2 : 1)
    .join('/');
const floorOf = (file) => Object.keys(below).find((floor) => file === floor || file.startsWith(`${floor}/`));
const coreFloorOf = (file) => coreFloors.indexOf(file.split('/')[2]);

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

export const floors = { rules: { 'down-only': downOnly } };
