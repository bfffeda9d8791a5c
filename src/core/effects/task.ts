// A task of what a message asks for: one for each conversation, with the messages kept with it.
import { z } from 'zod';
import { effectKind, taskDues, type TaskDue } from './effect';

const schema = z.object({ do: z.literal('task'), due: z.enum(taskDues) });

export const taskDueWords = {
  none: 'without a date',
  today: 'due today',
  tomorrow: 'due tomorrow',
  'this week': 'due this week',
  'next week': 'due next week',
  ask: 'opened, to be filled in',
} as const satisfies Record<TaskDue, string>;

export const task = effectKind<'task', z.infer<typeof schema>>({
  do: 'task',
  schema,
  verb: 'make a task of it,',
  fresh: () => ({ do: 'task', due: 'this week' }),
  words: ({ due }) => `make a task of its conversation, ${taskDueWords[due]}`,
  asks: ({ due }) => (due === 'ask' ? 'it opens the task, for you to fill in' : null),
  carryOut: ({ due }, decided) => {
    decided.follows.push({ do: 'task', due });
    return { did: `made a task of it, ${taskDueWords[due]}` };
  },
  sieve: { unsaid: () => 'a server has no tasks' },
});
