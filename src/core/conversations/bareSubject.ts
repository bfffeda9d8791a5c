// A subject as the title of something that is made of a message.
import { baseSubject } from '../../core/conversations/baseSubject';

/** A subject without what says that it answers or forwards (RFC 5256, section 2.1), in the letters in which it was written. */
export function bareSubject(subject: string): string {
  const { base } = baseSubject(subject);
  const at = subject.toLowerCase().lastIndexOf(base);
  return base !== '' && at >= 0 ? subject.slice(at, at + base.length) : subject.trim();
}
