// Files of mail on their way in: each import by its job, so that it can be stopped.
import { z } from 'zod';
import { placeSchema } from '../../core/mail/place';
import type { Mailroom } from '../border/mailroom';
import { importFiles, namesOf, type ImportControl } from '../intake/importFiles';
import { forgetImporting, noteImporting } from '../storage/importing';
import type { Open, ServiceHost } from './host';

/** The name of an import: the ids of its commands begin with it. */
const jobSchema = z.string().min(1).max(200);
const targetSchema = z.union([placeSchema, z.literal('line')]);

export function transferOf(open: Open, { pool, tell }: ServiceHost) {
  const imports = new Map<string, ImportControl>();
  return {
    importFiles: async (job, files, target) => {
      jobSchema.parse(job);
      targetSchema.parse(target);
      const control: ImportControl = { cancelled: false };
      imports.set(job, control);
      const { mailbox } = open;
      const names = namesOf(files);
      mailbox.cutOff = null;
      mailbox.filling++;
      // Should it be cut off, that is told at the next opening. What can't even note it is told by the first batch.
      await noteImporting(mailbox.records, { job, names, target }).catch(() => undefined);
      try {
        const report = await importFiles(mailbox, job, files, target, pool.parse, pool.size + 1, control, (progress) =>
          tell({ kind: 'import', progress }),
        );
        // Who closes the page as soon as all is there finds it opened as quickly as any other time. What fails is tried again.
        await mailbox.flush().catch(() => undefined);
        return report;
      } finally {
        imports.delete(job);
        mailbox.filling--;
        await forgetImporting(mailbox.records).catch(() => undefined);
      }
    },
    forgetCutOff: async () => {
      open.mailbox.cutOff = null;
      await forgetImporting(open.mailbox.records);
      tell({ kind: 'revision', revision: open.mailbox.revision });
    },
    cancelImport: async (job) => {
      const control = imports.get(job);
      if (control) control.cancelled = true;
    },
  } satisfies Partial<Mailroom>;
}
