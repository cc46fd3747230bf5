import { checkScene, type Scene } from '@uvrex/core';
import { STARTER_FRAMES } from './frames';
import kelpFrond from './kelp-frond.json';
import anemoneSway from './anemone-sway.json';
import brainCoral from './brain-coral.json';
import tetherBurn from './tether-burn.json';
import lanternWreath from './lantern-wreath.json';
import sonarBars from './sonar-bars.json';
import kelpFrondPicture from './pictures/kelp-frond.png';
import anemoneSwayPicture from './pictures/anemone-sway.png';
import brainCoralPicture from './pictures/brain-coral.png';
import tetherBurnPicture from './pictures/tether-burn.png';
import lanternWreathPicture from './pictures/lantern-wreath.png';
import sonarBarsPicture from './pictures/sonar-bars.png';

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

const starter = (id: keyof typeof STARTER_FRAMES, about: string, scene: unknown, picture: StarterPicture): Starter => ({
  id,
  about,
  scene: checkScene(scene),
  picture,
  frame: STARTER_FRAMES[id].frame,
});

/** All starters, in the order of the library. */
export const STARTERS: readonly Starter[] = [
  starter(
    'kelp-frond',
    'A stem grows out of the reef floor and sways, blades and neighbours after it, tendrils winding up.',
    kelpFrond,
    kelpFrondPicture,
  ),
  starter(
    'anemone-sway',
    'A bed of tapering arms rises from its middle outwards and sways in a current that loops.',
    anemoneSway,
    anemoneSwayPicture,
  ),
  starter(
    'brain-coral',
    'One path fills a cube without crossing itself; it grows at an even pace and is skinned as it goes.',
    brainCoral,
    brainCoralPicture,
  ),
  starter(
    'tether-burn',
    'A rope of three strands hangs between two posts and burns away from one end, its tip alight.',
    tetherBurn,
    tetherBurnPicture,
  ),
  starter(
    'lantern-wreath',
    'A five-pointed star swept round a ring rolls by a fifth of a turn, and the loop closes on itself.',
    lanternWreath,
    lanternWreathPicture,
  ),
  starter(
    'sonar-bars',
    'A row of bars that light up piece by piece, each at a level of its own.',
    sonarBars,
    sonarBarsPicture,
  ),
];
