// A setup taken up over mail that stands in folders and bears labels: none of it is out of reach afterwards, and Undo
// brings all back.
import { emptySetup } from '../../core/line/setup';
import { act } from './acts';
import { changeSetup } from './changeSetup';
import { importSetup, readSetup } from './setupFile';
import { undo } from './undo';
import { overview } from '../questions/overview';
import { fill, openMailbox, stateOf } from '../testing/testing';

test('mail in a folder that the file has under another id goes along; what the file lacks stays; undone as one', async () => {
  const mailbox = await openMailbox();
  await fill(mailbox, 6);
  await changeSetup(
    mailbox,
    'made',
    [
      { list: 'folders', id: 'w', item: { id: 'w', name: 'Weather' } },
      { list: 'folders', id: 'o', item: { id: 'o', name: 'Own' } },
      { list: 'labels', id: 'u', item: { id: 'u', name: 'Urgent', ink: 'sea' } },
    ],
    'Made',
    false,
  );
  await act(mailbox, 'a', { ids: [0, 1] }, { do: 'move', place: 'folder:w' });
  await act(mailbox, 'b', { ids: [2] }, { do: 'move', place: 'folder:o' });
  await act(mailbox, 'c', { ids: [3] }, { do: 'label', label: 'u', value: true });
  const before = stateOf(mailbox);
  const file = JSON.stringify({
    ...emptySetup,
    folders: [{ id: 'W', name: 'Weather' }],
    labels: [{ id: 'U', name: 'Urgent', ink: 'sea' }],
  });
  expect(readSetup(mailbox, file)).toMatchObject({ ok: true, kept: { folders: ['Own'], labels: [] } });
  const outcome = await importSetup(mailbox, 'take', file);
  expect(outcome).toMatchObject({ ok: true });
  const held = () => {
    const { places, labels } = overview(
      mailbox,
      { on: false, lastChecked: null, arrived: 0, error: null, perMinute: 0, paused: false },
      0,
    );
    return Object.fromEntries([...places.map((p) => [p.place, p.total]), ...labels.map((l) => [l.label, l.total])]);
  };
  expect(held()).toMatchObject({ 'folder:W': 2, 'folder:o': 1, U: 1, inbox: 3 });
  if (!outcome.ok || outcome.receipt.seq === null) throw new Error('not taken up');
  await undo(mailbox, 'back', outcome.receipt.seq);
  expect(stateOf(mailbox)).toEqual(before);
});

test('what is no setup is said, and nothing is changed', async () => {
  const mailbox = await openMailbox();
  expect(readSetup(mailbox, '{')).toMatchObject({
    ok: false,
    error: expect.stringMatching(/^This is no setup/) as string,
  });
});
