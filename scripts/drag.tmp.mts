import { chromium } from '@playwright/test';
import { writeFileSync } from 'node:fs';
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: ['--no-sandbox','--use-gl=angle','--use-angle=swiftshader','--enable-unsafe-swiftshader','--ignore-gpu-blocklist'] });
for (const [name, growth, stepName, label] of [['Kelp forest','Weed','Sways','Amount'],['Fan coral','Fan coral','Tube','Radius'],['Kelp frond','Leaf','Blade','Length'],['Lantern vine','Lantern vine','Tube','Radius']] as const) {
  const ctx = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  await ctx.addInitScript(() => { localStorage.setItem('uvrex-quality','draft'); localStorage.setItem('uvrex-greeted','yes');
   (window as any).__long = []; new PerformanceObserver((l) => { for (const e of l.getEntries()) (window as any).__long.push([e.startTime, e.duration]); }).observe({ type: 'longtask', buffered: true }); });
  const page = await ctx.newPage();
  await page.goto('http://localhost:4600/');
  await page.getByRole('button', { name: new RegExp('Open the starter ' + name + '$') }).or(page.getByRole('link',{name:new RegExp('Open the starter ' + name + '$')})).first().click();
  await page.waitForFunction(() => !!document.querySelector('canvas[data-rest="true"]'), null, { timeout: 60000 });
  await page.waitForTimeout(6000);
  await page.locator('[aria-label=Growths]').getByText(growth, { exact: true }).first().click();
  const st = page.getByRole('group', { name: stepName, exact: true });
  const head = st.locator('[aria-expanded]').first();
  if ((await head.getAttribute('aria-expanded')) === 'false') await head.click();
  await page.waitForTimeout(1500);
  const field = st.getByText(label, { exact: true }).first();
  await field.scrollIntoViewIfNeeded();
  const box = (await field.boundingBox())!;
  await page.mouse.move(box.x + 10, box.y + box.height / 2);
  await page.mouse.down();
  const cdp = await ctx.newCDPSession(page);
  const drag = async (ms: number) => { let x = box.x + 10; let k = 0; const t = Date.now(); while (Date.now() - t < ms) { x += (k++ % 60 < 30 ? 1 : -1); await page.mouse.move(x, box.y + box.height / 2); await new Promise((r) => setTimeout(r, 12)); } };
  await drag(2500);
  await page.evaluate(() => { (window as any).__long.length = 0; });
  await cdp.send('Profiler.enable'); await cdp.send('Profiler.setSamplingInterval', { interval: 500 }); await cdp.send('Profiler.start');
  await drag(4000);
  const { profile } = await cdp.send('Profiler.stop');
  const long = await page.evaluate(() => (window as any).__long);
  await page.mouse.up();
  const by: any = {}; profile.nodes.forEach((n: any) => (by[n.id] = n));
  const self: any = {}; const par: any = {}; profile.nodes.forEach((n: any) => (n.children || []).forEach((c: number) => (par[c] = n.id)));
  const tot: any = {};
  const gl = new Set(['drawElements','drawElementsInstanced','drawArrays','bufferData','bufferSubData','readPixels','texImage2D','linkProgram','compileShader','getProgramParameter','clear','finish','texSubImage2D','drawArraysInstanced','blitFramebuffer','generateMipmap']);
  // Pieces of the page's work between idle samples, without drawing calls.
  let piece = 0, pieces: number[] = [];
  profile.samples!.forEach((s: number, i: number) => { const dt = profile.timeDeltas![i] / 1000; const n = by[s]; const f = n.callFrame.functionName;
    self[f + ':' + n.callFrame.lineNumber] = (self[f + ':' + n.callFrame.lineNumber] || 0) + dt;
    const seen = new Set(); let x = s, drawing = false; while (x) { const c = by[x].callFrame; if (gl.has(c.functionName)) drawing = true; const k = c.functionName + ':' + c.lineNumber + ':' + c.columnNumber; if (!seen.has(k)) { seen.add(k); tot[k] = (tot[k] || 0) + dt; } x = par[x]; }
    if (f === '(idle)' || f === '(program)') { if (piece > 0) pieces.push(piece); piece = 0; } else if (!drawing) piece += dt; });
  pieces.sort((a, b) => b - a);
  console.log('==', name, 'long tasks', long.length, 'longest', Math.round(Math.max(0, ...long.map((l: number[]) => l[1]))), 'pieces without drawing', pieces.slice(0, 8).map((x) => x.toFixed(0)).join(' '));
  console.log(Object.entries(self).sort((a: any, b: any) => b[1] - a[1]).slice(0, 14).map(([k, v]: any) => k + ' ' + v.toFixed(0)).join(' | '));
  writeFileSync('/tmp/b/page-' + name.replace(' ', '') + '.cpuprofile', JSON.stringify(profile));
  await ctx.close();
}
await browser.close();
