// The processor time of this process and of all that it began, the browser and its pages among them: what a test costs,
// however busy the machine is.
import { readdirSync, readFileSync } from 'node:fs';

/** Clock ticks a second, as /proc counts them on Linux. */
const ticks = 100;

/** Seconds of processor time of a process and all below it, those that have ended and were waited for included. */
export function processTime(root = process.pid): number {
  const children = new Map<number, number[]>();
  const time = new Map<number, number>();
  for (const name of readdirSync('/proc')) {
    if (!/^\d+$/.test(name)) continue;
    let stat: string;
    try {
      stat = readFileSync(`/proc/${name}/stat`, 'utf8');
    } catch {
      // It ended since the folder was read.
      continue;
    }
    // proc_pid_stat(5): behind the name in brackets come the state, the parent, and as 12th to 15th the times.
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
    const parent = Number(fields[1]);
    time.set(Number(name), fields.slice(11, 15).reduce((sum, field) => sum + Number(field), 0) / ticks);
    children.set(parent, [...(children.get(parent) ?? []), Number(name)]);
  }
  const whole = (pid: number): number =>
    (children.get(pid) ?? []).reduce((sum, child) => sum + whole(child), time.get(pid) ?? 0);
  return whole(root);
}
