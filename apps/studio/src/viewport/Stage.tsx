'use client';

import { useFrame, useThree } from '@react-three/fiber';
import { useEffect, useMemo, useRef } from 'react';
import { MOUSE, type PerspectiveCamera } from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import { setPictureTaker } from '@/state/autosave';
import { useDocument } from '@/state/document';
import { useResults } from '@/state/results';
import { setView, useView } from '@/state/view';
import { useProjection } from './projection';
import { drawnBySoftware, pixelRatioOf, prepareRenderer, type Rendering } from './rendering';
import { aim, Rig } from './rig';

/** Rest after which an automatic picture is drawn finely, milliseconds. */
const SETTLE = 300;
/** A fine picture that took longer is not drawn again by itself. */
const PATIENCE = 1500;

/** Draws the scene into the canvas, on demand only: when something that it shows has changed. */
export function Stage() {
  const gl = useThree((state) => state.gl);
  const camera = useThree((state) => state.camera) as PerspectiveCamera;
  const size = useThree((state) => state.size);
  const invalidate = useThree((state) => state.invalidate);
  const rig = useMemo(() => new Rig(), []);
  const controls = useRef<OrbitControls | null>(null);
  const settled = useRef(false);
  const fineCost = useRef(0);
  const pictures = useRef<((blob: Blob | null) => void)[]>([]);

  useEffect(() => {
    prepareRenderer(gl);
    return () => rig.dispose();
  }, [gl, rig]);

  // Whatever changes is drawn quickly at once, and finely when it has come to rest.
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const moved = (): void => {
      settled.current = false;
      invalidate();
      clearTimeout(timer);
      timer = setTimeout(() => {
        if (useView.getState().playing || !useResults.getState().record) return;
        settled.current = true;
        invalidate();
      }, SETTLE);
    };
    const orbit = new OrbitControls(camera, gl.domElement);
    orbit.enableDamping = false;
    orbit.mouseButtons = { LEFT: MOUSE.ROTATE, MIDDLE: MOUSE.PAN, RIGHT: MOUSE.PAN };
    orbit.minDistance = 0.05;
    orbit.maxDistance = 150;
    controls.current = orbit;
    let ours = false;
    const follow = (): void => {
      const { eye } = useView.getState();
      const { camera: shot } = useDocument.getState().scene;
      const { position, target } = eye ?? shot;
      ours = true;
      aim(camera, { position, target }, shot.fov, size.width / size.height);
      orbit.target.set(...target);
      orbit.update();
      ours = false;
      moved();
    };
    const looked = (): void => {
      if (ours) return;
      const { position } = camera;
      setView({
        eye: {
          position: [position.x, position.y, position.z],
          target: [orbit.target.x, orbit.target.y, orbit.target.z],
        },
      });
    };
    orbit.addEventListener('change', looked);
    follow();
    const stops = [
      useView.subscribe((now, before) => {
        if (now.eye !== before.eye) follow();
        else if (now.frameAll !== before.frameAll) frameAll();
        else if (
          now.look !== before.look ||
          now.overlay !== before.overlay ||
          now.quality !== before.quality ||
          now.playing !== before.playing
        )
          moved();
      }),
      useDocument.subscribe((now, before) => now.scene !== before.scene && follow()),
      useResults.subscribe(
        (now, before) => (now.record !== before.record || now.onScreen !== before.onScreen) && moved(),
      ),
    ];
    const frameAll = (): void => {
      const { center, radius } = rig.bounds;
      const half = Math.min(camera.fov, camera.fov * camera.aspect) / 2;
      const reach = (1.12 * radius) / Math.sin((half * Math.PI) / 180);
      const direction = camera.position.clone().sub(orbit.target).normalize();
      const position = center.clone().addScaledVector(direction, reach);
      setView({
        eye: { position: [position.x, Math.max(0.05, position.y), position.z], target: [center.x, center.y, center.z] },
      });
    };
    setPictureTaker(
      () =>
        new Promise((taken) => {
          pictures.current.push(taken);
          invalidate();
        }),
    );
    return () => {
      clearTimeout(timer);
      for (const stop of stops) stop();
      setPictureTaker(null);
      orbit.removeEventListener('change', looked);
      orbit.dispose();
    };
  }, [camera, gl, invalidate, rig, size.width, size.height]);

  useFrame(() => {
    const { scene } = useDocument.getState();
    const { look, overlay, quality, playing } = useView.getState();
    const { record, onScreen, lost } = useResults.getState();
    // An empty picture first would only delay the real one: shaders are made while nothing else can run.
    if (!record && !lost) return;
    const rendering: Rendering = {
      quality:
        quality === 'auto'
          ? automatic(
              settled.current && !playing,
              fineCost.current,
              record?.growths.reduce((sum, { counts }) => sum + counts.faces, 0) ?? 0,
            )
          : quality,
    };
    const ratio = pixelRatioOf(rendering, window.devicePixelRatio);
    if (gl.getPixelRatio() !== ratio) gl.setPixelRatio(ratio);
    const started = performance.now();
    rig.show({ scene, frame: record?.frame ?? scene.range[0], growths: onScreen, look, overlay, rendering });
    rig.draw(gl, camera, size.width, size.height);
    if (rendering.quality === 'fine') {
      gl.getContext().finish();
      fineCost.current = performance.now() - started;
    }
    gl.domElement.dataset.drawn = rendering.quality;
    gl.domElement.dataset.frame = String(record?.frame ?? '');
    for (const taken of pictures.current.splice(0)) thumbnail(gl.domElement).then(taken, () => taken(null));
    useProjection.setState(({ drawn }) => ({ camera, width: size.width, height: size.height, drawn: drawn + 1 }));
  }, 1);

  return null;
}

/** What the processor can draw finely, or with shadows, without holding the page up for long. */
const FACES = { fine: 250_000, standard: 700_000 };

function automatic(settled: boolean, fineCost: number, faces: number): Rendering['quality'] {
  if (!drawnBySoftware()) return settled ? 'fine' : 'standard';
  if (!settled || faces > FACES.standard) return 'draft';
  return fineCost > PATIENCE || faces > FACES.fine ? 'standard' : 'fine';
}

const THUMB = { width: 480, height: 300 };

/** A small copy of the canvas, cut to shape about its middle; must run in the task that drew it. */
function thumbnail(canvas: HTMLCanvasElement): Promise<Blob | null> {
  const small = document.createElement('canvas');
  Object.assign(small, THUMB);
  const scale = Math.max(THUMB.width / canvas.width, THUMB.height / canvas.height);
  const [w, h] = [canvas.width * scale, canvas.height * scale];
  small.getContext('2d')?.drawImage(canvas, (THUMB.width - w) / 2, (THUMB.height - h) / 2, w, h);
  return new Promise((done) => small.toBlob(done, 'image/webp', 0.85));
}
