import { readFileSync } from 'node:fs';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { roleFactsOf } from '#core/job/roleFactsOf.ts';
import { startJob } from '#core/job/startJob.ts';
import { daysBefore } from '#demo/days.ts';
import { conditionId, machineNamed } from '#demo/names.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addJob } from '#store/repositories/jobs/jobs.ts';
import { findMaterialByCondition } from '#store/repositories/book/materials.ts';

const JOBS = [
  {
    name: 'Seed packet, poppy',
    file: 'seed-packet.svg',
    machine: 'Dunlin desk',
    material: 'Seedbox carton',
    kind: 'bare',
    daysAgo: 4,
  },
  {
    name: 'Crate stencil, anchor',
    file: 'crate-stencil.svg',
    machine: 'Dunlin desk',
    material: 'Lantern stencil sheet',
    kind: 'bare',
    daysAgo: 9,
  },
  {
    name: 'Boat name Rein',
    file: 'boat-name-rein.svg',
    machine: 'Gannet 600',
    material: 'Mooring vinyl, navy',
    kind: 'bare',
    daysAgo: 22,
  },
  {
    name: 'Tide-table stickers',
    file: 'tide-stickers.svg',
    machine: 'Gannet 600',
    material: 'Herringglass matt white',
    kind: 'laminated',
    daysAgo: 172,
  },
  {
    name: 'Jam-jar labels, quince',
    file: 'jar-label.svg',
    machine: 'Gannet 600',
    material: 'Herringglass matt white',
    kind: 'laminated',
    daysAgo: 12,
  },
  {
    name: 'Boat name Rein, for the flatbed',
    file: 'boat-name-rein.svg',
    machine: 'Plover flatbed',
    material: 'Mooring vinyl, navy',
    kind: 'bare',
    daysAgo: 6,
  },
] as const;

/** The jobs of the workshop, each from its drawing. */
export async function drawJobs(db: Store, now: Date): Promise<void> {
  for (const { name, file, machine: machineName, material: materialName, kind, daysAgo } of JOBS) {
    const source = readFileSync(new URL(`./drawings/${file}`, import.meta.url), 'utf8');
    const machine = await machineNamed(db, machineName);
    const condition = await conditionId(db, materialName, kind);
    const { condition: state } = await findMaterialByCondition(db, condition);
    const drawing = { name, format: 'svg' as const, source };
    const started = startJob(drawing, readSvg(source), machine, roleFactsOf(state.stack, machine));
    const job = { ...started, areRolesGuessed: false, conditionId: condition, machineId: machine.id };
    await addJob(db, job, daysBefore(now, daysAgo));
  }
}
