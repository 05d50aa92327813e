import { execFileSync } from 'node:child_process';
import { beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { readDxf } from '#core/drawing/dxf/readDxf.ts';
import { boundContour } from '#core/geometry/box.ts';
import { measureContour } from '#core/geometry/measureContour.ts';

/**
 * A DXF that Debian's ezdxf writes and measures, read by us: arcs, ellipses, bulges, splines and blocks on planes of every
 * tilt. Each entity has a layer of its own; ezdxf says how long it is seen from above, and how wide and high.
 */
const SCRIPT = `
import io, json, math, random, sys
import ezdxf
from ezdxf import path
random.seed(5)
doc = ezdxf.new('R2010'); doc.units = 4
msp = doc.modelspace()
def tilt():
    a, b = random.uniform(0, 2 * math.pi), random.choice([0, math.pi, random.uniform(0.2, 1.2)])
    return (math.sin(b) * math.cos(a), math.sin(b) * math.sin(a), math.cos(b))
block = doc.blocks.new('Part')
block.add_lwpolyline([(0, 0, 0), (8, 0, .5), (8, 6, 0), (0, 6, -.3)], format='xyb', close=True)
for k in range(60):
    own = {'layer': f'E{k}', 'extrusion': tilt()}
    at = (random.uniform(-50, 50), random.uniform(-50, 50), random.uniform(-9, 9))
    kind = k % 6
    if kind == 0: msp.add_circle(at, random.uniform(1, 20), dxfattribs=own)
    if kind == 1: msp.add_arc(at, random.uniform(1, 20), random.uniform(0, 360), random.uniform(0, 360), dxfattribs=own)
    if kind == 2: msp.add_ellipse(at, major_axis=(random.uniform(2, 20), random.uniform(-9, 9), 0), ratio=random.uniform(.2, 1), start_param=random.uniform(0, 6), end_param=random.uniform(0, 6), dxfattribs={'layer': f'E{k}', 'extrusion': (0, 0, random.choice([1, -1]))})
    if kind == 3: msp.add_lwpolyline([(random.uniform(-30, 30), random.uniform(-30, 30), random.uniform(-1, 1)) for _ in range(6)], format='xyb', close=bool(k % 2), dxfattribs={**own, 'elevation': at[2]})
    if kind == 4: msp.add_spline(dxfattribs={'layer': f'E{k}'}).control_points = []
    if kind == 4: msp[-1].set_open_uniform([(random.uniform(-30, 30), random.uniform(-30, 30), 0) for _ in range(7)])
    if kind == 5: msp.add_blockref('PART', at, dxfattribs={'layer': f'E{k}', 'extrusion': tilt(), 'xscale': random.uniform(.5, 2), 'yscale': random.uniform(-2, -.5), 'rotation': random.uniform(0, 360)})
told = {}
for entity in list(msp):
    parts = list(entity.virtual_entities()) if entity.dxftype() == 'INSERT' else [entity]
    length, xs, ys = 0, [], []
    for part in parts:
        points = [(v.x, v.y) for v in path.make_path(part).flattening(0.0005)]
        length += sum(math.dist(a, b) for a, b in zip(points, points[1:]))
        xs += [x for x, _ in points]; ys += [y for _, y in points]
    told[entity.dxf.layer] = [length, max(xs) - min(xs), max(ys) - min(ys)]
out = io.StringIO(); doc.write(out)
json.dump({'dxf': out.getvalue(), 'told': told}, sys.stdout)
`;

const reply = z.object({ dxf: z.string(), told: z.record(z.string(), z.array(z.number())) });
let measured: z.infer<typeof reply>;
beforeAll(() => {
  const out = execFileSync('/usr/bin/python3', ['-c', SCRIPT], { encoding: 'utf8', maxBuffer: 50_000_000 });
  measured = reply.parse(JSON.parse(out));
});

describe('a DXF of ezdxf', () => {
  it('is read with every entity as long, as wide and as high as ezdxf says (0.01 mm), whatever its plane', () => {
    const { contours, leftOut } = readDxf(measured.dxf);
    expect(leftOut).toEqual([]);
    const layers = Object.entries(measured.told);
    expect(layers.length).toBe(60);
    for (const [layer, [length = 0, width = 0, height = 0]] of layers) {
      const own = contours.filter((line) => line.layer === layer);
      expect(own.length, layer).toBe(1);
      const { minX, maxX, minY, maxY } = boundContour(own[0]!.contour);
      expect(Math.abs(measureContour(own[0]!.contour) - length), `${layer}: length`).toBeLessThan(
        0.01 + 1e-4 * length,
      );
      expect(Math.abs(maxX - minX - width), `${layer}: width`).toBeLessThan(0.01);
      expect(Math.abs(maxY - minY - height), `${layer}: height`).toBeLessThan(0.01);
    }
  });
});
