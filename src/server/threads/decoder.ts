import { pictureFacts, printablePicture } from '@/server/documents/job-picture';
import { COMPUTATIONS } from '@/compute/computations';
import type { DecoderTask } from '@/server/services/decoder-task';

/** What a file that somebody handed in asks for: read here, in a process of its own that can be ended. */
async function done(task: DecoderTask): Promise<unknown> {
  switch (task.kind) {
    case 'picture-facts':
      return pictureFacts(task.content);
    case 'printable-picture':
      return printablePicture(task.content);
    case 'compute':
      return COMPUTATIONS[task.name].run(task.raw);
  }
}

process.once('message', (task: DecoderTask) => {
  void done(task).then((answer) => {
    process.send?.(answer, () => {
      process.exit(0);
    });
  });
});
// Whoever asked is gone: nobody waits for the answer.
process.on('disconnect', () => {
  process.exit(0);
});
