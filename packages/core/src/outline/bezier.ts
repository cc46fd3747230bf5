/** A contour in a plane: xy pairs, metres or em. */
export type Flat2 = number[];

/** Turns commands of an outline into polylines; Bézier segments are flattened. */
export class Pen {
  readonly contours: { points: Flat2; closed: boolean }[] = [];
  #points: Flat2 = [];

  /** @param tolerance largest distance of a chord from its curve, in the outline's unit */
  constructor(readonly tolerance: number) {}

  move(x: number, y: number): void {
    this.end(false);
    this.#points = [x, y];
  }

  line(x: number, y: number): void {
    const [px, py] = this.#last();
    if (px !== x || py !== y) this.#points.push(x, y);
  }

  quadratic(cx: number, cy: number, x: number, y: number): void {
    const [px, py] = this.#last();
    this.cubic(
      px + (2 / 3) * (cx - px),
      py + (2 / 3) * (cy - py),
      x + (2 / 3) * (cx - x),
      y + (2 / 3) * (cy - y),
      x,
      y,
    );
  }

  /**
   * A cubic in equal steps of its parameter, as many as keep every chord within the tolerance: Wang's bound on the
   * second difference of the control points (G. Wang, 1984; in Goldman, Pyramid Algorithms, 2003, from memory).
   */
  cubic(ax: number, ay: number, bx: number, by: number, x: number, y: number): void {
    const [px, py] = this.#last();
    const bend = Math.max(Math.hypot(px - 2 * ax + bx, py - 2 * ay + by), Math.hypot(ax - 2 * bx + x, ay - 2 * by + y));
    const steps = Math.min(200, Math.max(1, Math.ceil(Math.sqrt((0.75 * bend) / this.tolerance))));
    for (let k = 1; k < steps; k++) {
      const t = k / steps;
      const s = 1 - t;
      const [w0, w1, w2, w3] = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
      this.line(w0 * px + w1 * ax + w2 * bx + w3 * x, w0 * py + w1 * ay + w2 * by + w3 * y);
    }
    this.line(x, y);
  }

  /** Ends the contour at hand. A closed one does not repeat its first point. */
  end(closed: boolean): void {
    const points = this.#points;
    this.#points = [];
    const n = points.length;
    const back = n >= 6 && Math.hypot(points[0] - points[n - 2], points[1] - points[n - 1]) <= 1e-3 * this.tolerance;
    if (back && closed) points.length = n - 2;
    if (points.length >= 4) this.contours.push({ points, closed: closed && points.length >= 6 });
  }

  #last(): [number, number] {
    const n = this.#points.length;
    if (n === 0) this.#points = [0, 0];
    return n === 0 ? [0, 0] : [this.#points[n - 2], this.#points[n - 1]];
  }
}
