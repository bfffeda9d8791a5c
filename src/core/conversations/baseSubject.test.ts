// RFC 5256, section 2.1: the steps and the ABNF of section 5. The RFC has no list of examples; each case is named by
// the step or rule that it shows.
import { baseSubject } from './baseSubject';

test.each([
  ['no prefix', 'Ferry times', 'ferry times', false],
  ['step 1: runs of blanks and tabs are one blank', '  Ferry\t \t times ', 'ferry times', false],
  ['step 2: subj-trailer', 'Ferry times (fwd)', 'ferry times', true],
  ['step 2: trailers as often as they stand there', 'Ferry times (FWD) (fwd) ', 'ferry times', true],
  ['step 3: subj-refwd “re:”', 'Re: Ferry times', 'ferry times', true],
  ['step 3: “fw:” and “fwd:”', 'Fw: Ferry times', 'ferry times', true],
  ['step 3: “fwd:”', 'FWD: Ferry times', 'ferry times', true],
  ['step 3: blanks before the colon', 're : Ferry times', 'ferry times', true],
  ['step 3: subj-blob between “re” and the colon', 'Re[2]: Ferry times', 'ferry times', true],
  ['step 3: subj-blob before “re”', '[crew] Re: Ferry times', 'ferry times', true],
  ['step 4: a leading subj-blob', '[crew] Ferry times', 'ferry times', false],
  ['step 4: a blob that is all there is stays', '[crew]', '[crew]', false],
  ['step 5: over and over', 'Re: [crew] Fwd: [crew] [desk] Re: Ferry times', 'ferry times', true],
  ['step 6: subj-fwd-hdr and subj-fwd-trl', '[Fwd: Ferry times]', 'ferry times', true],
  ['step 6: then from step 2 again', '[fwd: Re: Ferry times (fwd)]', 'ferry times', true],
  ['a blob holds no brackets', '[a[b] Re: Ferry', '[a[b] re: ferry', false],
  ['“re” without a colon is a word', 'Re painting the hull', 're painting the hull', false],
  ['a word that begins with “re”', 'Refit: hull', 'refit: hull', false],
  ['nothing but prefixes', 'Re: Fwd: ', '', true],
  ['empty', '', '', false],
])('%s', (_what, subject, base, reply) => {
  expect(baseSubject(subject)).toEqual({ base, reply });
});

test('hostile subjects take no time to speak of', () => {
  for (const piece of ['[', '[]', 're:', '[x] re ', 're[', '(fwd)', '[fwd:', ' '])
    expect(baseSubject(piece.repeat(5_000 / piece.length)).base.length).toBeLessThanOrEqual(5_000);
});
