// Written by scripts/smallPictures.ts.
/** Controls whose help shows a small moving picture of their own: step and parameter, with a point between. */
export const OWN_PICTURES: readonly string[] =
  'along.lean along.vary along.whorl arc.sweep bend.over blade.cup blade.droop blade.fold burst.curve burst.droop burst.spread carry.exponent catenary.sag displace.size falloff.soft feel.reach finish.glowLength fold.soft fractal.round front.rough front.soft grow.from grow.levels grow.soft grow.stagger helix.above helix.turns noise.evolve noise.hold noise.size on-points.lean on-points.vary phyllotaxis.angle reveal.dissolve reveal.width ribbon.roll ribbon.twist rock.base rock.edges rock.lumps rules.angle rules.shorter scatter.sink scatter.steepest scatter.upright settle.height strands.apart strands.lean stretch.across sweep.twist terrain.ridges terrain.rim tips.ahead tube.swell twine.clearance twine.pitch wander.rise wander.turning wave.length wave.speed web.bow web.drift'.split(
    ' ',
  );

/** Controls whose help shows the picture of their step. */
export const STEP_PICTURES: readonly string[] =
  'array.count bend.angle blend.amount carry.tip clearance.room cup.angle displace.noise falloff.atX fold.angle follow-path.start front.reach grow.to lathe.to loft.to measure.high noise.amount picture-values.high plate.depth prune.depth respace.count ribbon.radius roll-up.amount scatter.count settle.amount smooth.rounds soft-normals.angle stretch.by subdivide.levels sweep.radius taper.amount thicken.thick thin.within tips.size tube.radius twist.turns wave.amount'.split(
    ' ',
  );
