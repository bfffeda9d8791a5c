import { useEffect, useRef } from 'react';
import { Navigate, useSearchParams } from 'react-router';
import { writeMailto, writeNew } from '../state/drafts';

/** Where the browser leads a link that writes to somebody (RFC 6068): a draft is begun, beside the Inbox. */
export function WritePage() {
  const [search] = useSearchParams();
  const link = search.get('mailto');
  const begun = useRef(false);
  useEffect(() => {
    if (begun.current) return;
    begun.current = true;
    if (link === null) writeNew();
    else writeMailto(link);
  }, [link]);
  return <Navigate to="/inbox" replace />;
}
