import { useEffect, useRef } from 'react';
import { useLocation, useNavigate, useNavigation } from 'react-router';

/**
 * Leaves the page: to an address, or back by one (-1). A page that saves first may be left meanwhile: then the
 * person has chosen where to be, and what is called here does nothing.
 */
export function useLeave(): (to: string | -1) => void {
  const navigate = useNavigate();
  const { key } = useLocation();
  const idle = useNavigation().state === 'idle';
  const now = useRef<string | null>(key);
  // Also while the page that was chosen is still loading.
  useEffect(() => {
    now.current = idle ? key : null;
    return () => {
      now.current = null;
    };
  }, [key, idle]);
  return (to) => {
    // The history is ahead of the page until what was chosen is on the screen.
    const state = window.history.state as { key?: string } | null;
    if (now.current !== key || (state?.key ?? 'default') !== key) return;
    if (to === -1) void navigate(-1);
    else void navigate(to);
  };
}
