import { homeFolder } from '#commands/homeFolder.ts';
import { reportFailure } from '#commands/reportFailure.ts';
import { stopProcesses } from '#commands/startApp.ts';
import { stopDatabase } from '#commands/startDatabase.ts';

await reportFailure(async () => {
  const home = homeFolder('demo');
  const stopped = (await stopProcesses(home)) + Number(await stopDatabase(home));
  console.log(stopped > 0 ? 'Pale Feather is stopped; its data is kept.' : 'Nothing was running.');
});
