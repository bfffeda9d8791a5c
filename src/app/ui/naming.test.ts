import { emptySetup, type Setup } from '../../core/line/setup';
import type { View } from '../../mailroom/border/views';
import { conversationWords, narrowedName, viewExists, viewName } from './naming';
import { count, messages } from '../../core/text/sentences';

test.each([
  [0, '0'],
  [999, '999'],
  [1_000, '1,000'],
  [12_345, '12,345'],
  [1_234_567, '1,234,567'],
])('%i is written %s', (n, text) => {
  expect(count(n)).toBe(text);
  expect(count(n)).toBe(n.toLocaleString('en'));
});

test('every number of a conversation says what it counts, and none that is nothing is said', () => {
  const none = { received: 1, own: 0, unread: 1, flagged: 0, late: 0, attachments: 2 };
  expect(conversationWords(none)).toBe('1 received');
  expect(conversationWords({ ...none, own: 2, flagged: 3, late: 1 })).toBe('1 received · 2 own · 3 flagged · 1 late');
  expect(messages(1)).toBe('1 message');
});

describe('what a view is called', () => {
  const setup: Setup = {
    ...emptySetup,
    folders: [{ id: 'f', name: 'Tides' }],
    labels: [{ id: 'l', name: 'Alarm', ink: 'sea' }],
    searches: [
      { id: 's', name: 'Fuel to read', query: 'fuel unseen', within: null },
      { id: 't', name: 'Fuel of tides', query: 'fuel unseen', within: { kind: 'place', place: 'folder:f' } },
    ],
  };
  test.each<[View, string, boolean]>([
    [{ kind: 'place', place: 'inbox' }, 'Inbox', true],
    [{ kind: 'place', place: 'folder:f' }, 'Tides', true],
    [{ kind: 'place', place: 'folder:gone' }, 'Folder', false],
    [{ kind: 'label', label: 'l' }, 'Alarm', true],
    [{ kind: 'label', label: 'gone' }, 'Label', false],
    [{ kind: 'damaged' }, 'Damaged', true],
    [{ kind: 'found', query: 'fuel', within: null }, 'Found everywhere', true],
    [{ kind: 'found', query: 'fuel', within: { kind: 'label', label: 'l' } }, 'Found in Alarm', true],
    [{ kind: 'found', query: 'fuel', within: { kind: 'label', label: 'gone' } }, 'Found in Label', false],
    // A saved search gives it its name, by the query and where that is asked.
    [{ kind: 'found', query: 'fuel unseen', within: null }, 'Fuel to read', true],
    [{ kind: 'found', query: 'fuel unseen', within: { kind: 'place', place: 'folder:f' } }, 'Fuel of tides', true],
    [{ kind: 'found', query: 'fuel unseen', within: { kind: 'place', place: 'inbox' } }, 'Found in Inbox', true],
    // One application of a query has no other name.
    [{ kind: 'found', query: 'fuel unseen', within: null, applied: '3' }, 'Fuel to read', true],
  ])('%j: %s', (view, name, exists) => {
    if (exists || view.kind !== 'place') expect(viewName(view, setup)).toBe(name);
    expect(viewExists(view, setup)).toBe(exists);
  });
  test('with what narrows it; an account that is gone is said to be', () => {
    const accounts = [{ id: 'o', name: 'Office', address: 'o@x.test' }];
    const named = (view: View) => narrowedName(view, { ...setup, accounts });
    const inbox: View = { kind: 'place', place: 'inbox' };
    expect(named(inbox)).toBe('Inbox');
    expect(named({ ...inbox, filter: { by: 'unread', applied: null }, account: 'o' })).toBe(
      'Inbox: Unread, the account Office',
    );
    expect(named({ ...inbox, account: '' })).toBe('Inbox: to none of the accounts');
    expect(named({ ...inbox, account: 'p' })).toBe('Inbox: an account that is gone');
    expect(named({ kind: 'found', query: 'fuel', within: null })).toBe('Found by fuel');
  });
});
