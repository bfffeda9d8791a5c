// A conversation about a berth, for the browser tests that need one.
import { expect, type Page } from '@playwright/test';
import { type Mail, openWith, rows } from './desk';

export const ann = 'Ann <ann@x.test>';
export const bob = 'Bob <bob@x.test>';
export const me = 'Me <me@y.test>';
export const question = 'Is berth 2 free on Tuesday?';
export const yes = `Yes, from ten.\n\nAnn wrote:\n> ${question}\n`;

/** Three messages about a berth, two about rope; ropes are the newest. */
export const five: Mail[] = [
  { id: 'b1', subject: 'Berth 2', text: question },
  { id: 'b2', subject: 'Re: Berth 2', from: bob, answers: ['b1'], text: yes },
  { id: 'r1', subject: 'Rope' },
  {
    id: 'b3',
    subject: 'Re: Berth 2',
    answers: ['b1', 'b2'],
    text: `Thanks!\n\n> ${yes.trim().replace(/\n/g, '\n> ')}\n-- \nAnn`,
  },
  { id: 'r2', subject: 'Re: Rope', from: bob, answers: ['r1'] },
];

export const members = (page: Page) => page.getByRole('list', { name: 'Messages of the conversation' }).locator('> li');
export const conversations = (page: Page) => page.getByRole('button', { name: 'Conversations' });

/** The conversation about the berth, open in a grouped Inbox. */
export async function openBerth(page: Page, more: Mail[] = []): Promise<void> {
  await openWith(page, [...five, ...more]);
  await conversations(page).click();
  await rows(page).filter({ hasText: 'Berth' }).click();
  await expect(page.getByRole('toolbar', { name: 'Conversation' })).toBeVisible();
}
