import { messages, sentence } from '../../core/text/sentences';
import { mailroom } from '../../mailroom/client';
import { say } from './desk';

/** Asks the post office, and says what it came to. */
export async function checkPost(): Promise<void> {
  const { error, arrived } = await mailroom.checkNow();
  if (error !== null) say({ text: `The post office was asked: ${sentence(error)}`, tone: 'trouble' });
  else say({ text: arrived === 0 ? 'Nothing new at the post office.' : `${messages(arrived)} arrived.`, tone: 'done' });
}
