'use client';

import CheckCircle from '@mui/icons-material/CheckCircle';
import Close from '@mui/icons-material/Close';
import RadioButtonUnchecked from '@mui/icons-material/RadioButtonUnchecked';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import IconButton from '@mui/material/IconButton';
import { useRouter } from 'next/navigation';
import { Fragment, type ReactNode, useEffect } from 'react';
import { newScene, type Scene } from '@uvrex/core';
import { STARTERS } from '@uvrex/examples';
import { MOMENTS, SMALL } from '@uvrex/examples/small';
import { freeName, keep } from '@/library/scenes';
import { db } from '@/store/db';
import { useDocument } from '@/state/document/document';
import { chosenQuality, firstView, setView, useView } from '@/state/document/view';
import { SmallPicture } from '@/ui/SmallPicture';
import { INK, MONO } from '@/ui/theme';
import { sayProblem } from '@/state/toasts';
import { isDone, type Lesson, type LessonStep } from './lesson';
import { FIRST_GROWTH, LESSONS } from './lessons';
import { playMoves } from './play';

/** Lessons beside the work: one of them step by step, or all to choose from. */
export function LessonPanel() {
  const open = useView((state) => state.lesson);
  const lesson = LESSONS.find(({ id }) => id === open?.id);
  return (
    <Box
      component="section"
      aria-label="Lessons"
      sx={{
        position: 'absolute',
        top: 50,
        left: 14,
        width: 320,
        maxHeight: 'calc(100% - 100px)',
        overflowY: 'auto',
        bgcolor: '#142026f2',
        border: `1px solid ${INK.line}`,
        borderRadius: 3,
        px: 2,
        py: 1.25,
        fontSize: 13,
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <Box component="h2" sx={{ m: 0, fontSize: 15, flex: 1 }}>
          {lesson?.title ?? 'Lessons'}
        </Box>
        <IconButton aria-label="Close the lessons" onClick={() => setView({ lesson: null })}>
          <Close fontSize="small" />
        </IconButton>
      </Box>
      {lesson ? <Steps lesson={lesson} /> : <All />}
    </Box>
  );
}

/** The lessons, each to be begun in a scene of its own. */
function All() {
  const router = useRouter();
  const begin = async ({ id, title }: Lesson): Promise<void> => {
    const made = await keep({ ...newScene(title), name: await freeName(title) });
    await db.views.add({
      ...{ id: made, ...firstView, quality: chosenQuality(), lesson: { id, done: [] } },
    });
    router.push(`/studio/${made}`);
  };
  return (
    <Box sx={{ display: 'grid', gap: 0.5, pb: 1 }}>
      <Box sx={{ color: 'text.secondary', pb: 0.5 }}>Each begins in a new scene of its own.</Box>
      {LESSONS.map((lesson) => (
        <ButtonBase
          key={lesson.id}
          onClick={() => void begin(lesson).catch(sayProblem)}
          sx={{
            display: 'flex',
            justifyContent: 'flex-start',
            gap: 1.25,
            textAlign: 'left',
            font: 'inherit',
            p: 0.75,
            borderRadius: 2,
            '&:hover': { bgcolor: INK.raised },
          }}
        >
          <Box sx={{ width: 72, height: 46, flexShrink: 0, borderRadius: 1.5, bgcolor: INK.deep, overflow: 'hidden' }}>
            <SmallPicture {...pictureOf(lesson)} moving={false} />
          </Box>
          <Box>
            <Box sx={{ fontWeight: 650 }}>{lesson.title}</Box>
            <Box sx={{ color: 'text.secondary', fontSize: 12.5 }}>
              {lesson.about}, {lesson.steps.length} steps
            </Box>
          </Box>
        </ButtonBase>
      ))}
    </Box>
  );
}

/** The picture of the starter that a lesson makes the like of; else of a plant. */
const pictureOf = ({ title }: Lesson): { src: string; moments: number } => {
  const starter = STARTERS.find(({ name }) => name === title);
  return starter ? { src: starter.picture.src, moments: 1 } : { src: SMALL['cutting-plant'], moments: MOMENTS };
};

const stands = (step: LessonStep, scene: Scene, done: boolean, played: boolean): boolean =>
  step.moves.length === 0 ? done : step.moves.every((move) => isDone(scene, move, played));

function Steps({ lesson }: { lesson: Lesson }) {
  const scene = useDocument((state) => state.scene);
  const playing = useView((state) => state.playing);
  const done = useView((state) => state.lesson?.done ?? NONE);
  // What has been done stays checked off, whatever becomes of it in the steps after it.
  const now = lesson.steps.map((step, i) => done.includes(i) || stands(step, scene, false, playing));
  const told = now.flatMap((is, i) => (is ? [i] : [])).join();
  useEffect(() => {
    const all = told === '' ? [] : told.split(',').map(Number);
    if (all.length > (useView.getState().lesson?.done.length ?? 0)) setView({ lesson: { id: lesson.id, done: all } });
  }, [told, lesson.id]);
  const next = now.indexOf(false);
  return (
    <>
      <Box component="ol" sx={{ m: 0, p: 0, listStyle: 'none', display: 'grid', gap: 1 }}>
        {lesson.steps.map((step, i) => (
          <Box
            component="li"
            key={step.text}
            aria-current={i === next ? 'step' : undefined}
            data-done={now[i]}
            sx={{ display: 'flex', gap: 1, opacity: i === next ? 1 : 0.62, lineHeight: 1.5 }}
          >
            {now[i] ? (
              <CheckCircle titleAccess="Done" sx={{ fontSize: 18, color: INK.sprout, mt: 0.15 }} />
            ) : (
              <RadioButtonUnchecked titleAccess="To do" sx={{ fontSize: 18, color: INK.mute, mt: 0.15 }} />
            )}
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <Marked text={step.text} />
              {i === next && (
                <Box sx={{ pt: 0.75 }}>
                  <Button
                    variant="outlined"
                    color="inherit"
                    onClick={() =>
                      step.moves.length === 0
                        ? setView({ lesson: { id: lesson.id, done: [...done, i] } })
                        : playMoves(step.moves)
                    }
                    sx={{ borderColor: INK.line }}
                  >
                    {step.moves.length === 0 ? 'Done' : 'Do it for me'}
                  </Button>
                </Box>
              )}
            </Box>
          </Box>
        ))}
      </Box>
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', pt: 1.25 }}>
        <Box sx={{ flex: 1, color: 'text.secondary', fontSize: 12.5 }}>
          {next < 0 ? 'That is all of it.' : lesson === FIRST_GROWTH ? 'Esc skips it.' : ''}
        </Box>
        <Button color="inherit" onClick={() => setView({ lesson: { id: '', done: [] } })}>
          All lessons
        </Button>
      </Box>
    </>
  );
}

const NONE: readonly number[] = [];

/** Text with the few signs of Markdown that lessons use. */
function Marked({ text }: { text: string }): ReactNode {
  return text.split(/(\*\*[^*]+\*\*|_[^_]+_|`[^`]+`)/).map((part, i) => {
    if (part.startsWith('**')) return <b key={i}>{part.slice(2, -2)}</b>;
    if (part.startsWith('`'))
      return (
        <Box component="code" key={i} sx={{ fontFamily: MONO, fontSize: 12, overflowWrap: 'anywhere' }}>
          {part.slice(1, -1)}
        </Box>
      );
    if (part.startsWith('_')) return <i key={i}>{part.slice(1, -1)}</i>;
    return <Fragment key={i}>{part}</Fragment>;
  });
}
