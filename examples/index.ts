import { checkScene, type Scene } from '@uvrex/core';
import { STARTER_FRAMES } from './frames';
import kelpFrond from './kelp-frond.json';
import kelpFrondPicture from './pictures/kelp-frond.png';

/** A picture as the bundler hands it over. */
export interface StarterPicture {
  src: string;
  width: number;
  height: number;
}

/** A scene to begin from. */
export interface Starter {
  id: string;
  /** One sentence on what it shows. */
  about: string;
  scene: Scene;
  picture: StarterPicture;
  /** The frame that shows it best. */
  frame: number;
}

/** All starters, in the order of the library. */
export const STARTERS: readonly Starter[] = [
  {
    id: 'kelp-frond',
    about: 'A stem grows out of the reef floor and sways, its neighbours after it, with tendrils winding up.',
    scene: checkScene(kelpFrond),
    picture: kelpFrondPicture,
    frame: STARTER_FRAMES['kelp-frond'].frame,
  },
];
