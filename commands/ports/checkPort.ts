import { reportFailure } from '#commands/reportFailure.ts';
import { requirePort } from '#commands/ports/requirePort.ts';

await reportFailure(async () => {
  console.log(`Port ${await requirePort()} is free.`);
});
