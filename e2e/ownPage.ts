// Pages that are for one test alone: something was done to them that can't be taken back.
import type { Page } from '@playwright/test';

const own = new WeakSet<Page>();

export const keepNoMore = (page: Page): void => void own.add(page);

/** Whether the next test gets another page. */
export const isOwn = (page: Page): boolean => own.has(page);
