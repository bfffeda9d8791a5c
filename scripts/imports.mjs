// Who imports whom, read from the code: for the linter (eslint-floors.mjs) and the picture in docs/architecture.md.
import { readdirSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';

const code = /\.tsx?$/;
const test = /\.(test|spec)\.tsx?$/;

/** All source files below some folders, without tests, as paths from the root with slashes. */
function sources(root, folders) {
  const out = [];
  const visit = (folder) => {
    for (const name of readdirSync(path.join(root, folder)).sort()) {
      const file = `${folder}/${name}`;
      if (statSync(path.join(root, file)).isDirectory()) visit(file);
      else if (code.test(name) && !test.test(name) && !name.endsWith('.d.ts')) out.push(file);
    }
  };
  for (const folder of folders) visit(folder);
  return out;
}

/** What a file imports of the project, types counted: paths from the root. `files`: all that there are. */
export function importsOf(file, text, files) {
  const named = ts.preProcessFile(text, true, true).importedFiles.map(({ fileName }) => fileName);
  return named.flatMap((name) => {
    if (!name.startsWith('.')) return [];
    const base = path.posix.join(path.posix.dirname(file), name);
    return [base, `${base}.ts`, `${base}.tsx`, `${base}/index.ts`].filter((one) => files.has(one)).slice(0, 1);
  });
}

/** Whether an import brings more than types. */
function bringsValues(node) {
  if (!node.moduleSpecifier) return false;
  if (ts.isExportDeclaration(node)) return !node.isTypeOnly;
  const clause = node.importClause;
  if (!clause) return true;
  if (clause.isTypeOnly) return false;
  const named = clause.namedBindings;
  return Boolean(clause.name) || !named || !ts.isNamedImports(named) || named.elements.some((one) => !one.isTypeOnly);
}

/** All files that run with an entry: what it imports, and what that does, types not counted. */
export function runsWith(root, entry) {
  const files = new Set(sources(root, ['src', 'server', 'cli', 'demo']));
  const out = new Set([entry]);
  for (const file of out) {
    const text = readFileSync(path.join(root, file), 'utf8');
    const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest);
    for (const node of source.statements)
      if ((ts.isImportDeclaration(node) || ts.isExportDeclaration(node)) && bringsValues(node))
        for (const next of importsOf(file, `import ${node.moduleSpecifier.getText(source)};`, files)) out.add(next);
  }
  return [...out];
}

/** The graph of imports: of each file those that it imports. */
export function importGraph(root, folders = ['src', 'server', 'cli', 'demo']) {
  const list = sources(root, folders);
  const files = new Set(list);
  return new Map(list.map((file) => [file, importsOf(file, readFileSync(path.join(root, file), 'utf8'), files)]));
}

/** The circles of a graph: each the names that can be reached from one another (Tarjan 1972). */
export function circlesOf(graph) {
  const order = new Map();
  const low = new Map();
  const stack = [];
  const standing = new Set();
  const out = [];
  const visit = (name) => {
    order.set(name, order.size);
    low.set(name, order.get(name));
    stack.push(name);
    standing.add(name);
    for (const next of graph.get(name) ?? []) {
      if (!order.has(next)) {
        visit(next);
        low.set(name, Math.min(low.get(name), low.get(next)));
      } else if (standing.has(next)) low.set(name, Math.min(low.get(name), order.get(next)));
    }
    if (low.get(name) !== order.get(name)) return;
    const circle = stack.splice(stack.indexOf(name));
    for (const one of circle) standing.delete(one);
    if (circle.length > 1 || (graph.get(name) ?? []).includes(name)) out.push(circle.sort());
  };
  for (const name of graph.keys()) if (!order.has(name)) visit(name);
  return out;
}

/** The graph of rooms: files taken together by what `roomOf` says of each; null leaves one out. */
export function roomGraph(graph, roomOf) {
  const rooms = new Map();
  for (const [file, imports] of graph) {
    const room = roomOf(file);
    if (room === null) continue;
    const to = rooms.get(room) ?? rooms.set(room, new Set()).get(room);
    for (const one of imports) {
      const other = roomOf(one);
      if (other !== null && other !== room) to.add(other);
    }
  }
  return new Map([...rooms].map(([room, to]) => [room, [...to].sort()]));
}
