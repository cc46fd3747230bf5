import { Box3, MOUSE, PerspectiveCamera, Sphere, Vector3, WebGLRenderer } from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import { setPictureTaker } from '@/state/storage/autosave';
import { growthIn, useDocument } from '@/state/document/document';
import { useInspection } from '@/state/director/inspection';
import { isCurrent, pictureOf, useResults, wholeOf } from '@/state/director/results';
import { sceneLook } from '@/state/actions/sceneLook';
import { chosenIn, setView, useView } from '@/state/document/view';
import { Cover } from './cover';
import type { Grid } from './grid';
import type { OutlineMaterial } from './outline';
import { automatic, type Costs, sharingOf } from './pace';
import { resetProjection, useProjection } from '../state/director/projection';
import { drawnBySoftware, pixelRatioOf, prepareRenderer, type Rendering, type Viewpoint } from './rendering';
import { aim, type Picture, Rig } from './rig';
import type { shadeByAttribute } from './shading';

/** How a picture is drawn: how finely, in how many pixels, how much of the copies at once; and of how many faces it is. */
interface Manner {
  rendering: Rendering;
  ratio: number;
  share: number;
  faces: number;
}

/** Manners that come to the same picture have the same text. */
const asText = ({ rendering: { quality, light, copies }, ratio }: Manner): string =>
  JSON.stringify([quality, light, copies, ratio]);

/** Rest after which an automatic picture is drawn finely, milliseconds. */
const SETTLE = 300;

/** Draws the scene into its canvas, on demand only: when something that it shows has changed. */
export class Stage {
  readonly canvas = document.createElement('canvas');
  readonly #renderer: WebGLRenderer;
  readonly #camera = new PerspectiveCamera(36);
  readonly #rig = new Rig();
  readonly #cover = new Cover();
  readonly #orbit: OrbitControls;
  readonly #stops: (() => void)[];
  readonly #pictures: ((blob: Blob | null) => void)[] = [];
  #size = { width: 0, height: 0 };
  #shaded: typeof shadeByAttribute | null = null;
  #grid: Grid | null = null;
  /** Everything is to be framed as soon as it has been evaluated. */
  #framing = false;
  #edge: OutlineMaterial | null = null;
  #disposed = false;
  #asked = 0;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #settled = false;
  /** How the picture on the screen was drawn, as a text. */
  #drawnAs = '';
  /** The camera is held by the pointer. */
  #held = false;
  /** What resting pictures of a quality took, and of how many faces. */
  readonly #costs: Costs = {};
  /** Up to where the copies are in the picture, and how much of them goes in at a time. */
  #copied = { to: 1, share: 1 };
  /** The camera is being put where the view says, not moved by hand. */
  #ours = false;
  /** Told when the graphics are lost, and when they are back. */
  onLost: (lost: boolean) => void = () => {};

  constructor() {
    this.canvas.style.display = 'block';
    this.#renderer = new WebGLRenderer({
      canvas: this.canvas,
      antialias: false,
      // Where pictures are completed bit by bit, they must stay between the bits.
      preserveDrawingBuffer: drawnBySoftware(),
      powerPreference: 'high-performance',
    });
    prepareRenderer(this.#renderer);
    this.canvas.addEventListener('webglcontextlost', (event) => {
      // Else the browser does not give them back.
      event.preventDefault();
      this.onLost(true);
    });
    this.canvas.addEventListener('webglcontextrestored', () => {
      this.onLost(false);
      this.#moved();
    });
    this.#orbit = this.#controls();
    this.#stops = [
      useView.subscribe((now, before) => {
        if (now.eye !== before.eye) this.#follow();
        else if (now.frameAll !== before.frameAll) this.#frameSoon();
        else if (
          now.look !== before.look ||
          now.overlay !== before.overlay ||
          now.quality !== before.quality ||
          now.playing !== before.playing ||
          now.ghosts !== before.ghosts ||
          now.alone !== before.alone ||
          now.pointed !== before.pointed ||
          (now.alone && (now.growth !== before.growth || now.chosen !== before.chosen))
        )
          this.#moved();
        else if (now.shade !== before.shade) void this.#shade();
        else if (now.grid !== before.grid) void this.#lay();
      }),
      useInspection.subscribe(() => useView.getState().shade && this.#moved()),
      useDocument.subscribe((now, before) => now.scene !== before.scene && this.#follow()),
      useResults.subscribe((now, before) => {
        if (now.record === before.record && now.onScreen === before.onScreen && now.lost === before.lost) return;
        if (this.#framing && isCurrent()) this.#frameAll();
        // Camera and lens may have keys of their own.
        if (now.record?.frame !== before.record?.frame) this.#follow();
        else this.#moved();
      }),
    ];
    setPictureTaker(
      () =>
        new Promise((taken) => {
          this.#pictures.push(taken);
          // Where drawing is slow the last picture is still there, unless one is being made.
          if (drawnBySoftware() && this.canvas.dataset.drawn && this.#asked === 0 && this.#settled) this.#hand();
          else this.#ask();
        }),
    );
  }

  /** Fits the picture into a box of so many pixels of the page. */
  resize(width: number, height: number): void {
    if (width === 0 || height === 0) return;
    this.#size = { width, height };
    this.#renderer.setSize(width, height);
    this.#follow();
  }

  dispose(): void {
    this.#disposed = true;
    this.onLost = () => {};
    clearTimeout(this.#timer);
    cancelAnimationFrame(this.#asked);
    for (const stop of this.#stops) stop();
    setPictureTaker(null);
    resetProjection();
    this.#cover.take();
    this.#orbit.dispose();
    this.#edge?.dispose();
    this.#grid?.dispose();
    this.#rig.dispose();
    this.#renderer.dispose();
    this.#renderer.forceContextLoss();
    this.canvas.remove();
  }

  #controls(): OrbitControls {
    const orbit = new OrbitControls(this.#camera, this.canvas);
    orbit.enableDamping = false;
    orbit.mouseButtons = { LEFT: MOUSE.ROTATE, MIDDLE: MOUSE.PAN, RIGHT: MOUSE.PAN };
    orbit.minDistance = 0.05;
    orbit.maxDistance = 150;
    orbit.addEventListener('start', () => void (this.#held = true));
    orbit.addEventListener('end', () => {
      this.#held = false;
      this.#rest();
    });
    orbit.addEventListener('change', () => {
      if (this.#ours) return;
      const { position } = this.#camera;
      const { target } = orbit;
      setView({
        eye: { position: [position.x, position.y, position.z], target: [target.x, target.y, target.z] },
      });
    });
    return orbit;
  }

  /** The frame that is shown. */
  #frame(): number {
    return useResults.getState().record?.frame ?? useView.getState().frame;
  }

  /** Puts the camera where the view, or else the shot, says. */
  #follow(): void {
    const { width, height } = this.#size;
    if (width === 0) return;
    const { eye } = useView.getState();
    const { camera: shot, lens } = sceneLook(useDocument.getState().scene, this.#frame());
    const { position, target } = eye ?? shot;
    this.#ours = true;
    aim(this.#camera, { position, target }, lens.fov, width / height);
    this.#orbit.target.set(...target);
    this.#orbit.update();
    this.#ours = false;
    this.#moved();
  }

  /** Frames what is there; what has just been planted is framed when it is known how large it is. */
  #frameSoon(): void {
    if (isCurrent()) this.#frameAll();
    else this.#framing = true;
  }

  #frameAll(): void {
    this.#framing = false;
    const camera = this.#camera;
    const { frameOf, frameFrom } = useView.getState();
    const { center, radius } = this.#whole(frameOf) ?? ((frameOf && this.#rig.boundsOf(frameOf)) || this.#rig.bounds);
    const half = Math.min(camera.fov, camera.fov * camera.aspect) / 2;
    const reach = (1.12 * radius) / Math.sin((half * Math.PI) / 180);
    const now = camera.position.clone().sub(this.#orbit.target).normalize();
    const direction = frameFrom ? sideOf(frameFrom, now) : now;
    const position = center.clone().addScaledVector(direction, reach);
    setView({
      eye: { position: [position.x, Math.max(0.05, position.y), position.z], target: [center.x, center.y, center.z] },
    });
  }

  /** The sphere round all of a growth, or of all of them, over the range as far as it is known: framing does not depend on the frame. */
  #whole(growth: string | null): Sphere | null {
    const box = wholeOf(growth);
    if (!box) return null;
    const sphere = new Box3(new Vector3(...box.min), new Vector3(...box.max)).getBoundingSphere(new Sphere());
    return sphere.radius > 0 ? sphere : null;
  }

  /** Attributes are shown as colours by what is loaded when that is first wanted. */
  async #shade(): Promise<void> {
    this.#shaded ??= (await import('./shading')).shadeByAttribute;
    this.#moved();
  }

  /** The grid is loaded when it is first wanted. */
  async #lay(): Promise<void> {
    if (!this.#grid) {
      const { Grid } = await import('./grid');
      this.#grid ??= new Grid();
      this.#rig.three.add(this.#grid.group);
    }
    this.#moved();
  }

  readonly #recolour = (growth: string): void => {
    this.#rig.recoloured(growth);
    this.#moved();
  };

  /** Whatever changes is drawn quickly at once, and finely when it has come to rest. */
  #moved(): void {
    this.#settled = false;
    this.canvas.dataset.rest = 'false';
    this.#copied = { to: 1, share: 1 };
    this.#ask();
    this.#rest();
  }

  /** Waits until nothing has moved for a while. */
  #rest(): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => {
      if (this.#held || this.#settled || useView.getState().playing || !useResults.getState().record) return;
      this.#settled = true;
      // What was drawn while it moved may be as fine already.
      if (this.#asked === 0 && this.#pictures.length === 0 && this.#drawnAs === asText(this.#manner()))
        this.canvas.dataset.rest = String(isCurrent());
      else this.#ask();
    }, SETTLE);
  }

  /** How the picture is drawn now: how finely, and how much of the copies at once. */
  #manner(): Manner {
    const { quality, playing } = useView.getState();
    const { record, onScreen } = useResults.getState();
    const faces = record?.growths.reduce((sum, { counts }) => sum + counts.faces, 0) ?? 0;
    const rest = this.#settled && !playing;
    const software = drawnBySoftware();
    const rendering: Rendering = {
      quality: quality === 'auto' ? automatic(software, rest, this.#costs, faces) : quality,
      rest,
    };
    // Many copies the processor draws by stand-ins while things move, and bit by bit when there is time.
    const { share, light } = rendering.quality === 'draft' && software ? sharingOf(onScreen) : { share: 1, light: 0 };
    if (share < 1 && rest) rendering.copies = { from: 0, to: share };
    else if (share < 1) rendering.light = light;
    if (rendering.light === undefined)
      rendering.viewpoint = this.#viewpoint(pixelRatioOf(rendering, window.devicePixelRatio));
    return { rendering, ratio: pixelRatioOf(rendering, window.devicePixelRatio), share, faces };
  }

  #viewpoint(ratio: number): Viewpoint {
    const { x, y, z } = this.#camera.position;
    return { eye: [x, y, z], pixels: (ratio * this.#size.height) / (2 * Math.tan((this.#camera.fov * Math.PI) / 360)) };
  }

  #ask(): void {
    if (this.#asked === 0)
      this.#asked = requestAnimationFrame(() => {
        this.#asked = 0;
        if (this.#copied.to < 1) this.#complete();
        else this.#draw();
      });
  }

  #draw(): void {
    const { scene } = useDocument.getState();
    const view = useView.getState();
    const { look, overlay, playing, ghosts, shade } = view;
    const chosen = chosenIn(view);
    const alone = view.alone && chosen.length > 0 ? chosen : null;
    const { record, onScreen: plain, lost } = useResults.getState();
    const onScreen = (shade && this.#shaded?.(plain, shade, useInspection.getState().inspected)) ?? plain;
    const { width, height } = this.#size;
    // An empty picture first would only delay the real one: shaders are made while nothing else can run.
    if ((!record && !lost) || width === 0) return;
    const manner = this.#manner();
    const { rendering, ratio, share, faces } = manner;
    const { rest } = rendering;
    this.#drawnAs = asText(manner);
    const inBits = rendering.copies !== undefined;
    if (inBits) this.#cover.put(this.canvas);
    else this.#cover.take();
    const renderer = this.#renderer;
    if (renderer.getPixelRatio() !== ratio) renderer.setPixelRatio(ratio);
    const started = performance.now();
    const frame = record?.frame ?? scene.range[0];
    const others = playing ? [] : ghostsOf(frame, ghosts);
    this.#rig.show({ scene, frame, growths: onScreen, look, overlay, rendering, alone, ghosts: others });
    if (this.#grid) {
      this.#grid.group.visible = view.grid;
      this.#grid.fit(this.#rig.bounds);
    }
    this.#rig.draw(renderer, this.#camera, width, height);
    this.#outline(view.pointed?.growth ?? null);
    if (rest && rendering.quality !== 'draft') {
      renderer.getContext().finish();
      this.#costs[rendering.quality] = { faces, took: performance.now() - started };
    }
    this.canvas.dataset.drawn = rendering.quality;
    // What is still to come is no picture at rest.
    this.canvas.dataset.rest = String(!!rest && isCurrent());
    this.canvas.dataset.frame = String(record?.frame ?? '');
    useProjection.setState(({ drawn }) => ({
      camera: this.#camera,
      width,
      height,
      drawn: drawn + 1,
      radius: this.#rig.bounds.radius,
      hit: (ray) => this.#rig.hit(ray),
      recolour: this.#recolour,
    }));
    if (inBits) this.#copied = { to: share, share };
    this.#drawn(inBits ? share : 1);
  }

  /** Outlines the growth that has just been chosen in the view. */
  #outline(id: string | null): void {
    const growth = id === null ? undefined : growthIn(useDocument.getState().scene, id);
    const { width, height } = this.#size;
    if (growth && !this.#edge) void this.#loadOutline();
    if (growth) this.#edge?.fit(growth.hue, width, height);
    const drawn = growth && this.#edge && this.#rig.outline(this.#renderer, this.#camera, growth.id, this.#edge);
    this.canvas.dataset.outlined = drawn ? growth.id : '';
  }

  /** What outlines are drawn with is loaded when the first is wanted. */
  async #loadOutline(): Promise<void> {
    const { OutlineMaterial } = await import('./outline');
    if (this.#edge || this.#disposed) return;
    this.#edge = new OutlineMaterial();
    this.#moved();
  }

  /** Adds as many copies to the picture as are drawn at a time. */
  #complete(): void {
    const { to: from, share } = this.#copied;
    const to = Math.min(1, from + share);
    this.#rig.add(this.#renderer, this.#camera, { from, to });
    this.#copied = { to, share };
    this.#drawn(to);
  }

  /** A picture has been drawn, or so much of it. */
  #drawn(complete: number): void {
    if (useProjection.getState().complete !== complete) useProjection.setState({ complete });
    this.canvas.dataset.complete = String(Math.floor(100 * complete));
    this.#cover.fade(complete);
    if (complete < 1) this.#ask();
    // Reading it back holds the page: while something moves it waits until it rests.
    else if (this.#settled || useView.getState().playing || !useResults.getState().record) this.#hand();
  }

  /** Gives the picture to whoever waits for one. */
  #hand(): void {
    for (const taken of this.#pictures.splice(0)) thumbnail(this.canvas).then(taken, () => taken(null));
  }
}

/** Where one looks from, of the four sides and above; what is looked at from there already, from the other side. */
function sideOf(from: 'front' | 'side' | 'top', now: Vector3): Vector3 {
  // Straight down the camera's own upright has no direction.
  if (from === 'top') return new Vector3(0, 1, 0.001).normalize();
  const way = from === 'front' ? new Vector3(0, 0, 1) : new Vector3(1, 0, 0);
  return way.dot(now) > 0.999 ? way.negate() : way;
}

/** How many other frames are shown on each side. */
const GHOSTS = 3;

/** The frames around one, so many apart, that are ready. */
const ghostsOf = (frame: number, apart: number): NonNullable<Picture['ghosts']> =>
  apart === 0
    ? []
    : Array.from({ length: 2 * GHOSTS }, (_, i) => (i < GHOSTS ? i - GHOSTS : i - GHOSTS + 1)).flatMap((step) => {
        const growths = pictureOf(frame + step * apart);
        return growths ? [{ growths, when: step < 0 ? ('before' as const) : ('after' as const) }] : [];
      });

const THUMB = { width: 480, height: 300 };

/** A small copy of the canvas, cut to shape about its middle; must run in the task that drew it, unless drawings stay. */
function thumbnail(canvas: HTMLCanvasElement): Promise<Blob | null> {
  const small = document.createElement('canvas');
  Object.assign(small, THUMB);
  const scale = Math.max(THUMB.width / canvas.width, THUMB.height / canvas.height);
  const [w, h] = [canvas.width * scale, canvas.height * scale];
  small.getContext('2d')?.drawImage(canvas, (THUMB.width - w) / 2, (THUMB.height - h) / 2, w, h);
  return new Promise((done) => small.toBlob(done, 'image/webp', 0.85));
}
