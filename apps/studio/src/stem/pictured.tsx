import Box from '@mui/material/Box';
import dynamic from 'next/dynamic';
import type { ReactNode } from 'react';
import type { StepDeclaration } from '@uvrex/core';
import { OWN_PICTURES, STEP_PICTURES } from '@uvrex/examples/small/controls';

/** Loaded when it is first shown: pictures are many. Until then it takes up as much room, by which a place for it is found. */
const PicturedHelp = dynamic(() => import('./PicturedHelp').then((module) => module.PicturedHelp), {
  ssr: false,
  loading: () => <Box sx={{ width: 232, height: 200 }} />,
});

/** The help of a step, with its moving picture. */
export const stepHelp = ({ kind, family, help }: StepDeclaration): ReactNode => (
  <PicturedHelp picture={`${family === 'start' ? 'start' : 'step'}-${kind}`} help={help} />
);

/** The help of a control: with a moving picture where motion says more than words. */
export function controlHelp(kind: string, name: string, help: string): ReactNode {
  const control = `${kind}.${name}`;
  if (OWN_PICTURES.includes(control)) return <PicturedHelp picture={`control-${kind}-${name}`} help={help} />;
  if (STEP_PICTURES.includes(control)) return <PicturedHelp picture={`step-${kind}`} help={help} />;
  return help;
}
