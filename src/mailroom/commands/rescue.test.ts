// Rescue: out of Junk, and what is safe from now on, as one command.
import { arrive, begun, good, next, placeOf } from '../testing/junkTesting';
import { changeSetup } from './changeSetup';
import { judgement } from '../questions/junkReport';
import { rescue } from './rescue';
import { mailOf } from '../testing/testing';
import { undo } from './undo';

describe('rescue', () => {
  const blocked = {
    id: 'e',
    kind: 'domain' as const,
    value: 'harbour.example',
    standing: 'blocked' as const,
    since: 0,
    why: '',
  };
  async function withWantedInJunk() {
    const mailbox = await begun();
    await changeSetup(mailbox, next(), [{ list: 'register', id: 'e', item: blocked }], 'Blocked', true);
    expect(good.every((id) => placeOf(mailbox, id) === 'junk')).toBe(true);
    return mailbox;
  }

  test.each([
    ['only this', 'this', ['inbox', 'junk', 'junk'], []],
    ['the sender', 'sender', ['inbox', 'junk', 'junk'], ['address a0@harbour.example']],
    ['the domain', 'domain', ['inbox', 'inbox', 'inbox'], ['domain harbour.example']],
  ] as const)('%s', async (_what, fromNowOn, places, entries) => {
    const mailbox = await withWantedInJunk();
    const result = await rescue(mailbox, next(), { ids: [0] }, fromNowOn, fromNowOn === 'sender');
    expect(result.ok).toBe(true);
    expect([0, 1, 2].map((id) => placeOf(mailbox, id))).toEqual(places);
    expect(
      mailbox.setup.register.filter(({ standing }) => standing === 'safe').map(({ kind, value }) => `${kind} ${value}`),
    ).toEqual(entries);
    expect(mailbox.setup.contacts.map(({ address }) => address)).toEqual(
      fromNowOn === 'sender' ? ['a0@harbour.example'] : [],
    );
    expect((await judgement(mailbox, 0))?.marked).toBe('good');
    await undo(mailbox, next(), mailbox.seq);
    expect([0, 1, 2].map((id) => placeOf(mailbox, id))).toEqual(['junk', 'junk', 'junk']);
    expect(mailbox.setup.register).toEqual([blocked]);
    mailbox.close();
  });

  test('the mailing list, from two senders', async () => {
    const mailbox = await begun();
    const list = { 'List-Id': '<crew.ferry.example>', To: 'crew@ferry.example', Subject: 'Rota' };
    const ids = await arrive(mailbox, {
      ...mailOf({ ...list, From: 'x@junk.test', 'Message-ID': '<l1@x>' }),
      place: 'junk',
    });
    await rescue(mailbox, next(), { ids }, 'list', false);
    expect(mailbox.setup.register).toMatchObject([{ kind: 'list', value: 'crew.ferry.example', standing: 'safe' }]);
    mailbox.close();
  });
});
