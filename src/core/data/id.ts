// The names by which the parts of a setup speak of one another.
import { z } from 'zod';

/** An id: any text that is not empty. Ours have some forty characters; what is much longer is no id. */
export const idSchema = z.string().min(1).max(300);

const noMoment = { error: 'must be a moment, in milliseconds since 1970' };

/** A moment in milliseconds since 1970, or 0 for none (ECMA-262, section 21.4.1.1). */
export const momentSchema = z.number().min(-8.64e15, noMoment).max(8.64e15, noMoment);
