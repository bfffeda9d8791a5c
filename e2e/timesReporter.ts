// Notes what each browser test took: on the clock, of the processors, in loadings of the application, and in waiting for
// what it expected. `npm run test:times` makes a table of it.
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { Reporter, TestCase, TestResult, TestStep } from '@playwright/test/reporter';
import { pagesNote, timeNote } from './notes';

interface Row {
  file: string;
  test: string;
  /** In seconds. */
  wall: number;
  cpu: number;
  waiting: number;
  /** How often the application was loaded. */
  openings: number;
  /** The pages that it was on, by the first words of their addresses. */
  pages: string[];
}

const folder = path.join(import.meta.dirname, '../.cache/times');

/** Loads the application; storage is emptied on an address without it. */
const loads = (title: string) =>
  /^(Navigate|Reload|page\.goto|page\.reload)/i.test(title) && !/nothing\.txt|about:blank|\/bare/.test(title);

export default class TimesReporter implements Reporter {
  private readonly rows: Row[] = [];
  private readonly openings = new Map<TestResult, number>();
  private readonly waiting = new Map<TestResult, number>();

  onStepEnd(_test: TestCase, result: TestResult, step: TestStep): void {
    if (step.category === 'pw:api' && loads(step.title))
      this.openings.set(result, (this.openings.get(result) ?? 0) + 1);
    const waits = step.category === 'expect' && step.parent?.category !== 'expect';
    if (waits) this.waiting.set(result, (this.waiting.get(result) ?? 0) + step.duration);
  }

  onTestEnd(test: TestCase, result: TestResult): void {
    const noted = (type: string) => result.annotations.find((one) => one.type === type)?.description ?? '';
    this.rows.push({
      file: path.relative(path.join(import.meta.dirname, '..'), test.location.file),
      test: test.titlePath().slice(3).join(' › '),
      wall: result.duration / 1000,
      cpu: Number(noted(timeNote)),
      waiting: (this.waiting.get(result) ?? 0) / 1000,
      openings: this.openings.get(result) ?? 0,
      pages: noted(pagesNote).split(' ').filter(Boolean),
    });
  }

  onEnd(): void {
    mkdirSync(folder, { recursive: true });
    writeFileSync(path.join(folder, 'browser.json'), JSON.stringify(this.rows));
  }
}
