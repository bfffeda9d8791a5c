// Header fields as people and rules read them.
import { decodeEncodedWords } from './encodedWord';
import type { HeaderField } from './header';

/** A field's value as a condition sees it: unfolded, its encoded words decoded, without blanks at its ends. */
export const fieldText = (field: HeaderField): string => decodeEncodedWords(field.value).trim();
