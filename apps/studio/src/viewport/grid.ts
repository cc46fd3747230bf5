import { BufferGeometry, Float32BufferAttribute, Group, LineBasicMaterial, LineSegments, type Sphere } from 'three';

/** Cells to each side of the middle. */
const CELLS = 20;

/** Size of a cell that fits what is shown: a tenth of a metre, a metre, ten. @param radius of all that is shown, metres */
export const cellFor = (radius: number): number => 10 ** Math.floor(Math.log10(Math.max(1e-3, radius / 2)));

/** Squares on the ground about the origin, every tenth line stronger, and the three axes. */
export class Grid {
  readonly group = new Group();
  #cell = 0;

  /** Fits its cells to what is shown. */
  fit({ radius }: Sphere): void {
    const cell = cellFor(radius);
    if (cell === this.#cell) return;
    this.#cell = cell;
    this.#clear();
    const reach = CELLS * cell;
    const [thin, thick]: number[][] = [[], []];
    for (let i = -CELLS; i <= CELLS; i++) {
      if (i === 0) continue;
      const at = i * cell;
      (i % 10 === 0 ? thick : thin).push(at, 0, -reach, at, 0, reach, -reach, 0, at, reach, 0, at);
    }
    const axes = [-reach, 0, 0, reach, 0, 0, 0, 0, -reach, 0, 0, reach, 0, 0, 0, 0, reach / 2, 0];
    this.#add(thin, 0.16);
    this.#add(thick, 0.4);
    this.#add(axes, 0.85);
  }

  dispose(): void {
    this.#clear();
  }

  #add(places: number[], opacity: number): void {
    const geometry = new BufferGeometry().setAttribute('position', new Float32BufferAttribute(places, 3));
    const material = new LineBasicMaterial({ color: '#bfe3dd', transparent: true, opacity, depthWrite: false });
    const lines = new LineSegments(geometry, material);
    // A hair above the ground, which would swallow it else.
    lines.position.y = 0.002 * this.#cell;
    lines.renderOrder = 2;
    this.group.add(lines);
  }

  #clear(): void {
    for (const child of this.group.children as LineSegments<BufferGeometry, LineBasicMaterial>[]) {
      child.geometry.dispose();
      child.material.dispose();
    }
    this.group.clear();
  }
}
