import { createServer } from 'node:http';
import { drawSheet } from '#devices/cutter/sheet/drawSheet.ts';
import { FAULTS, FAULT_WORDS } from '#devices/cutter/faults.ts';
import { obeyPanel, type CutterState } from '#devices/cutter/obeyPanel.ts';
import { listen, readBody } from '#devices/listen.ts';

/** The page of a stand-in: its panel, its sheet from above and after weeding, and faults to switch on. */
export interface PageService {
  readonly port: number;
  close(): Promise<void>;
}

const LARGEST_ORDER = 10_000;

/** Opens the page on loopback. @param port 0 takes any free one */
export async function servePage(name: string, state: CutterState, port: number): Promise<PageService> {
  const server = createServer((request, reply) => {
    if (request.method === 'POST' && request.url === '/order') {
      // Only this page gives orders: another site's form cannot name this type.
      if (request.headers['content-type'] !== 'application/json') {
        reply.writeHead(415).end();
        return;
      }
      void readBody(request, LARGEST_ORDER).then((order) => {
        reply
          .writeHead(200, { 'content-type': 'application/json' })
          .end(JSON.stringify(obeyPanel(order?.toString('utf8') ?? '', state)));
      });
      return;
    }
    const isState = request.url === '/state';
    reply.writeHead(200, {
      'content-type': isState ? 'application/json' : 'text/html; charset=utf-8',
      'cache-control': 'no-store',
    });
    reply.end(isState ? JSON.stringify(describe(state)) : writePage(name));
  });
  const at = await listen(server, port);
  return { port: at, close: () => new Promise((resolve) => server.close(() => resolve())) };
}

function describe(state: CutterState): object {
  const { cutter, record, faults, isBusy, isPaused } = state;
  const job = record.tell();
  const words = isPaused ? 'paused' : isBusy ? 'cutting' : (job?.state ?? 'idle');
  return {
    words,
    strokes: cutter.sheetStrokes.length,
    metres: cutter.cutMetres.toFixed(2),
    reason: job?.reason ?? '',
    armed: faults
      .list()
      .map(({ fault, afterStrokes }) => `${FAULT_WORDS[fault]} (after ${afterStrokes} strokes)`),
    readings: cutter.readPrint(),
    marks: cutter.seenMarks.map(({ corner, contrast, offMm, isRead }) => ({
      corner,
      contrast: `${Math.round(contrast * 100)} %`,
      off: `${offMm.toFixed(1)} mm`,
      said: isRead ? 'read' : 'not read',
    })),
    above: drawSheet(cutter.sheetStrokes, false),
    weeded: drawSheet(cutter.sheetStrokes, true),
  };
}

function writePage(name: string): string {
  const buttons = FAULTS.map(
    (fault) =>
      `<button data-order='{"order":"fault","fault":"${fault}","afterStrokes":2}'>${FAULT_WORDS[fault]}</button>`,
  ).join('');
  return `<!doctype html><html lang="en"><meta charset="utf-8"><title>Stand-in ${name}</title>
<meta name="viewport" content="width=device-width, initial-scale=1">
<style>body{font:17px/1.45 system-ui,sans-serif;background:#f5f2ea;color:#1e2a32;margin:1.5rem;max-width:70rem}
h1{font-size:1.4rem}h2{font-size:1.05rem;margin:1rem 0 .3rem}section{background:#fff;border:1px solid #d8d2c4;padding:1rem;margin-bottom:1rem}
button{font:inherit;min-height:44px;margin:.2rem;padding:.3rem .8rem;border:1px solid #5b6870;border-radius:6px;background:#fff;cursor:pointer}
.two{display:grid;grid-template-columns:1fr 1fr;gap:1rem}svg{width:100%;max-height:60vh;background:#fff;border:1px solid #d8d2c4}
td,th{padding:.15rem .8rem;text-align:left}@media(max-width:700px){.two{grid-template-columns:1fr}}</style>
<h1>Stand-in cutter: ${name}</h1>
<p>Practice hardware: it cuts no sheet of yours. What it hides, the application has to find out.</p>
<section><h2>Panel</h2><p id="panel" role="status">…</p>
<button data-order='{"order":"pause"}'>Pause</button><button data-order='{"order":"resume"}'>Go on</button><button data-order='{"order":"stop"}'>Stop</button></section>
<section><h2>Make something go wrong, once, two strokes into the next job</h2>${buttons}<button data-order='{"order":"clearFaults"}'>Clear all</button><ul id="armed"></ul></section>
<section><h2>Hands on the cut sheet</h2>
<button data-order='{"order":"mask","tape":"paper"}'>Mask it with weak paper tape</button><button data-order='{"order":"mask","tape":"strong"}'>Mask it with strong tape</button><p id="said" role="status"></p></section>
<section><h2>What the sensor saw of the marks, when it looked last</h2><table id="marks"></table></section>
<section><h2>Under the glass: how far the cut lies from the print, tenths of a mm</h2><table id="readings"></table></section>
<section class="two"><div><h2>The sheet from above</h2><div id="above"></div></div><div><h2>After weeding</h2><div id="weeded"></div></div></section>
<script>
const show = async () => {
  const state = await (await fetch('/state')).json();
  document.getElementById('panel').textContent = state.words + ' · ' + state.strokes + ' strokes on the sheet · ' + state.metres + ' m' + (state.reason ? ' · ' + state.reason : '');
  document.getElementById('armed').replaceChildren(...state.armed.map((words) => Object.assign(document.createElement('li'), { textContent: words })));
  document.getElementById('readings').innerHTML = state.readings.length === 0 ? '<tr><td>no sheet with printed marks lies in</tr>' : '<tr><th>corner<th>sideways<th>up or down</tr>' + state.readings.map((r) => '<tr><td>' + r.corner + '<td>' + r.sideways + '<td>' + r.down + '</tr>').join('');
  document.getElementById('marks').innerHTML = state.marks.length === 0 ? '<tr><td>it has not looked</tr>' : '<tr><th>mark<th>stands out<th>off by<th></tr>' + state.marks.map((m) => '<tr><td>' + m.corner + '<td>' + m.contrast + '<td>' + m.off + '<td>' + m.said + '</tr>').join('');
  document.getElementById('above').innerHTML = state.above;
  document.getElementById('weeded').innerHTML = state.weeded;
};
for (const button of document.querySelectorAll('button')) button.onclick = async () => {
  const reply = await fetch('/order', { method: 'POST', headers: { 'content-type': 'application/json' }, body: button.dataset.order });
  document.getElementById('said').textContent = (await reply.json()).said ?? '';
  void show();
};
void show();
setInterval(() => void show().catch(() => undefined), 1000);
</script></html>`;
}
