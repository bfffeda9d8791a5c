// Takes messages apart where it is called: for Node.js and for tests, which have no workers.
import type { Parsing } from './parsePool';
import { readBatch } from './readMessages';
import { readHere } from './readings';

export const here: Parsing = {
  parse: async (messages, form, judged) => ({ messages, ...(await readBatch(messages, form, judged)) }),
  read: readHere,
};
