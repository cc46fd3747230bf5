import { hash } from '../../fields/random';
import { type Density, type Faces, fraction, type Places, shuffle } from './darts';
import { FlatPlaces } from './flatPlaces';
import { OpenCells, SIDE } from './openCells';
import type { PlacesGrid } from '../../geometry/search/placesGrid';

const { floor, max, min, sqrt } = Math;

/** Room that a place of a density needs, against one of full density; 0 where none may be. */
const roomFactor = (density: number): number => (density >= 1 ? 1 : density > 1e-4 ? 1 / sqrt(density) : 0);

/** The thinnest density that has room of its own: thinner ones have as much, so that what lies near is soon found. */
const THINNEST = 4;

const roomOf = (density: number): number => min(THINNEST, roomFactor(density));

/** Room that a place needs, against one of full density; 0 where none may be. */
export const roomAt = (density: Density | null, face: number, w0: number, w1: number, w2: number): number =>
  density ? roomOf(density(face, w0, w1, w2)) : 1;

/** Parts no larger than so many radii are tried. */
const PART = 2.3;

/** Parts smaller than this share of the radius are left. */
const SMALLEST = 1 / 32;

/** The places around are gathered for parts no larger than so many radii. */
const BLOCK = 4.6;

/** Faces larger than so many radii are filled by cells. */
const LARGE = 8;

/** Cells along a disc's radius, where faces are larger than discs. */
const CELLS = 7;

/** Parts of faces that are looked at between two yields. */
const CHUNK = 1024;

/** The next of numbers without order (Marsaglia, Xorshift RNGs, Journal of Statistical Software 8, 2003); never 0. */
function next(number: number): number {
  let x = number || 1;
  x ^= x << 13;
  x ^= x >>> 17;
  x ^= x << 5;
  return x >>> 0;
}

/**
 * Fills what room is left between places: what is not covered by their discs is split and tried until nothing is left
 * (White, Cline, Egbert, Poisson disk point sets by hierarchical dart throwing, IEEE Symposium on Interactive Ray Tracing
 * 2007). Every part of about the size of a disc gathers the places around it once, in the plane of its face.
 */
export class Gaps {
  // Parts by their corners in the plane of the face, six numbers each, the next one to be tried on top.
  readonly #open = new Float64Array(6 * 128);
  /** Room needed at their corners, three numbers each. */
  readonly #rooms = new Float64Array(3 * 128).fill(1);
  readonly #sizes = new Float64Array(128);
  /** Places whose discs may reach into what is looked at, and those that may reach into the part at hand. */
  readonly #around = new FlatPlaces();
  readonly #near = new FlatPlaces();
  readonly #cells = new OpenCells();
  /** The widest room that they were gathered for, metres. */
  #reach = 0;
  #tried = 0;
  #looked = 0;
  // The plane of the face: a corner, two unit vectors, and what makes weights.
  #face = 0;
  readonly #plane = new Float64Array(9);
  #length = 0;
  #cu = 0;
  #cv = 0;

  constructor(
    private readonly faces: Faces,
    private readonly places: Places,
    private readonly grid: PlacesGrid,
    private readonly radius: number,
    private readonly density: Density | null,
    private readonly seed: number,
  ) {}

  /** Fills one face. @returns what to wait for, where it is a large one */
  fill(face: number, yieldNow: () => Promise<void>): Promise<void> | null {
    const { positions: p, indices } = this.faces.mesh;
    const a = 3 * indices[3 * face];
    const b = 3 * indices[3 * face + 1];
    const c = 3 * indices[3 * face + 2];
    if (this.#isCovered(face, a, b, c)) return null;
    const ux = p[b] - p[a];
    const uy = p[b + 1] - p[a + 1];
    const uz = p[b + 2] - p[a + 2];
    const vx = p[c] - p[a];
    const vy = p[c + 1] - p[a + 1];
    const vz = p[c + 2] - p[a + 2];
    const length = sqrt(ux * ux + uy * uy + uz * uz);
    if (!(length > 0)) return null;
    const along = (ux * vx + uy * vy + uz * vz) / length;
    const wx = vx - (along / length) * ux;
    const wy = vy - (along / length) * uy;
    const wz = vz - (along / length) * uz;
    const height = sqrt(wx * wx + wy * wy + wz * wz);
    if (!(height > 0)) return null;
    const plane = this.#plane;
    plane[0] = p[a];
    plane[1] = p[a + 1];
    plane[2] = p[a + 2];
    plane[3] = ux / length;
    plane[4] = uy / length;
    plane[5] = uz / length;
    plane[6] = wx / height;
    plane[7] = wy / height;
    plane[8] = wz / height;
    this.#face = face;
    this.#length = length;
    this.#cu = along;
    this.#cv = height;
    const open = this.#open;
    const size = max(length, sqrt(vx * vx + vy * vy + vz * vz), sqrt((along - length) ** 2 + height * height));
    // Where it may nowhere stand, a face is left at once: smaller parts are looked at only down to the size of a disc.
    if (size < this.radius && this.faces.mostOn(face) === 0) return null;
    if (size > LARGE * this.radius && !this.density) return this.#byCells(yieldNow);
    open[0] = open[1] = open[3] = 0;
    open[2] = length;
    open[4] = along;
    open[5] = height;
    this.#sizes[0] = size;
    if (size > PART * this.radius) return this.#byParts(yieldNow);
    this.#gather(0);
    this.#narrow(0);
    this.#try(0);
    return null;
  }

  /** Whether one disc holds all of a face, as most do of small ones. @param a … where its corners' positions begin */
  #isCovered(face: number, a: number, b: number, c: number): boolean {
    const { positions: p } = this.faces.mesh;
    let least = 1;
    if (this.density) {
      const rooms = this.#rooms;
      for (let k = 0; k < 3; k++) rooms[k] = roomOf(this.faces.densityAt(face, k));
      least = min(rooms[0] || Infinity, rooms[1] || Infinity, rooms[2] || Infinity);
      if (least === Infinity) return false;
    }
    const x = (p[a] + p[b] + p[c]) / 3;
    const y = (p[a + 1] + p[b + 1] + p[c + 1]) / 3;
    const z = (p[a + 2] + p[b + 2] + p[c + 2]) / 3;
    const around = max(
      (p[a] - x) ** 2 + (p[a + 1] - y) ** 2 + (p[a + 2] - z) ** 2,
      (p[b] - x) ** 2 + (p[b + 1] - y) ** 2 + (p[b + 2] - z) ** 2,
      (p[c] - x) ** 2 + (p[c + 1] - y) ** 2 + (p[c + 2] - z) ** 2,
    );
    const within = this.radius * least - sqrt(around);
    return within > 0 && this.grid.isNear(x, y, z, within);
  }

  /** Fills a face part by part. */
  async #byParts(yieldNow: () => Promise<void>): Promise<void> {
    let around = Infinity;
    for (let top = 1; top > 0;) {
      const part = top - 1;
      // What was gathered for a larger part holds until the last of it is done.
      if (part < around) around = Infinity;
      if (around === Infinity && this.#sizes[part] <= BLOCK * this.radius) {
        this.#gather(part);
        around = part;
      }
      if (this.#sizes[part] > PART * this.radius) {
        this.#split(part);
        top += 3;
        continue;
      }
      if (this.#looked++ % CHUNK === CHUNK - 1) await yieldNow();
      this.#narrow(part);
      this.#try(part);
      top--;
    }
  }

  /** Fills a face that is larger than discs, block by block: darts into cells that no disc covers yet, then what is left of these. */
  async #byCells(yieldNow: () => Promise<void>): Promise<void> {
    const { radius } = this;
    const length = this.#length;
    const cu = this.#cu;
    const cv = this.#cv;
    const cells = this.#cells;
    const size = radius / CELLS;
    const span = SIDE * size;
    for (let low = 0; low < cv; low += span)
      for (let left = min(0, cu); left < max(length, cu); left += span) {
        if (!cells.begin(left, low, size, length, cu, cv)) continue;
        this.#looked += 16;
        if (this.#looked % CHUNK < 16) await yieldNow();
        this.#gatherAt(left + span / 2, low + span / 2, radius, span * Math.SQRT1_2);
        const around = this.#around;
        for (let k = 0; k < around.count; k++) cells.cover(around.us[k], around.vs[k], radius * radius - around.hs[k]);
        const count = cells.list();
        const { listed } = cells;
        let number = hash(this.seed, this.#tried++, 5);
        for (let n = count; n > 0; n--) {
          number = next(number);
          const i = floor(fraction(number) * n);
          const cell = listed[i];
          listed[i] = listed[n - 1];
          listed[n - 1] = cell;
          if (!cells.isOpen(cell)) continue;
          const u = left + size * ((cell & 31) + fraction(shuffle(number ^ 0x3c6ef372)));
          const v = low + size * ((cell >> 5) + fraction(shuffle(number ^ 0x1b873593)));
          if (!this.#holds(u, v) || !this.#take(u, v, around)) continue;
          const k = around.count - 1;
          cells.cover(around.us[k], around.vs[k], radius * radius - around.hs[k]);
        }
        for (let n = 0; n < count; n++) {
          const cell = listed[n];
          if (cells.isOpen(cell)) this.#tryCell(left + size * (cell & 31), low + size * (cell >> 5), size);
        }
      }
  }

  /** Whether a point in the plane of the face lies on it. */
  #holds(u: number, v: number): boolean {
    const cv = this.#cv;
    return v >= 0 && v <= cv && u * cv >= this.#cu * v && (u - this.#length) * cv <= (this.#cu - this.#length) * v;
  }

  /** Tries what a cell and the face have in common. */
  #tryCell(u: number, v: number, size: number): void {
    const [right, high] = [u + size, v + size];
    this.#narrowAt(u + size / 2, v + size / 2, size * Math.SQRT1_2);
    if (this.#holds(u, v) && this.#holds(right, v) && this.#holds(u, high) && this.#holds(right, high)) {
      this.#tryTriangle(u, v, right, v, right, high, size);
      this.#tryTriangle(u, v, right, high, u, high, size);
      return;
    }
    const ring = this.#clipped([u, v, right, v, right, high, u, high]);
    for (let k = 4; k < ring.length; k += 2)
      this.#tryTriangle(ring[0], ring[1], ring[k - 2], ring[k - 1], ring[k], ring[k + 1], size);
  }

  /** Tries half a cell of the given side, or a part of it. */
  #tryTriangle(u0: number, v0: number, u1: number, v1: number, u2: number, v2: number, side: number): void {
    const open = this.#open;
    open[0] = u0;
    open[1] = v0;
    open[2] = u1;
    open[3] = v1;
    open[4] = u2;
    open[5] = v2;
    this.#sizes[0] = Math.SQRT2 * side;
    this.#try(0);
  }

  /** What of a convex ring lies in the face (Sutherland, Hodgman, Reentrant polygon clipping, Communications of the ACM 17, 1974). */
  #clipped(ring: number[]): number[] {
    const [length, cu, cv] = [this.#length, this.#cu, this.#cv];
    const sides: ((u: number, v: number) => number)[] = [
      (_, v) => v,
      (u, v) => u * cv - cu * v,
      (u, v) => (cu - length) * v - (u - length) * cv,
    ];
    for (const side of sides) {
      const next: number[] = [];
      for (let k = 0; k < ring.length; k += 2) {
        const [u0, v0] = [ring[k], ring[k + 1]];
        const [u1, v1] = [ring[(k + 2) % ring.length], ring[(k + 3) % ring.length]];
        const [a, b] = [side(u0, v0), side(u1, v1)];
        if (a >= 0) next.push(u0, v0);
        if (a >= 0 !== b >= 0) next.push(u0 + ((u1 - u0) * a) / (a - b), v0 + ((v1 - v0) * a) / (a - b));
      }
      ring = next;
    }
    return ring;
  }

  /** Gathers the places whose discs may reach into a part. */
  #gather(part: number): void {
    const open = this.#open;
    const at = 6 * part;
    const u = (open[at] + open[at + 2] + open[at + 4]) / 3;
    const v = (open[at + 1] + open[at + 3] + open[at + 5]) / 3;
    let widest = 1;
    if (this.density) {
      const rooms = this.#rooms;
      const corner = 3 * part;
      widest = max(1, this.#room(u, v), rooms[corner], rooms[corner + 1], rooms[corner + 2]);
    }
    const reach = this.radius * widest;
    let around = 0;
    for (let k = at; k < at + 6; k += 2) around = max(around, (open[k] - u) ** 2 + (open[k + 1] - v) ** 2);
    this.#gatherAt(u, v, reach, sqrt(around));
  }

  /** Gathers the places whose discs, of radius `reach`, may come nearer than `around` to a point. */
  #gatherAt(u: number, v: number, reach: number, around: number): void {
    const plane = this.#plane;
    const count = this.grid.gather(
      plane[0] + u * plane[3] + v * plane[6],
      plane[1] + u * plane[4] + v * plane[7],
      plane[2] + u * plane[5] + v * plane[8],
      reach + around,
    );
    this.#reach = reach;
    this.#around.count = 0;
    for (let k = 0; k < count; k++) this.#know(this.grid.found[k], this.#around);
  }

  /** Of the places gathered, those whose discs may reach into a part of what they were gathered for. */
  #narrow(part: number): void {
    const open = this.#open;
    const at = 6 * part;
    const u = (open[at] + open[at + 2] + open[at + 4]) / 3;
    const v = (open[at + 1] + open[at + 3] + open[at + 5]) / 3;
    let r2 = 0;
    for (let k = at; k < at + 6; k += 2) r2 = max(r2, (open[k] - u) ** 2 + (open[k + 1] - v) ** 2);
    this.#narrowAt(u, v, sqrt(r2));
  }

  /** Of the places gathered, those whose discs may come nearer than `around` to a point. */
  #narrowAt(u: number, v: number, around: number): void {
    const reach = (this.#reach + around) ** 2;
    const { count, us, vs, hs } = this.#around;
    const near = this.#near;
    near.count = 0;
    for (let k = 0; k < count; k++) {
      const du = us[k] - u;
      const dv = vs[k] - v;
      if (du * du + dv * dv + hs[k] < reach) near.add(us[k], vs[k], hs[k]);
    }
  }

  /** Takes a place among those near, as it stands in the plane of the face. */
  #know(place: number, among: FlatPlaces): void {
    const { positions: p } = this.places;
    const plane = this.#plane;
    const x = p[3 * place] - plane[0];
    const y = p[3 * place + 1] - plane[1];
    const z = p[3 * place + 2] - plane[2];
    const u = x * plane[3] + y * plane[4] + z * plane[5];
    const v = x * plane[6] + y * plane[7] + z * plane[8];
    among.add(u, v, max(0, x * x + y * y + z * z - u * u - v * v));
  }

  /** Tries a part, and what is left open of it, until nothing is. */
  #try(part: number): void {
    const open = this.#open;
    const sizes = this.#sizes;
    for (let top = part + 1; top > part;) {
      top--;
      if (this.#isFull(top, 0)) continue;
      const at = 6 * top;
      const size = sizes[top];
      const small = size < this.radius * SMALLEST;
      let s = 1 / 3;
      let t = 1 / 3;
      if (!small) {
        const number = hash(this.seed, this.#tried++, 5);
        const root = sqrt(fraction(number));
        t = root * fraction(shuffle(number ^ 0x1b873593));
        s = 1 - root;
      }
      const r = 1 - s - t;
      const known = this.#near.count;
      const u = s * open[at] + r * open[at + 2] + t * open[at + 4];
      const v = s * open[at + 1] + r * open[at + 3] + t * open[at + 5];
      this.#take(u, v, this.#near);
      if (small || (this.#near.count > known && this.#isFull(top, known))) continue;
      this.#split(top);
      top += 4;
    }
  }

  /** Splits a part into three at its corners and one between their middles. */
  #split(part: number): void {
    const open = this.#open;
    const sizes = this.#sizes;
    const from = 6 * part;
    for (let at = from; at < from + 2; at++) {
      const a = open[at];
      const b = open[at + 2];
      const d = open[at + 4];
      const ab = (a + b) / 2;
      const bd = (b + d) / 2;
      const da = (d + a) / 2;
      open[at] = ab;
      open[at + 2] = bd;
      open[at + 4] = da;
      open[at + 6] = a;
      open[at + 8] = ab;
      open[at + 10] = da;
      open[at + 12] = b;
      open[at + 14] = bd;
      open[at + 16] = ab;
      open[at + 18] = d;
      open[at + 20] = da;
      open[at + 22] = bd;
    }
    const half = sizes[part] / 2;
    for (let k = 0; k < 4; k++) sizes[part + k] = half;
    if (this.density) this.#splitRooms(part);
  }

  /** The same for what room is needed at its corners, once it is split. */
  #splitRooms(part: number): void {
    const open = this.#open;
    const rooms = this.#rooms;
    const at = 6 * part;
    const from = 3 * part;
    const a = rooms[from];
    const b = rooms[from + 1];
    const d = rooms[from + 2];
    const ab = this.#room(open[at], open[at + 1]);
    const bd = this.#room(open[at + 2], open[at + 3]);
    const da = this.#room(open[at + 4], open[at + 5]);
    rooms[from] = ab;
    rooms[from + 1] = bd;
    rooms[from + 2] = da;
    rooms[from + 3] = a;
    rooms[from + 4] = ab;
    rooms[from + 5] = da;
    rooms[from + 6] = b;
    rooms[from + 7] = bd;
    rooms[from + 8] = ab;
    rooms[from + 9] = d;
    rooms[from + 10] = da;
    rooms[from + 11] = bd;
  }

  /** Room needed at a point of the face, against full density. */
  #room(u: number, v: number): number {
    if (!this.density) return 1;
    const w2 = v / this.#cv;
    const w1 = (u - w2 * this.#cu) / this.#length;
    return roomAt(this.density, this.#face, 1 - w1 - w2, w1, w2);
  }

  /** Takes a point of the face for a place where there is room. @param among the places that may be near */
  #take(u: number, v: number, among: FlatPlaces): boolean {
    const room = this.#room(u, v);
    if (room === 0) return false;
    const radius = this.radius * room;
    const r2 = radius * radius;
    const { count, us, vs, hs } = among;
    for (let k = 0; k < count; k++) {
      const du = us[k] - u;
      const dv = vs[k] - v;
      if (du * du + dv * dv + hs[k] < r2) return false;
    }
    const w2 = v / this.#cv;
    const w1 = (u - w2 * this.#cu) / this.#length;
    const faces = this.faces;
    faces.at(this.#face, 1 - w1 - w2, w1, w2);
    if (radius > this.#reach && this.grid.isNear(faces.x, faces.y, faces.z, radius)) return false;
    this.places.add(this.#face, faces.w0, faces.w1, faces.w2, faces.x, faces.y, faces.z);
    const place = this.places.count - 1;
    this.grid.add(place);
    this.#know(place, this.#around);
    if (among !== this.#around) this.#know(place, among);
    return true;
  }

  /** Whether no place of a part has room: one disc holds all of it, or nothing may stand there. @param since the first place that is looked at */
  #isFull(part: number, since: number): boolean {
    const open = this.#open;
    const at = 6 * part;
    const u0 = open[at];
    const v0 = open[at + 1];
    const u1 = open[at + 2];
    const v1 = open[at + 3];
    const u2 = open[at + 4];
    const v2 = open[at + 5];
    let least = 1;
    if (this.density) {
      least = Infinity;
      for (let k = 3 * part; k < 3 * part + 3; k++) if (this.#rooms[k] > 0) least = min(least, this.#rooms[k]);
      if (least === Infinity) {
        // Where it may nowhere stand at the corners, smaller parts are looked at only down to the size of a disc.
        if (this.#sizes[part] < this.radius) return true;
        least = 1;
      }
    }
    const radius = this.radius * least;
    const r2 = radius * radius;
    const { count, us, vs, hs } = this.#near;
    for (let k = since; k < count; k++) {
      const u = us[k];
      const v = vs[k];
      const most = r2 - hs[k];
      if (
        (u - u0) * (u - u0) + (v - v0) * (v - v0) < most &&
        (u - u1) * (u - u1) + (v - v1) * (v - v1) < most &&
        (u - u2) * (u - u2) + (v - v2) * (v - v2) < most
      )
        return true;
    }
    return false;
  }
}
