// Conversations as they cross the border: opened for reading, and thinned out.
import type { ThinReason } from '../../core/conversations/thinning';
import type { AttachmentInfo } from '../../core/mail/body';
import type { ConversationCounts, Row } from './rows';

/** A message within its conversation, and what it carries. */
export interface ConversationMember {
  row: Row;
  /** The id of what it answers, whether that is shown or not; null for a beginning. */
  parent: number | null;
  attachments: AttachmentInfo[];
}

/** A conversation opened for reading. */
export interface OpenConversation extends ConversationCounts {
  number: number;
  /** Oldest first. */
  members: ConversationMember[];
  silenced: boolean;
  /** How many more of its messages stand in other places that are not asked for. */
  elsewhere: number;
}

/** What thinning a conversation out would do to one of its messages. */
export interface ThinLine {
  row: Row;
  goes: boolean;
  /** The message in which it stands whole. */
  standsIn: Row | null;
  reason: ThinReason;
}
