import type { StepDeclaration } from './declare';
import { finish } from './finish/finish';
import { skinPicture } from './finish/skinPicture';
import { front } from './grow/front';
import { grow } from './grow/grow';
import { along } from './place/along';
import { clearance } from './place/clearance';
import { falloff } from './place/falloff';
import { offset } from './place/offset';
import { onPoints } from './place/onPoints';
import { scatter } from './place/scatter';
import { tips } from './place/tips';
import { array } from './shape/array';
import { bend } from './shape/bend';
import { blend } from './shape/blend';
import { noise } from './shape/noise';
import { carry } from './shape/carry';
import { cup } from './shape/cup';
import { displace } from './shape/displace';
import { feel } from './shape/feel';
import { fold } from './shape/fold';
import { followPath } from './shape/followPath';
import { mask } from './shape/mask';
import { measure } from './shape/measure';
import { mirror } from './shape/mirror';
import { plate } from './skin/plate';
import { respace } from './shape/respace';
import { ride } from './shape/ride';
import { rollUp } from './shape/rollUp';
import { softNormals } from './skin/softNormals';
import { subdivide } from './skin/subdivide';
import { stretch } from './shape/stretch';
import { taper } from './shape/taper';
import { thicken } from './skin/thicken';
import { smooth } from './shape/smooth';
import { settle } from './shape/settle';
import { strands } from './shape/strands';
import { prune } from './shape/prune';
import { thin } from './shape/thin';
import { tableValues } from './shape/tableValues';
import { pictureValues } from './shape/pictureValues';
import { transform } from './shape/transform';
import { twist } from './shape/twist';
import { wave } from './shape/wave';
import { reveal } from './skin/reveal';
import { lathe } from './skin/lathe';
import { loft } from './skin/loft';
import { ribbon } from './skin/ribbon';
import { sweep } from './skin/sweep';
import { tube } from './skin/tube';
import { wire } from './skin/wire';
import { arc } from './start/arc';
import { burst } from './start/burst';
import { wander } from './start/wander';
import { ruffle } from './start/ruffle';
import { frill } from './start/frill';
import { placedPoints } from './start/placedPoints';
import { web } from './start/web';
import { blade } from './start/blade';
import { catenary } from './start/catenary';
import { cells } from './start/cells';
import { colonise } from './start/colonise';
import { contours } from './start/contours';
import { drawn } from './start/drawn';
import { edgePaths } from './start/edgePaths';
import { edges } from './start/edges';
import { form } from './start/form';
import { fractal } from './start/fractal';
import { helix } from './start/helix';
import { line } from './start/line';
import { phyllotaxis } from './start/phyllotaxis';
import { rock } from './start/rock';
import { rules } from './start/rules';
import { shared } from './start/shared';
import { skinOf } from './start/skinOf';
import { solid } from './start/solid';
import { tableLines } from './start/tableLines';
import { terrain } from './start/terrain';
import { text } from './start/text';
import { trail } from './start/trail';
import { twine } from './start/twine';
import { vector } from './start/vector';
import { volume } from './start/volume';

// The list holds steps of many parameter types; whoever runs one has checked the parameters against its declaration.
const list = [
  ...[
    drawn,
    line,
    arc,
    helix,
    catenary,
    colonise,
    fractal,
    rules,
    twine,
    web,
    placedPoints,
    burst,
    wander,
    ruffle,
    frill,
    text,
    vector,
    tableLines,
    edges,
    edgePaths,
    cells,
    contours,
    shared,
    trail,
    form,
    terrain,
    rock,
    skinOf,
    solid,
    blade,
    phyllotaxis,
    volume,
  ],
  ...[
    respace,
    smooth,
    thin,
    prune,
    noise,
    wave,
    bend,
    twist,
    followPath,
    ride,
    rollUp,
    fold,
    taper,
    stretch,
    carry,
    feel,
    cup,
    transform,
    settle,
    displace,
    blend,
    strands,
    mirror,
    array,
    mask,
    measure,
    tableValues,
    pictureValues,
  ],
  ...[subdivide, thicken, softNormals],
  ...[grow, front, reveal],
  ...[tube, sweep, ribbon, wire, plate, lathe, loft],
  finish,
  skinPicture,
  ...[along, scatter, onPoints, tips, offset, falloff, clearance],
] as unknown as StepDeclaration[];

/** Every step there is, in the order of work. */
export const STEPS: readonly StepDeclaration[] = list;

const byKind = new Map(list.map((step) => [step.kind, step]));

/** The declaration of a kind, or undefined when there is no such step. */
export const stepOf = (kind: string): StepDeclaration | undefined => byKind.get(kind);
