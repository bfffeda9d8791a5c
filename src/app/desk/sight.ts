// Which row is the first in sight. In a store of its own: it changes with every row that is scrolled by, and only who asks
// for it is drawn anew.
import { create } from 'zustand';

export const useSight = create(() => ({ first: 0 }));
