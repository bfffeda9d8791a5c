// Looking through all envelopes once they are in memory: which messages are damaged, and of which the bytes are gone.
import { bigMessage } from '../storage/keys';
import type { Stock } from '../storage/stock';
import type { Stored } from '../storage/stored';
import { messages } from '../../core/text/sentences';
import { turn } from '../time/turn';
import { expunged } from './internedTables';
import type { MailState } from './mailState';

/**
 * Notes the damaged messages. Comes back with how many of the first `atOpening` have a record of their own that is not
 * there any more.
 */
export async function lookThrough(
  { columns, envelopes, damaged }: Pick<MailState, 'columns'> & Pick<Stored, 'envelopes'> & { damaged: Set<number> },
  stock: Stock,
  atOpening: number,
): Promise<number> {
  const { count } = columns;
  let lost = 0;
  for (let id = 0; id < count; id++) {
    const { damage, size } = envelopes.get(id);
    if (damage !== null) damaged.add(id);
    if (size > bigMessage && !stock.big.has(id) && columns.place[id] !== expunged && id < atOpening) lost++;
    // All at once would hold up whoever asks for rows meanwhile.
    if (id % 512 === 511) await turn();
  }
  return lost;
}

/** That the bytes of so many messages are gone. */
export const lostWords = (count: number): string =>
  `The bytes of ${messages(count)} are missing from storage: what a row says of them is all that is left. All others can be read and saved.`;
