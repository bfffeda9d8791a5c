// Conditions that look into what an envelope does not hold: the text of a message, and any field of its header.
import type { Message } from '../mail/message';
import { foldSearch } from '../text/fold';
import { foldAscii } from '../text/collation';
import { textTest } from './match';
import type { DeepCondition } from './rule';
import { fieldText } from '../mail/fieldText';
import { blanksAsOne } from '../text/blanks';

/** The text that a condition on the body looks into: runs of blanks are one, so that a line's end parts no phrase. */
export const bodyForRules = ({ text }: Message): string => blanksAsOne(text).trim();

/** Whether what a header field says, folded, is what a condition looks for. */
export const headerTest = (condition: Extract<DeepCondition, { field: 'header' }>): ((value: string) => boolean) =>
  condition.how === 'there' ? () => true : textTest(condition.how, condition.text);

/** Answers for one message, which is read when it is first asked. */
export class DeepTexts {
  private read: Message | null = null;
  private body: string | null = null;

  constructor(private readonly open: () => Message) {}

  private get message(): Message {
    return (this.read ??= this.open());
  }

  /** Whether a header field of a name says a text, as searching compares them. */
  says(name: string, text: string): boolean {
    const [key, sought] = [name.toLowerCase(), foldSearch(blanksAsOne(text))];
    return this.message.fields.some(
      (field) => field.key === key && foldSearch(blanksAsOne(fieldText(field))).includes(sought),
    );
  }

  /** Whether a condition holds. */
  readonly holds = (condition: DeepCondition): boolean => {
    if (condition.field === 'body') {
      this.body ??= foldAscii(bodyForRules(this.message));
      return textTest('contains', blanksAsOne(condition.text))(this.body);
    }
    const name = condition.name.toLowerCase();
    const fields = this.message.fields.filter((field) => field.key === name);
    const holds = headerTest(condition);
    return fields.some((field) => holds(foldAscii(fieldText(field))));
  };
}
