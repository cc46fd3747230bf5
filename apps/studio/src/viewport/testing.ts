import { PerspectiveCamera } from 'three';
import { useProjection } from '../state/director/projection';

/** The view from 12 m in front of the middle, in a picture of 800 by 600. For tests. */
export function lookFromFront(): void {
  const camera = new PerspectiveCamera(40, 800 / 600);
  camera.position.set(0, 0, 12);
  camera.updateMatrixWorld();
  useProjection.setState({ camera, width: 800, height: 600 });
}

/** Lays what is drawn over the picture at the corner of the window. For tests. */
export function layOver(container: HTMLElement): void {
  container.querySelector('svg')!.getBoundingClientRect = () => ({ left: 0, top: 0 }) as DOMRect;
}
