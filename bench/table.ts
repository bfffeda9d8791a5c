// The table of what was measured: a row for each figure, a column for each mailbox, and how each grows.
import type { BrowserFigures } from './browser';
import type { NodeFigures } from './node';
import type { ThreadingFigures } from './threading';

/** What was measured on one mailbox. */
export interface Column {
  name: string;
  node: NodeFigures;
  threading: ThreadingFigures;
  /** Without what came to no end. */
  browser: (Partial<BrowserFigures> & { python?: number }) | null;
}

type Value = number | null | undefined;
type Line = [name: string, as: keyof typeof units, value: (c: Column) => Value];

const whole = (n: number): string => Math.round(n).toLocaleString('en');
/** How a figure is written. */
const units = {
  rate: (n: number) => `${whole(n)}/s`,
  ms: (n: number) => `${whole(n)} ms`,
  fineMs: (n: number) => `${n.toFixed(3)} ms`,
  us: (n: number) => `${n.toFixed(1)} µs`,
  mb: (n: number) => `${whole(n)} MB`,
  ratio: (n: number) => `${n.toFixed(2)} x`,
  share: (n: number) => `${(n * 100).toFixed(0)} %`,
};

const of = (a: Value, b: Value): Value => (a && b ? a / b : null);
/** A line of what was measured in Chromium. */
const inChromium = (name: string, figure: keyof BrowserFigures, as: Line[1] = 'ms'): Line => [
  `  ${name}`,
  as,
  (c) => c.browser?.[figure],
];
const importRate = (c: Column): Value => of(c.node.messages * 1_000, c.browser?.import);

const lines: Line[] = [
  ['Node.js: file to stored and listed', 'rate', (c) => c.node.import],
  ['  postal-mime alone', 'rate', (c) => c.node.postalMime],
  ['  Python mailbox + email', 'rate', (c) => c.node.python],
  ['  of postal-mime’s rate', 'ratio', (c) => of(c.node.import, c.node.postalMime)],
  ['  of Python’s rate (goal 0.9 of real mail, 1.5 at 100,000)', 'ratio', (c) => of(c.node.import, c.node.python)],
  ['Threading: all', 'ms', (c) => c.threading.all],
  ['  messages a second', 'rate', (c) => c.threading.rate],
  ['  Perl’s Mail::Thread', 'rate', (c) => c.threading.perl],
  ['  of its rate (goal 20)', 'ratio', (c) => of(c.threading.rate, c.threading.perl)],
  ['  one more message (goal 1 ms)', 'fineMs', (c) => c.threading.oneMore],
  ['Rules: dry run of 10', 'ms', (c) => c.node.rules.dryRun[10]],
  ['  of 50 (goal 1,000 ms)', 'ms', (c) => c.node.rules.dryRun[50]],
  ['  of 200', 'ms', (c) => c.node.rules.dryRun[200]],
  ['  one message by 50 (goal 50 µs)', 'us', (c) => c.node.rules.decide],
  ['  preview of one of 50, a word being typed (goal 150 ms)', 'ms', (c) => c.node.rules.preview],
  ['  the same, a phrase', 'ms', (c) => c.node.rules.phrase],
  ['A list by subject: first rows', 'ms', (c) => c.node.order.first],
  ['  again, after an act (goal 100 ms)', 'ms', (c) => c.node.order.again],
  ['  text index, of the import’s time (goal 33 %)', 'share', (c) => c.node.indexing],
  ['Chromium: file to stored and shown', 'rate', importRate],
  ['  Python mailbox + email, right before it', 'rate', (c) => c.browser?.python],
  [
    '  of its rate (goal 1.0 of real mail, 1.5 at 100,000)',
    'ratio',
    (c) => of(importRate(c), c.browser?.python ?? c.node.python),
  ],
  inChromium('longest freeze of the page', 'longestFreeze'),
  inChromium('cold open to first rows (goal 800 ms at 100,000, 1,200 at 500,000)', 'coldOpen'),
  inChromium('open to a dry run over all of it', 'allInMemory'),
  inChromium('change of place', 'changePlace'),
  inChromium('filter to painted rows (goal 100 ms)', 'filter'),
  inChromium('group all to painted rows', 'group'),
  inChromium('open a conversation of 500 (goal 300 ms)', 'openLong'),
  inChromium('longest frame, scrolled by wheel (goal 50 ms)', 'wheel'),
  inChromium('the same, a whole screen each frame', 'scroll'),
  inChromium('archive half (goal 300 ms)', 'archiveHalf'),
  inChromium('undo that', 'undoHalf'),
  inChromium('first of what a word finds after opening (goal 1,000 ms at 100,000, 3,000 at 500,000)', 'findFirst'),
  inChromium('until all of it is found', 'findWhole'),
  inChromium('find a word, Enter to painted rows', 'find'),
  inChromium('clear-out of six of ten (goal 300 ms)', 'clearOut'),
  inChromium('undo that', 'clearOutUndo'),
  inChromium('order by subject, the first time', 'sortFirst'),
  inChromium('again', 'sort'),
  inChromium('to the last row', 'lastRow'),
  inChromium('save the Inbox as one .mbox', 'save'),
  inChromium('what of the Inbox stands whole elsewhere (goal 30 s)', 'redundant'),
  inChromium('asked once more (goal 1,000 ms)', 'redundantAgain'),
  inChromium('3,000 judged once the filter is on (goal 1,000 ms)', 'judge'),
  inChromium('the same after a reload, from the page’s address', 'judgeAgain'),
  inChromium('memory of the page’s process at its most (goal 1,200 MB)', 'memoryPeak', 'mb'),
  inChromium('at rest (goal 900 MB)', 'memory', 'mb'),
];

const isNumber = (value: Value): value is number => typeof value === 'number' && Number.isFinite(value);

/**
 * How a figure grows from the smallest mailbox to the largest, as a power of their size: n^1.0 is in step with it, n^0.0 is
 * the same at any size. Of rates the time that all of it takes.
 */
function growth([, as, value]: Line, sizes: readonly Column[]): string {
  const [first, last] = [sizes[0], sizes.at(-1)];
  if (!last || first === last || as === 'ratio' || as === 'share') return '';
  const cost = (c: Column): number => {
    const its = value(c);
    if (!isNumber(its) || its <= 0) return NaN;
    return as === 'rate' ? c.node.messages / its : its;
  };
  const power = Math.log(cost(last) / cost(first)) / Math.log(last.node.messages / first.node.messages);
  return Number.isFinite(power) ? `n^${power.toFixed(1)}` : '';
}

/** The table in plain characters. The first column is the real corpus, the others are demo mailboxes from small to large. */
export function tableOf(columns: readonly Column[]): string {
  const sizes = columns.slice(1);
  const width = Math.max(...lines.map(([name]) => name.length));
  const row = (name: string, cells: string[]) =>
    [name.padEnd(width), ...cells.map((cell) => cell.padStart(16))].join('');
  return [
    row('', [...columns.map((c) => c.name), 'grows']),
    row('messages', [...columns.map((c) => whole(c.node.messages)), '']),
    ...lines.map((line) => {
      const [name, as, value] = line;
      const cells = columns.map((c) => {
        const its = value(c);
        return isNumber(its) ? units[as](its) : '-';
      });
      return row(name, [...cells, growth(line, sizes)]);
    }),
  ].join('\n');
}
