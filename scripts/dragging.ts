// How long the page is held while numbers are dragged, starter by starter, drawing aside: `npm run bench:drag -- [name …]`, from the
// built application. Script, styles and layout of each piece of work of the page's own thread are counted, by the browser's own record;
// what passes within calls to the graphics is not, nor waiting for them: without a graphics card that is the processor's work too. Nor is
// waiting for a processor that the graphics and the engine hold: the page's thread goes before them where the system lets it, and a piece
// counts as no more than the thread's own clock says of it. Nor are pauses of the whole machine, in which not even a sample is taken. What
// goes to collecting garbage is told for itself: it comes when it comes.
import { readdirSync, readFileSync } from 'node:fs';
import { setPriority } from 'node:os';
import { setTimeout as wait } from 'node:timers/promises';
import { type Browser, chromium, type Page } from '@playwright/test';
import { serve } from './serve';

const { findChromium } = (await import('./lib.mjs' as string)) as { findChromium: () => string | null };

/** An event of the browser's own record; times are microseconds. */
interface Traced {
  name: string;
  ts: number;
  dur?: number;
  /** By the thread's own clock. */
  tdur?: number;
  pid: number;
  tid: number;
  id?: string;
  args: {
    name?: string;
    data?: {
      startTime?: number;
      timeDeltas?: number[];
      cpuProfile?: { nodes?: ProfileNode[]; samples?: number[] };
    };
  };
}

interface ProfileNode {
  id: number;
  parent?: number;
  callFrame: { functionName: string };
}

/** Calls to the graphics go through a function of this name, so that they can be told apart. */
const DRAWN = 'drawnByGraphics';
const GARBAGE = '(garbage collector)';
const WATCH = `
  const prototype = WebGL2RenderingContext.prototype;
  for (const name of Object.getOwnPropertyNames(prototype)) {
    const { value } = Object.getOwnPropertyDescriptor(prototype, name);
    if (typeof value === 'function')
      prototype[name] = function ${DRAWN}(...args) {
        return value.apply(this, args);
      };
  }
  // Reading a picture back, and making room for one, are the graphics' work too.
  const { drawImage } = CanvasRenderingContext2D.prototype;
  CanvasRenderingContext2D.prototype.drawImage = function ${DRAWN}(...args) {
    return drawImage.apply(this, args);
  };
  for (const side of ['width', 'height']) {
    const { get, set } = Object.getOwnPropertyDescriptor(HTMLCanvasElement.prototype, side);
    const ${DRAWN} = function (value) {
      set.call(this, value);
    };
    Object.defineProperty(HTMLCanvasElement.prototype, side, { get, set: ${DRAWN} });
  }
`;
/** The browser's own record holds everything up as it begins, milliseconds; how long differs, so that the drag is marked. */
const BEGINS = 1500;
const DRAG = 'the drag begins';
const CATEGORIES = [
  'blink.user_timing',
  'devtools.timeline',
  'disabled-by-default-devtools.timeline',
  'disabled-by-default-v8.cpu_profiler',
  '__metadata',
];
/** What the page does besides script: styles, layout, and what is to be painted. */
const PAGE_WORK = new Set(['UpdateLayoutTree', 'Layout', 'PrePaint', 'Paint']);

/** A sample is taken each tenth of a millisecond to each one; where none came for longer than this nothing ran, microseconds. */
const PAUSE = 10_000;

interface Sampled {
  at: number;
  took: number;
  counts: boolean;
  garbage: boolean;
}

/** A piece of work of the page's thread, milliseconds. */
interface Piece {
  own: number;
  garbage: number;
}

/** Samples of a thread's script, and which of them are the page's own work. */
function samplesOf(events: readonly Traced[]): Sampled[] {
  const nodes = new Map<number, ProfileNode>();
  const samples: Sampled[] = [];
  const counts = (id: number): boolean => {
    const name = nodes.get(id)?.callFrame.functionName;
    if (['(program)', '(idle)', '(root)', GARBAGE].includes(name ?? '')) return false;
    for (let node = nodes.get(id); node; node = node.parent === undefined ? undefined : nodes.get(node.parent))
      if (node.callFrame.functionName === DRAWN) return false;
    return true;
  };
  let at = 0;
  for (const { name, args } of events) {
    const { data } = args;
    if (name === 'Profile') at = data?.startTime ?? 0;
    if (name !== 'ProfileChunk') continue;
    for (const node of data?.cpuProfile?.nodes ?? []) nodes.set(node.id, node);
    data?.cpuProfile?.samples?.forEach((id, k) => {
      const took = data.timeDeltas![k];
      at += took;
      samples.push({ at, took, counts: counts(id), garbage: nodes.get(id)?.callFrame.functionName === GARBAGE });
    });
  }
  return samples;
}

/** How long each of the page's pieces of work took, drawing aside. */
function pieces(events: readonly Traced[]): Piece[] {
  const page = events.find(({ name, args }) => name === 'thread_name' && args.name === 'CrRendererMain')!;
  const begun = events.find(({ name }) => name === DRAG)!.ts;
  const own = events.filter(({ pid, tid }) => pid === page.pid && tid === page.tid);
  const profile = events.find(({ name, pid, tid }) => name === 'Profile' && pid === page.pid && tid === page.tid);
  const samples = samplesOf(
    events.filter(({ name, pid, id }) => name.startsWith('Profile') && pid === page.pid && id === profile?.id),
  );
  const pauses = samples.filter(({ took }) => took > PAUSE);
  /** How long it took without pauses, microseconds. */
  const ran = ({ ts, dur = 0 }: Traced): number =>
    pauses.reduce((sum, { at, took }) => sum - Math.max(0, Math.min(ts + dur, at) - Math.max(ts, at - took)), dur);
  const within = ({ ts, dur = 0 }: Traced, time: number): boolean => time >= ts && time < ts + dur;
  return own
    .filter(({ name, ts, dur = 0 }) => name === 'RunTask' && dur > 20_000 && ts > begun)
    .map((task) => {
      const taken = (which: 'counts' | 'garbage'): number =>
        samples.reduce((sum, one) => sum + (one[which] && within(task, one.at) ? Math.min(PAUSE, one.took) : 0), 0);
      const besides = own.reduce(
        (sum, one) => sum + (PAGE_WORK.has(one.name) && within(task, one.ts) ? ran(one) : 0),
        0,
      );
      const most = task.tdur ?? Infinity;
      return {
        own: Math.min(most, taken('counts') + besides) / 1000,
        garbage: Math.min(most, taken('garbage')) / 1000,
      };
    });
}

/** The thread that takes samples of script. */
const SAMPLER = 'v8:ProfEvntProc';

/** Lets the threads of pages, and what samples them, go before all others; only some people may, and on Linux alone. */
async function first(browser: Browser): Promise<void> {
  const session = await browser.newBrowserCDPSession();
  const { processInfo } = await session.send('SystemInfo.getProcessInfo');
  await session.detach();
  for (const { type, id } of processInfo) {
    if (type !== 'renderer') continue;
    try {
      setPriority(id, -19);
      for (const thread of readdirSync(`/proc/${id}/task`))
        if (readFileSync(`/proc/${id}/task/${thread}/comm`, 'utf8').trim() === SAMPLER)
          setPriority(Number(thread), -20);
    } catch {
      if (!waits) console.log('The page waits for processors like all others: run it as one who may set priorities.');
      waits = true;
    }
  }
}
let waits = false;

/** Drags the label of a number to and fro for some seconds. */
async function drag(page: Page, label: { x: number; y: number }, seconds: number): Promise<void> {
  await page.mouse.move(label.x, label.y);
  await page.mouse.down();
  const end = Date.now() + 1000 * seconds;
  for (let k = 0; Date.now() < end; k++) {
    await page.mouse.move(label.x + 24 * Math.sin(k / 6), label.y);
    await wait(16);
  }
  await page.mouse.move(label.x, label.y);
  await page.mouse.up();
}

/** Steps of the selected growth whose first number is dragged, and for how long. */
const MOST_STEPS = 4;
const SECONDS = 2;

const wanted = process.argv.slice(2);
const { url, stop } = await serve();
const browser = await chromium.launch({ executablePath: findChromium() ?? undefined, args: ['--no-sandbox'] });
const rows: Record<string, unknown>[] = [];
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript(WATCH);
  await page.goto(url);
  const names = await page
    .getByRole('button', { name: /^Open the starter/ })
    .evaluateAll((found) => found.map((one) => one.getAttribute('aria-label')!.replace('Open the starter ', '')));
  for (const name of names) {
    if (wanted.length > 0 && !wanted.includes(name)) continue;
    await page.goto(url);
    await page.getByRole('button', { name: `Open the starter ${name}`, exact: true }).click();
    await page.locator('canvas[data-rest="true"]').first().waitFor({ timeout: 120_000 });
    await wait(1500);
    const held: { longest: number; garbage: number; over: number; what: string }[] = [];
    const steps = await page.locator('[role="group"][aria-label]:has([aria-expanded])').all();
    for (const step of steps.slice(0, MOST_STEPS)) {
      const head = step.locator('[aria-expanded]').first();
      if ((await head.getAttribute('aria-expanded')) === 'false') await head.click();
      const label = step.locator('label:visible').first();
      if (!(await label.count())) continue;
      await label.scrollIntoViewIfNeeded();
      const box = (await label.boundingBox())!;
      // What is drawn for the first time has programs made for it: that is not what is asked here.
      await drag(page, { x: box.x + box.width / 2, y: box.y + box.height / 2 }, 0.5);
      await wait(1000);
      await browser.startTracing(page, { categories: CATEGORIES });
      await first(browser);
      await wait(BEGINS);
      await page.evaluate((name) => performance.mark(name), DRAG);
      await drag(page, { x: box.x + box.width / 2, y: box.y + box.height / 2 }, SECONDS);
      await wait(500);
      const { traceEvents } = JSON.parse((await browser.stopTracing()).toString()) as { traceEvents: Traced[] };
      const took = pieces(traceEvents);
      const what = `${await step.getAttribute('aria-label')}: ${await label.textContent()}`;
      held.push({
        longest: Math.max(0, ...took.map(({ own }) => own)),
        garbage: Math.max(0, ...took.map(({ garbage }) => garbage)),
        over: took.filter(({ own }) => own > 50).length,
        what,
      });
      await head.click();
    }
    held.sort((a, b) => b.longest - a.longest);
    rows.push({
      starter: name,
      drags: held.length,
      'longest piece, ms': Math.round(held[0]?.longest ?? 0),
      'garbage, longest, ms': Math.round(Math.max(0, ...held.map(({ garbage }) => garbage))),
      'pieces over 50 ms': held.reduce((sum, { over }) => sum + over, 0),
      'while dragging': held[0]?.what ?? '',
    });
  }
} finally {
  await browser.close();
  stop();
}
console.table(rows);
