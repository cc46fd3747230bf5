/** The picture as it was, over one that is drawn bit by bit: it goes as the new one comes. */
export class Cover {
  #canvas: HTMLCanvasElement | null = null;

  /** Lays what a canvas shows over it; its drawing must still be there. */
  put(under: HTMLCanvasElement): void {
    this.take();
    if (!under.dataset.drawn || !under.parentElement) return;
    const cover = document.createElement('canvas');
    cover.width = under.width;
    cover.height = under.height;
    cover.style.cssText = 'position:absolute;inset:0;width:100%;height:100%;pointer-events:none';
    cover.getContext('2d')?.drawImage(under, 0, 0);
    under.after(cover);
    this.#canvas = cover;
  }

  /** Lets so much of the new picture be seen, 0..1; with all of it there, the cover is gone. */
  fade(complete: number): void {
    if (complete >= 1) this.take();
    else if (this.#canvas) this.#canvas.style.opacity = String(1 - complete);
  }

  take(): void {
    this.#canvas?.remove();
    this.#canvas = null;
  }
}
