import { readFileSync, writeFileSync } from 'node:fs';
import { buildApp } from '#commands/buildApp.ts';
import { stopProcesses } from '#commands/startApp.ts';
import { startFreshDemo } from '#commands/startFreshDemo.ts';
await buildApp(); await stopProcesses('/tmp/pf-dev/home');
const addr = await startFreshDemo('/tmp/pf-dev/home', readFileSync('/tmp/pf-dev/url','utf8'), Number(process.argv[2] ?? 40));
writeFileSync('/tmp/pf-dev/addr', addr); console.log(addr);
