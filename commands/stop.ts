import { homeFolder } from '#commands/homeFolder.ts';
import { reportFailure } from '#commands/reportFailure.ts';
import { stopProcesses } from '#commands/startApp.ts';
import { workshopHome } from '#commands/workshopHome.ts';
import { stopDatabase } from '#commands/database/startDatabase.ts';

await reportFailure(async () => {
  let stopped = 0;
  for (const home of [homeFolder('demo'), workshopHome()]) {
    stopped += (await stopProcesses(home)) + Number(await stopDatabase(home));
  }
  console.log(stopped > 0 ? 'Pale Feather is stopped; its data is kept.' : 'Nothing was running.');
});
