// A post office for tests, of which each says what it does; the rest is refused.
import type { PostOffice } from '../post/postOffice';

const notAsked = () => Promise.reject(new Error('not asked'));

export const testPost = (part: Partial<PostOffice>): PostOffice => ({
  abilities: { keepsState: false, keepsDrafts: false },
  connection: { is: 'not tried' },
  changes: notAsked,
  alter: notAsked,
  submit: notAsked,
  keepDraft: notAsked,
  leave: notAsked,
  ...part,
});
