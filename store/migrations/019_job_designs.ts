import type { Knex } from 'knex';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { boundContour, joinBoxes } from '#core/geometry/box.ts';

/** Jobs hold any kind of drawing, mends to it, roles of single lines, a layout of many pieces, and choices. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('jobs', (table) => {
    table.string('format', 8).notNullable().defaultTo('svg');
    table.specificType('source', 'LONGTEXT').nullable();
    for (const column of ['line_roles', 'edits', 'layout', 'print', 'passes']) table.json(column).nullable();
  });
  for (const { id, svg, placement } of await db('jobs').select('id', 'svg', 'placement')) {
    const { width, height } = sizeOf(svg);
    const { xMm, yMm } = typeof placement === 'string' ? JSON.parse(placement) : placement;
    const place = { piece: 0, sheet: 0, xMm: xMm + width / 2, yMm: yMm + height / 2, turnDeg: 0 };
    const layout = { isWhole: true, copies: 1, turns: 'quarter', spacingMm: 2, placements: [place] };
    await db('jobs')
      .where({ id })
      .update({
        source: svg,
        line_roles: '{}',
        edits: '[]',
        layout: JSON.stringify(layout),
        print: JSON.stringify({ hasMarks: false, bleedMm: 0, keepsTestCorner: false }),
        passes: JSON.stringify({
          order: null,
          cutLengthMm: null,
          tabLengthMm: null,
          compensatesOffset: false,
        }),
      });
  }
  await db.schema.alterTable('jobs', (table) => {
    table.dropColumns('svg', 'placement');
    table.specificType('source', 'LONGTEXT').notNullable().alter();
    for (const column of ['line_roles', 'edits', 'layout', 'print', 'passes'])
      table.json(column).notNullable().alter();
  });
}

/** Drawings may have become longer than the old column took: it comes back wider. */
export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('jobs', (table) => {
    table.specificType('svg', 'LONGTEXT').nullable();
    table.json('placement').nullable();
  });
  for (const { id, source, layout } of await db('jobs').select('id', 'source', 'layout')) {
    const { width, height } = sizeOf(source);
    const { placements } = typeof layout === 'string' ? JSON.parse(layout) : layout;
    const place = placements[0] ?? { xMm: width / 2, yMm: height / 2 };
    const placement = { xMm: place.xMm - width / 2, yMm: place.yMm - height / 2 };
    await db('jobs')
      .where({ id })
      .update({ svg: source, placement: JSON.stringify(placement) });
  }
  await db.schema.alterTable('jobs', (table) => {
    table.specificType('svg', 'LONGTEXT').notNullable().alter();
    table.json('placement').notNullable().alter();
    table.dropColumns('format', 'source', 'line_roles', 'edits', 'layout', 'print', 'passes');
  });
}

/** The size of a drawing's lines; nothing for one that cannot be read any more. */
function sizeOf(svg: string): { readonly width: number; readonly height: number } {
  try {
    const box = joinBoxes(readSvg(svg).contours.map(({ contour }) => boundContour(contour)));
    return { width: box.maxX - box.minX, height: box.maxY - box.minY };
  } catch {
    return { width: 0, height: 0 };
  }
}
