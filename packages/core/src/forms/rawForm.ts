import { Problem } from '../problem';

/** What a file of a form holds, as it stands there: n vertices in triangles. */
export interface RawForm {
  /** 3n, in the file's own unit. */
  positions: Float32Array;
  /** 3f vertex numbers. */
  indices: Uint32Array;
  /** 3n unit vectors; null where the file has none. */
  normals: Float32Array | null;
  /** 2n; null where the file has none. */
  uvs: Float32Array | null;
  /** 3n, linear RGB 0..1; null where the file has none. */
  colors: Float32Array | null;
  /** n, which of its parts each vertex belongs to; null where there is one alone. */
  parts: Float32Array | null;
  /** Which way is up as files of this kind mostly have it. */
  up: 'y' | 'z';
  /** What of the file is not taken over, in words; none where left out. */
  leftOut?: string;
}

/** What a file may hold. */
export const FORM_LIMITS = {
  bytes: 256e6,
  faces: 4e6,
  vertices: 8e6,
  parts: 65_536,
  corners: 4096,
  nodes: 100_000,
} as const;

/** Work between two yields. */
export const CHUNK = 65_536;

/** A form that cannot be read, in words that say what and where. */
export const damagedFile = (what: string): Problem =>
  new Problem(
    `The form cannot be read: ${what}.`,
    'Choose an OBJ, PLY, STL, glTF or GLB file of triangles or polygons.',
  );

/** Corners of one face of a file. @throws Problem where there are too many: a hole or a sheet of that many is none */
export function cornersWithin(count: number): void {
  if (count > FORM_LIMITS.corners)
    throw damagedFile(`a face has ${count} corners, and ${FORM_LIMITS.corners} are the most`);
}

/** Lets others work while polygons are divided: the time that takes grows with the square of their corners at worst. */
export class PolygonPace {
  #work = 0;

  /** @returns whether it is time to yield */
  add(corners: number): boolean {
    this.#work += corners * corners;
    if (this.#work < 1e6) return false;
    this.#work = 0;
    return true;
  }
}

/** Throws where there is more than can be held. */
export function within(faces: number, vertices: number): void {
  if (faces > FORM_LIMITS.faces || vertices > FORM_LIMITS.vertices)
    throw new Problem(
      `The form has ${Math.round(faces / 1e6)} million faces and ${Math.round(vertices / 1e6)} million corners; ${FORM_LIMITS.faces / 1e6} and ${FORM_LIMITS.vertices / 1e6} million are the most.`,
      'Reduce it where it was made.',
    );
}

/** Numbers in an array that grows. */
export class Growing<A extends Float32Array | Uint32Array> {
  length = 0;
  constructor(public values: A) {}

  push(value: number): void {
    if (this.length === this.values.length) {
      const more = new (this.values.constructor as new (n: number) => A)(Math.max(1024, 2 * this.length));
      more.set(this.values);
      this.values = more;
    }
    this.values[this.length++] = value;
  }

  done(): A {
    return this.values.slice(0, this.length) as A;
  }
}

export const floats = (): Growing<Float32Array> => new Growing(new Float32Array(1024));
export const integers = (): Growing<Uint32Array> => new Growing(new Uint32Array(1024));
