/** Places as they stand in the plane of a face. */
export class FlatPlaces {
  count = 0;
  us = new Float64Array(64);
  vs = new Float64Array(64);
  /** Squares of how far they are beside it. */
  hs = new Float64Array(64);

  add(u: number, v: number, h: number): void {
    const k = this.count++;
    if (k === this.us.length) {
      this.us = doubled(this.us);
      this.vs = doubled(this.vs);
      this.hs = doubled(this.hs);
    }
    this.us[k] = u;
    this.vs[k] = v;
    this.hs[k] = h;
  }
}

function doubled(from: Float64Array): Float64Array<ArrayBuffer> {
  const to = new Float64Array(2 * from.length);
  to.set(from);
  return to;
}
