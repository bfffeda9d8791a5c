// Files of mail on their way in: each import by its job, so that it can be stopped.
import type { Mailroom } from '../border/mailroom';
import { importFiles, type ImportControl } from '../intake/importFiles';
import type { Open, ServiceHost } from './host';

export function transferOf(open: Open, { pool, tell }: ServiceHost) {
  const imports = new Map<string, ImportControl>();
  return {
    importFiles: async (job, files, target) => {
      const control: ImportControl = { cancelled: false };
      imports.set(job, control);
      try {
        return await importFiles(open.mailbox, job, files, target, pool.parse, pool.size + 1, control, (progress) =>
          tell({ kind: 'import', progress }),
        );
      } finally {
        imports.delete(job);
      }
    },
    cancelImport: async (job) => {
      const control = imports.get(job);
      if (control) control.cancelled = true;
    },
  } satisfies Partial<Mailroom>;
}
