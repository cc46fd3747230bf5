import type { YieldNow } from '../../yieldNow';
import { hash } from '../../fields/random';
import { PlacesGrid } from '../../geometry/search/placesGrid';
import { fraction, shuffle } from './darts';
import type { Volume } from './volumes';

const { ceil, min } = Math;

/** How dense places are at a place, 0..1 of the most. */
export type VolumeDensity = (x: number, y: number, z: number, depth: number) => number;

type Dart = readonly [x: number, y: number, z: number, depth: number];

/** Factor on the least distance from round to round. */
const CLOSER = 0.9;
/** Darts of a round for each cube of its distance. */
const DARTS = 3;
/** Candidates round each place, for places by distance. */
const TRIES = 40;
/** Factor on the least radius of a packing from round to round. */
const SMALLER = 0.8;
/** Darts between two yields. */
const CHUNK = 2048;
/** Least distance, as a share of the volume's size. */
const LEAST = 1e-4;

/** Balls in flat arrays that grow, in a spatial hash of their middles. */
class Balls {
  count = 0;
  positions = new Float64Array(3 * 64);
  radii = new Float64Array(64);
  grid: PlacesGrid;

  /** @param cell side of the cells of the hash, metres */
  constructor(cell: number) {
    this.grid = new PlacesGrid(this, cell);
  }

  put(x: number, y: number, z: number, radius: number): void {
    const k = this.count++;
    if (k === this.radii.length) {
      const [positions, radii] = [new Float64Array(6 * k), new Float64Array(2 * k)];
      positions.set(this.positions);
      radii.set(this.radii);
      [this.positions, this.radii] = [positions, radii];
    }
    this.positions[3 * k] = x;
    this.positions[3 * k + 1] = y;
    this.positions[3 * k + 2] = z;
    this.radii[k] = radius;
    this.grid.add(k);
  }

  /**
   * Distance from a place to the nearest ball.
   * @param enough what is no less than this is not told exactly
   * @param largest greatest radius of any of them, metres
   */
  roomAt(x: number, y: number, z: number, enough: number, largest: number): number {
    const { positions, radii, grid } = this;
    let room = enough;
    const found = grid.gather(x, y, z, enough + largest);
    for (let n = 0; n < found; n++) {
      const i = grid.found[n];
      const away = Math.hypot(x - positions[3 * i], y - positions[3 * i + 1], z - positions[3 * i + 2]);
      room = min(room, away - radii[i]);
    }
    return room;
  }
}

/** Places in a volume. Filling it further adds to those that are there, and gives what filling it at once would. */
abstract class Filling extends Balls {
  /** Darts that have been thrown. */
  protected thrown = 0;

  constructor(
    protected readonly volume: Volume,
    protected readonly seed: number,
    protected readonly density: VolumeDensity | null,
    cell: number,
  ) {
    super(cell);
  }

  /** Throws a dart into the box round the volume; null where it misses the volume, or chance leaves the place out. */
  protected dart(round: number): Dart | null {
    const { low, high } = this.volume;
    let number = hash(this.seed, this.thrown++, round);
    const x = low[0] + (high[0] - low[0]) * fraction(number);
    number = shuffle(number ^ 0x3c6ef372);
    const y = low[1] + (high[1] - low[1]) * fraction(number);
    number = shuffle(number ^ 0x1b873593);
    const z = low[2] + (high[2] - low[2]) * fraction(number);
    return this.allowed(x, y, z, number);
  }

  /** A place with its depth; null where it is outside, or chance leaves it out. */
  protected allowed(x: number, y: number, z: number, number: number): Dart | null {
    const depth = this.volume.depth(x, y, z);
    if (!(depth > 0)) return null;
    const { density } = this;
    if (density && fraction(shuffle(number ^ 0x51ed270b)) >= density(x, y, z, depth)) return null;
    return [x, y, z, depth];
  }

  /** How many darts to throw into the box for so many in each cube of a side. */
  protected dartsFor(distance: number, each: number): number {
    const { low, high } = this.volume;
    return ceil((each * (high[0] - low[0]) * (high[1] - low[1]) * (high[2] - low[2])) / distance ** 3);
  }
}

/**
 * Places in a volume that are in blue noise however many there are: those of a wide distance first, then by and by what finds room
 * at lesser ones (McCool and Fiume, Hierarchical Poisson disk sampling distributions, 1992). Where the density is less than 1,
 * chance leaves places out.
 */
export class EvenFilling extends Filling {
  #apart: number;
  #left: number;
  #round = 0;
  #cell: number;

  constructor(volume: Volume, seed: number, density: VolumeDensity | null) {
    const wide = Math.cbrt(volume.size);
    super(volume, seed, density, wide / 2);
    [this.#apart, this.#cell] = [wide, wide / 2];
    this.#left = this.dartsFor(wide, DARTS);
  }

  /** Adds places until there are `count`; an interrupted run is resumed. */
  async fill(count: number, yieldNow: YieldNow): Promise<void> {
    const least = LEAST * Math.cbrt(this.volume.size);
    while (this.count < count && this.#apart > least) {
      if (this.thrown % CHUNK === 0) await yieldNow();
      if (this.#left-- <= 0) {
        this.#apart *= CLOSER;
        this.#left = this.dartsFor(this.#apart, DARTS);
        this.#round++;
        if (this.#apart < this.#cell) this.grid = new PlacesGrid(this, (this.#cell = this.#apart / 2));
      }
      const dart = this.dart(this.#round);
      if (dart && !this.grid.isNear(dart[0], dart[1], dart[2], this.#apart)) this.put(dart[0], dart[1], dart[2], 0);
    }
  }
}

/** Places at random, each by itself. */
export class RandomFilling extends Filling {
  constructor(volume: Volume, seed: number, density: VolumeDensity | null) {
    super(volume, seed, density, Math.cbrt(volume.size) / 8);
  }

  async fill(count: number, yieldNow: YieldNow): Promise<void> {
    // Bounded, for a density that is nearly 0 everywhere.
    const most = 1000 * count + 1e5;
    while (this.count < count && this.thrown < most) {
      if (this.thrown % CHUNK === 0) await yieldNow();
      const dart = this.dart(0);
      if (dart) this.put(dart[0], dart[1], dart[2], 0);
    }
  }
}

/**
 * Places with a least distance that leave hardly room for another: darts first, then candidates round each place (Bridson, Fast Poisson disk sampling in arbitrary dimensions, SIGGRAPH 2007).
 */
export class SpacedFilling extends Filling {
  constructor(
    volume: Volume,
    seed: number,
    density: VolumeDensity | null,
    readonly apart: number,
  ) {
    super(volume, seed, density, apart);
  }

  async fill(_: number, yieldNow: YieldNow): Promise<void> {
    for (let left = this.dartsFor(this.apart, DARTS); left > 0; left--) {
      if (left % CHUNK === 0) await yieldNow();
      this.#take(this.dart(0));
    }
    for (let k = 0; k < this.count; k++) {
      if (k % 64 === 0) await yieldNow();
      for (let t = 0; t < TRIES; t++) this.#take(this.#beside(k));
    }
  }

  #take(dart: Dart | null): void {
    if (dart && !this.grid.isNear(dart[0], dart[1], dart[2], this.apart))
      this.put(dart[0], dart[1], dart[2], this.apart / 2);
  }

  /** A dart that lands from one to two distances from a place, evenly by volume. */
  #beside(k: number): Dart | null {
    let number = hash(this.seed, this.thrown++, 1);
    const radius = this.apart * Math.cbrt(1 + 7 * fraction(number));
    number = shuffle(number ^ 0x3c6ef372);
    const up = 2 * fraction(number) - 1;
    number = shuffle(number ^ 0x1b873593);
    const [angle, level] = [2 * Math.PI * fraction(number), Math.sqrt(1 - up * up)];
    return this.allowed(
      this.positions[3 * k] + radius * level * Math.cos(angle),
      this.positions[3 * k + 1] + radius * up,
      this.positions[3 * k + 2] + radius * level * Math.sin(angle),
      number,
    );
  }
}

/**
 * Balls that touch neither another nor the skin of the volume: large ones first, each as large as its place allows, then smaller
 * ones into the gaps.
 */
export class PackedFilling extends Filling {
  /** The least radius that is taken now, and darts that are left at it. */
  #radius: number;
  #left: number;
  #round = 0;

  constructor(
    volume: Volume,
    seed: number,
    density: VolumeDensity | null,
    readonly least: number,
    readonly most: number,
  ) {
    super(volume, seed, density, 2 * most);
    this.#radius = Math.max(least, min(most, volume.deepest));
    this.#left = this.dartsFor(2 * this.#radius, 2 * DARTS);
  }

  /** Adds balls until there are `count`, or none fits any more; an interrupted run is resumed. */
  async fill(count: number, yieldNow: YieldNow): Promise<void> {
    while (this.count < count) {
      if (this.thrown % CHUNK === 0) await yieldNow();
      if (this.#left-- <= 0) {
        if (this.#radius <= this.least) return;
        this.#radius = Math.max(this.least, this.#radius * SMALLER);
        this.#left = this.dartsFor(2 * this.#radius, 2 * DARTS);
        this.#round++;
      }
      const dart = this.dart(this.#round);
      if (!dart) continue;
      const [x, y, z, depth] = dart;
      if (depth < this.#radius || !this.#isFree(x, y, z)) continue;
      const room = min(this.most, depth, this.#roomAt(x, y, z));
      this.put(x, y, z, room);
      this.#classOf(room).put(x, y, z, room);
    }
  }

  /** Balls by size: each class holds radii down to `SMALLER` of its largest, so that only near ones are looked at. */
  readonly #classes: Balls[] = [];

  #largestOf(number: number): number {
    return this.most * SMALLER ** number;
  }

  #classOf(radius: number): Balls {
    const number = Math.floor(Math.log(this.most / radius) / -Math.log(SMALLER) + 1e-9);
    for (let k = this.#classes.length; k <= number; k++) this.#classes.push(new Balls(2 * this.#largestOf(k)));
    return this.#classes[number];
  }

  /** Whether a ball of the least radius that is taken now touches no other. */
  #isFree(x: number, y: number, z: number): boolean {
    const radius = this.#radius;
    return this.#classes.every((balls, k) => balls.roomAt(x, y, z, radius, this.#largestOf(k)) >= radius);
  }

  /** Distance to the nearest ball, at most the largest radius. */
  #roomAt(x: number, y: number, z: number): number {
    return this.#classes.reduce(
      (room, balls, k) => min(room, balls.roomAt(x, y, z, room, this.#largestOf(k))),
      this.most,
    );
  }
}
