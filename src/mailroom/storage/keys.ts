// The keys of the records, and how many messages stand in each.
//
//   meta             one record: counts, tables, setup, and the journal number up to which the state packs are complete
//   state/00000      columns of 4,096 messages: place, flags, labels … (changes often, so it is small)
//   ground           the checkpoint: meta as it was when the journal was last compacted; ground/00000 its state packs
//   derived/00000    what was computed of 4,096 messages: conversation, account … (can be made anew)
//   text/00000       the text index of 4,096 messages (can be made anew)
//   junk             the junk filter: its model, what each mark taught, the score of each message (can be made anew)
//   envelopes/00000  envelopes of 512 messages, as JSON (never changes once written)
//   raw/000000       raw bytes of 64 messages (read only when opened, exported or deleted)
//   big/0000000      raw bytes of one message over a megabyte
//   journal/00000000 one command: what it was, before and after
//   draft/…          a message that is being written; drafted/… its files
//   aside/…          a record that could not be read, kept as it was found
//   mark             a name that stands as long as the database is the same (guarded.ts)
//   importing        the files that are being brought in

export const statePackSize = 4_096;

export const envelopePackSize = 512;

export const rawPackSize = 64;

/** A raw message over this many bytes gets a record of its own. */
export const bigMessage = 1 << 20;

const padded = (n: number, width: number) => String(n).padStart(width, '0');

export const keyOf = {
  meta: 'meta',
  mark: 'mark',
  importing: 'importing',
  /** What the keys of all journal records begin with. */
  journals: 'journal/',
  /** What the keys of all drafts begin with. */
  drafts: 'draft/',
  draft: (id: string) => `draft/${id}`,
  draftFiles: (id: string) => `drafted/${id}/`,
  draftFile: (id: string, file: string) => `drafted/${id}/${file}`,
  asides: 'aside/',
  state: (pack: number) => `state/${padded(pack, 5)}`,
  junk: 'junk',
  text: (segment: number) => `text/${padded(segment, 5)}`,
  derived: (pack: number) => `derived/${padded(pack, 5)}`,
  envelopes: (pack: number) => `envelopes/${padded(pack, 5)}`,
  raw: (pack: number) => `raw/${padded(pack, 6)}`,
  big: (id: number) => `big/${padded(id, 7)}`,
  checkpoint: 'ground',
  checkpointState: (pack: number) => `ground/${padded(pack, 5)}`,
  journal: (seq: number) => `journal/${padded(seq, 8)}`,
  asidesOf: (key: string) => `aside/${key}/`,
  aside: (key: string, at: number) => `aside/${key}/${at}`,
};
