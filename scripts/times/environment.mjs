// The world in which unit tests run: Jest's own for Node.js, with a global object that nobody watches. In Jest's, each
// `Math` and `Uint8Array` of a loop is looked up through a proxy; code that computes took several times as long as it does
// in the application. It also notes what each suite took of the processors (`npm run test:times` makes a table of it).
import { appendFileSync, mkdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import vm from 'node:vm';
import { TestEnvironment } from 'jest-environment-node';

/** Seconds of processor time of this process, threads included, and of what it began and waited for (proc_pid_stat(5)). */
function processorTime() {
  const stat = readFileSync('/proc/self/stat', 'utf8');
  const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
  return fields.slice(11, 15).reduce((sum, ticks) => sum + Number(ticks) / 100, 0);
}

export default class WatchedByNobody extends TestEnvironment {
  constructor(config, context) {
    const { createContext } = vm;
    vm.createContext = () => createContext(vm.constants.DONT_CONTEXTIFY);
    try {
      super(config, context);
    } finally {
      vm.createContext = createContext;
    }
    const { rootDir } = config.projectConfig;
    this.suite = path.relative(rootDir, context.testPath);
    this.notes = path.join(rootDir, '.cache/times');
    this.began = process.platform === 'linux' ? { wall: Date.now(), cpu: processorTime() } : null;
  }

  async teardown() {
    if (this.began) {
      const { wall, cpu } = this.began;
      const row = { suite: this.suite, wall: (Date.now() - wall) / 1000, cpu: processorTime() - cpu };
      mkdirSync(this.notes, { recursive: true });
      appendFileSync(path.join(this.notes, 'unit.jsonl'), `${JSON.stringify(row)}\n`);
    }
    await super.teardown();
  }
}
