import { checkScene, type Scene } from '@uvrex/core';
import { STARTER_FRAMES } from './frames';
import kelpFrondPicture from './pictures/kelp-frond.webp';
import anemoneSwayPicture from './pictures/anemone-sway.webp';
import brainCoralPicture from './pictures/brain-coral.webp';
import tetherBurnPicture from './pictures/tether-burn.webp';
import lanternWreathPicture from './pictures/lantern-wreath.webp';
import mooringChainPicture from './pictures/mooring-chain.webp';
import seaLilyPicture from './pictures/sea-lily.webp';
import urchinHeadPicture from './pictures/urchin-head.webp';
import barnacleRockPicture from './pictures/barnacle-rock.webp';
import barnacleSpreadPicture from './pictures/barnacle-spread.webp';
import wreckRevealPicture from './pictures/wreck-reveal.webp';
import kelpForestPicture from './pictures/kelp-forest.webp';
import overgrownFigureheadPicture from './pictures/overgrown-figurehead.webp';
import seaFernPicture from './pictures/sea-fern.webp';
import lanternVinePicture from './pictures/lantern-vine.webp';
import planktonWebPicture from './pictures/plankton-web.webp';
import fanCoralPicture from './pictures/fan-coral.webp';
import lettuceCoralPicture from './pictures/lettuce-coral.webp';
import eelRunPicture from './pictures/eel-run.webp';
import pierPlanksPicture from './pictures/pier-planks.webp';
import turbanShellPicture from './pictures/turban-shell.webp';
import sonarBarsPicture from './pictures/sonar-bars.webp';

/** A picture as the bundler hands it over. */
export interface StarterPicture {
  src: string;
  width: number;
  height: number;
}

/** A scene to begin from. */
export interface Starter {
  id: string;
  name: string;
  /** One sentence on what it shows. */
  about: string;
  /** The scene itself, which is fetched when it is opened. */
  scene: () => Promise<Scene>;
  picture: StarterPicture;
  /** The frame that shows it best. */
  frame: number;
}

const starter = (
  id: keyof typeof STARTER_FRAMES,
  about: string,
  load: () => Promise<{ default: unknown }>,
  picture: StarterPicture,
): Starter => ({
  id,
  name: STARTER_FRAMES[id].name,
  about,
  scene: async () => checkScene((await load()).default),
  picture,
  frame: STARTER_FRAMES[id].frame,
});

/** All starters, in the order of the library. */
export const STARTERS: readonly Starter[] = [
  starter(
    'kelp-frond',
    'A stem grows out of the reef floor and sways, blades and neighbours after it, tendrils winding up.',
    () => import('./kelp-frond.json'),
    kelpFrondPicture,
  ),
  starter(
    'anemone-sway',
    'A bed of arms stretches, draws in and sways in a current that loops, its points as dense at every length.',
    () => import('./anemone-sway.json'),
    anemoneSwayPicture,
  ),
  starter(
    'brain-coral',
    'One path fills a cube without crossing itself; it grows at an even pace and is skinned as it goes.',
    () => import('./brain-coral.json'),
    brainCoralPicture,
  ),
  starter(
    'tether-burn',
    'A drawn rope of three strands burns away from its start at an even pace, an ember leading.',
    () => import('./tether-burn.json'),
    tetherBurnPicture,
  ),
  starter(
    'lantern-wreath',
    'A five-pointed star swept round a ring rolls by a fifth of a turn, and the loop closes on itself.',
    () => import('./lantern-wreath.json'),
    lanternWreathPicture,
  ),
  starter(
    'mooring-chain',
    'Two chains are fed in from both sides and meet at a lamp; a third hangs behind. Every link keeps its own turn.',
    () => import('./mooring-chain.json'),
    mooringChainPicture,
  ),
  starter(
    'sea-lily',
    'Petals are born at the heart, open, swell and go, for ever and without a seam; a collar of feathers waves below.',
    () => import('./sea-lily.json'),
    seaLilyPicture,
  ),
  starter(
    'urchin-head',
    'Twelve hundred spines from none, in golden spirals that keep their pattern while they push outwards.',
    () => import('./urchin-head.json'),
    urchinHeadPicture,
  ),
  starter(
    'barnacle-rock',
    'Barnacles of three kinds, evenly spread, come up over a boulder as a front goes through it.',
    () => import('./barnacle-rock.json'),
    barnacleRockPicture,
  ),
  starter(
    'barnacle-spread',
    'A front spreads over a rock from a clicked place: it swells and barnacles come up, none in the bare patch; a second front takes them off again.',
    () => import('./barnacle-spread.json'),
    barnacleSpreadPicture,
  ),
  starter(
    'wreck-reveal',
    'A propeller runs over with a wire of cells from its hub; behind it the metal dissolves in with a hot edge.',
    () => import('./wreck-reveal.json'),
    wreckRevealPicture,
  ),
  starter(
    'kelp-forest',
    'Weeds of three kinds on hilly ground, each easing up in its own time, in the order of a spring, the largest first to have room.',
    () => import('./kelp-forest.json'),
    kelpForestPicture,
  ),
  starter(
    'overgrown-figurehead',
    'Four thousand plants of four kinds by odds come up as a front passes from head to foot.',
    () => import('./overgrown-figurehead.json'),
    overgrownFigureheadPicture,
  ),
  starter(
    'sea-fern',
    'Ferns branch by rules, generation after generation without a jump; stems thicken as what they carry comes up.',
    () => import('./sea-fern.json'),
    seaFernPicture,
  ),
  starter(
    'lantern-vine',
    'Tendrils twine up a mooring post either way, feeling for a hold; leaves unroll behind the tips, blossoms open at the ends.',
    () => import('./lantern-vine.json'),
    lanternVinePicture,
  ),
  starter(
    'plankton-web',
    'A net grows out from its hub, link by link; nodes swell as it comes to them, drift, and the whole of it turns.',
    () => import('./plankton-web.json'),
    planktonWebPicture,
  ),
  starter(
    'fan-coral',
    'Branches grow into a drawn fan until they have reached all of it, thick where they carry much; polyps come out at the tips, last of all.',
    () => import('./fan-coral.json'),
    fanCoralPicture,
  ),
  starter(
    'lettuce-coral',
    'Sheets rise from a spiral while their rims grow longer than there is room for, and fold into ruffles that keep apart.',
    () => import('./lettuce-coral.json'),
    lettuceCoralPicture,
  ),
  starter(
    'eel-run',
    'Two eels of loose segments chase each other round one course that noise keeps moving.',
    () => import('./eel-run.json'),
    eelRunPicture,
  ),
  starter(
    'pier-planks',
    'Planks fall one after another into a winding way and stop where they belong; posts rise, lanterns spring up.',
    () => import('./pier-planks.json'),
    pierPlanksPicture,
  ),
  starter(
    'turban-shell',
    'A scalloped whorl is swept up a shell spiral and rolls; a ninth of a turn brings it onto itself.',
    () => import('./turban-shell.json'),
    turbanShellPicture,
  ),
  starter(
    'sonar-bars',
    'A hundred bars listen to a sounding of the reef and light up piece by piece, each to its own band.',
    () => import('./sonar-bars.json'),
    sonarBarsPicture,
  ),
];
