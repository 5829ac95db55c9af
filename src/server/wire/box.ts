/** The reading process: one job after the other from the process that started it, and its end when that is gone. */
import { answerJob, type BoxJob } from '../box';

process.on('message', (job) => {
  void answerJob(job as BoxJob).then((answer) => process.send?.(answer));
});
process.on('disconnect', () => process.exit(0));
process.send?.('ready');
