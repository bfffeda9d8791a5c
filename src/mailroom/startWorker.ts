// The mailroom's worker. Nothing else stands here, so that it can begin before the page's own program is there.
export const mailroomWorker = new Worker(new URL('./mailroom.worker.ts', import.meta.url), {
  type: 'module',
  name: 'mailroom',
});
