// Rows of a view, fetched in pages as they come into sight; the page never holds the mailbox.
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Row, View } from '../../mailroom/api';
import { mailroom } from '../../mailroom/client';
import { useMailbox } from '../state/mailbox';

const pageSize = 60;
/** Pages kept while scrolling; those farthest from sight are forgotten. */
const mostPages = 12;

export interface Rows {
  /** Null until the first answer. */
  total: number | null;
  unread: number;
  /** A row by its position in the view; undefined while it is on its way. */
  at: (index: number) => Row | undefined;
  /** Says which rows are in sight: those are fetched. */
  show: (first: number, last: number) => void;
  error: string | null;
}

interface Held {
  key: string;
  total: number;
  unread: number;
  pages: Map<number, Row[]>;
}

export function useRows(view: View): Rows {
  const revision = useMailbox((s) => s.revision);
  const key = JSON.stringify(view);
  const [held, setHeld] = useState<Held | null>(null);
  const [error, setError] = useState<string | null>(null);
  const sight = useRef({ first: 0, last: pageSize - 1 });
  const asked = useRef(new Map<number, string>());

  const fetchPage = useCallback(
    (page: number) => {
      const stamp = `${key} ${revision}`;
      if (asked.current.get(page) === stamp) return;
      asked.current.set(page, stamp);
      mailroom.rows(JSON.parse(key) as View, page * pageSize, (page + 1) * pageSize).then(
        (window) => {
          if (asked.current.get(page) !== stamp) return;
          setError(null);
          setHeld((old) => {
            const pages = new Map(old?.key === key ? old.pages : []);
            pages.set(page, window.rows);
            if (pages.size > mostPages) {
              const middle = sight.current.first / pageSize;
              const far = [...pages.keys()].sort((a, b) => Math.abs(b - middle) - Math.abs(a - middle))[0];
              pages.delete(far);
              asked.current.delete(far);
            }
            return { key, total: window.total, unread: window.unread, pages };
          });
        },
        (reason: unknown) => setError(reason instanceof Error ? reason.message : String(reason)),
      );
    },
    [key, revision],
  );

  const show = useCallback(
    (first: number, last: number) => {
      sight.current = { first, last };
      for (let page = Math.floor(first / pageSize); page <= Math.floor(last / pageSize); page++) fetchPage(page);
    },
    [fetchPage],
  );

  useEffect(() => show(sight.current.first, sight.current.last), [show]);

  const current = held?.key === key ? held : null;
  const at = useCallback(
    (index: number) => current?.pages.get(Math.floor(index / pageSize))?.[index % pageSize],
    [current],
  );
  return { total: current?.total ?? null, unread: current?.unread ?? 0, at, show, error };
}
