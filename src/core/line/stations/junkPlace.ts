// Where junk goes: to Junk, or straight to the Bin, by the person's choice.
import { fixedPlace, type FixedPlace } from '../../mail/place';
import type { Setup } from '../setup';

export const junkPlace = ({ junk }: Pick<Setup, 'junk'>): FixedPlace => (junk.toBin ? 'bin' : 'junk');

/** The same within a sentence. */
export const junkPlaceCalled = (setup: Pick<Setup, 'junk'>): string => fixedPlace(junkPlace(setup)).called;
