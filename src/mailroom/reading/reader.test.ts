// What was opened last is not taken apart again whenever the mailbox changes; deleted for good, it is not kept.
import { act } from '../commands/acts';
import { tidy } from '../commands/retention';
import { open } from '../questions/message';
import { addMessages } from '../intake/incoming';
import { incoming, openMailbox, testTime } from '../testing/testing';
import { memoryStore } from '../storage/recordStore';

const day = 86_400_000;

test('a message is read once while it is open, whatever is done to it; another, or its other form, anew', async () => {
  const clock = { now: testTime };
  const mailbox = await openMailbox(memoryStore(), () => clock.now);
  await addMessages(mailbox, [incoming(0), incoming(1)], { command: 'fill', by: 'you', says: 'Filled' });
  const readable = jest.spyOn(mailbox.raws, 'readable');
  const opened = await open(mailbox, 0, false);
  await act(mailbox, 'read', { ids: [0] }, { do: 'read', value: true });
  const again = await open(mailbox, 0, false);
  expect(readable).toHaveBeenCalledTimes(1);
  expect([opened?.row.unread, again?.row.unread]).toEqual([true, false]);
  expect(again?.blocks).toEqual(opened?.blocks);
  await open(mailbox, 0, true);
  await open(mailbox, 1, false);
  await open(mailbox, 0, false);
  expect(readable).toHaveBeenCalledTimes(4);
  await act(mailbox, 'bin', { ids: [0] }, { do: 'move', place: 'bin' });
  for (let n = 0; n < 33; n++) {
    clock.now += day;
    await mailbox.exclusive(() => tidy(mailbox));
  }
  expect(await open(mailbox, 0, false)).toBeNull();
  expect(JSON.stringify(mailbox.reader)).not.toContain('Text of 0');
});
