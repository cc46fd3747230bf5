'use client';

import Pause from '@mui/icons-material/Pause';
import PlayArrow from '@mui/icons-material/PlayArrow';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import IconButton from '@mui/material/IconButton';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import Slider from '@mui/material/Slider';
import TextField from '@mui/material/TextField';
import { useEffect, useMemo, useRef, useState } from 'react';
import { checkScene, type Scene } from '@uvrex/core';
import type { StoredVersion } from '@/store/db';
import { useDocument } from '@/state/document/document';
import { useView } from '@/state/document/view';
import { asProblem } from '@/state/asProblem';
import { INK, MONO } from '@/ui/theme';
import { FILM, makeFilms, momentsOf } from './films';

/** What stands for the scene as it is now among its versions. */
const NOW = 'now';

/** Two states of the scene, through the shot of each, beside each other or one wiped over the other. */
export function Compare({ versions, first }: { versions: readonly StoredVersion[]; first: string }) {
  const scene = useDocument((state) => state.scene);
  const at = useView((state) => state.frame);
  const [sides, setSides] = useState<[string, string]>([first, NOW]);
  const [wiped, setWiped] = useState(false);
  const [wipe, setWipe] = useState(50);
  const [playing, setPlaying] = useState(false);
  const frames = useMemo(() => momentsOf(scene.range), [scene.range]);
  const [frame, setFrame] = useState(() => frames.findLast((one) => one <= at) ?? frames[0]);
  const { films, made, fault } = useFilms(sides, versions, scene, frames, frame);

  useEffect(() => {
    if (!playing) return;
    const apart = frames.length > 1 ? frames[1] - frames[0] : 1;
    const timer = setInterval(
      () => setFrame((before) => frames[(frames.indexOf(before) + 1) % frames.length]),
      (1000 * apart) / scene.fps,
    );
    return () => clearInterval(timer);
  }, [playing, frames, scene.fps]);

  const nameOf = (id: string): string =>
    id === NOW ? 'As it is now' : (versions.find((version) => version.id === id)?.name ?? '');
  const chooser = (side: 0 | 1, label: string) => (
    <TextField
      select
      size="small"
      label={label}
      value={sides[side]}
      onChange={({ target }) => setSides(side === 0 ? [target.value, sides[1]] : [sides[0], target.value])}
      sx={{ flex: 1 }}
    >
      {[NOW, ...versions.map(({ id }) => id)].map((id) => (
        <MenuItem key={id} value={id}>
          {nameOf(id)}
        </MenuItem>
      ))}
    </TextField>
  );
  const share = made / (2 * frames.length);
  return (
    <Box sx={{ display: 'grid', gap: 1.5, pt: 1 }}>
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center' }}>
        {chooser(0, 'On the left')}
        {chooser(1, 'On the right')}
        <Box role="group" aria-label="How they are shown" sx={{ display: 'flex', gap: 0.5 }}>
          {[false, true].map((way) => (
            <ButtonBase
              key={String(way)}
              aria-pressed={wiped === way}
              onClick={() => setWiped(way)}
              sx={{
                px: 1.25,
                py: 0.75,
                borderRadius: 4,
                fontSize: 13,
                fontFamily: 'inherit',
                color: wiped === way ? INK.sprout : INK.mute,
                border: `1px solid ${wiped === way ? INK.sprout : INK.line}`,
              }}
            >
              {way ? 'Wipe' : 'Side by side'}
            </ButtonBase>
          ))}
        </Box>
      </Box>
      {fault && (
        <Box role="alert" sx={{ color: 'error.main', fontSize: 13 }}>
          {fault}
        </Box>
      )}
      {wiped ? (
        <Box sx={{ position: 'relative', maxWidth: 720, width: '100%', mx: 'auto' }}>
          <Film film={films[0]} frame={frame} label={nameOf(sides[0])} />
          <Box style={{ clipPath: `inset(0 0 0 ${wipe}%)` }} sx={{ position: 'absolute', inset: 0 }}>
            <Film film={films[1]} frame={frame} label={nameOf(sides[1])} />
          </Box>
          <Box
            style={{ left: `${wipe}%` }}
            sx={{ position: 'absolute', top: 0, bottom: 0, width: 2, bgcolor: INK.front, pointerEvents: 'none' }}
          />
          <Slider
            aria-label="Where one is wiped over the other"
            value={wipe}
            onChange={(_, value) => setWipe(value as number)}
            sx={{ position: 'absolute', bottom: 6, left: 0, right: 0, color: INK.front }}
          />
        </Box>
      ) : (
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
          <Film film={films[0]} frame={frame} label={nameOf(sides[0])} />
          <Film film={films[1]} frame={frame} label={nameOf(sides[1])} />
        </Box>
      )}
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2 }}>
        <IconButton
          aria-label={playing ? 'Stop both' : 'Play both'}
          onClick={() => setPlaying(!playing)}
          sx={{ bgcolor: INK.front, color: INK.deep, '&:hover': { bgcolor: INK.front } }}
        >
          {playing ? <Pause fontSize="small" /> : <PlayArrow fontSize="small" />}
        </IconButton>
        <Slider
          aria-label="Frame of both"
          min={0}
          max={frames.length - 1}
          value={Math.max(0, frames.indexOf(frame))}
          onChange={(_, value) => {
            setPlaying(false);
            setFrame(frames[value as number]);
          }}
          sx={{ flex: 1 }}
        />
        <Box sx={{ fontFamily: MONO, minWidth: 84, textAlign: 'right' }}>frame {frame}</Box>
      </Box>
      {share < 1 && !fault && (
        <LinearProgress variant="determinate" value={100 * share} aria-label="Pictures that are made" />
      )}
    </Box>
  );
}

type Film = ReadonlyMap<number, ImageBitmap>;

/** Pictures of both sides, made from the frame on that is looked at. */
function useFilms(
  sides: readonly [string, string],
  versions: readonly StoredVersion[],
  now: Scene,
  frames: number[],
  frame: number,
) {
  const [state, setState] = useState<{ films: [Film, Film]; made: number; fault: string | null }>(EMPTY);
  const [left, right] = sides;
  const known = useRef({ versions, now, frame });
  useEffect(() => void (known.current = { versions, now, frame }));
  const ready = versions.length > 0;
  useEffect(() => {
    if (!ready) return;
    const abort = new AbortController();
    const made: ImageBitmap[] = [];
    const films: [Map<number, ImageBitmap>, Map<number, ImageBitmap>] = [new Map(), new Map()];
    setState(EMPTY);
    void (async () => {
      const scenes = [left, right].map((id) =>
        id === NOW ? known.current.now : checkScene(known.current.versions.find((one) => one.id === id)!.scene),
      );
      // What is looked at comes first, and on from there.
      const from = frames.indexOf(known.current.frame);
      const order = [...frames.slice(from), ...frames.slice(0, from)];
      await makeFilms(scenes, order, abort.signal, (side, frame, picture) => {
        made.push(picture);
        films[side].set(frame, picture);
        setState({ films: [new Map(films[0]), new Map(films[1])], made: made.length, fault: null });
      });
    })().catch((error: unknown) => {
      if (!abort.signal.aborted) setState((before) => ({ ...before, fault: asProblem(error).message }));
    });
    return () => {
      abort.abort();
      for (const picture of made) picture.close();
    };
  }, [left, right, ready, frames]);
  return state;
}

const EMPTY = { films: [new Map(), new Map()] as [Film, Film], made: 0, fault: null };

/** One side at a frame; where that is not made yet, the nearest that is. */
function Film({ film, frame, label }: { film: Film; frame: number; label: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  let shown: number | null = null;
  for (const one of film.keys()) if (shown === null || Math.abs(one - frame) < Math.abs(shown - frame)) shown = one;
  const picture = shown === null ? undefined : film.get(shown);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (picture) context?.drawImage(picture, 0, 0);
  }, [picture]);
  return (
    <Box sx={{ position: 'relative' }}>
      <Box
        component="canvas"
        ref={canvas}
        role="img"
        aria-label={label}
        data-frame={shown ?? undefined}
        width={FILM.width}
        height={FILM.height}
        sx={{ display: 'block', width: '100%', aspectRatio: '16 / 9', bgcolor: INK.deep, borderRadius: 1.5 }}
      />
    </Box>
  );
}
