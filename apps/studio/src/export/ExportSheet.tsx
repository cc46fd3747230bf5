'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import LinearProgress from '@mui/material/LinearProgress';
import TextField from '@mui/material/TextField';
import { useEffect, useRef, useState } from 'react';
import { useDocument } from '@/state/document/document';
import { setView, useView } from '@/state/document/view';
import { chooseByArrows } from '@/ui/arrows';
import { INK } from '@/ui/theme';
import { asProblem } from '@/state/asProblem';
import { say } from '@/state/toasts';
import type { Rendering } from '@/viewport/rendering';
import { deliver, Stopped } from './deliver';
import { type Format, FORMATS, formatOf } from './formats';
import { save } from '../state/storage/saveToDisk';
import { rangeFault, sizeFault, SIZES } from './sizes';

const QUALITIES: Rendering['quality'][] = ['draft', 'standard', 'fine'];

/** Whether frames of a range are asked for, and whether they are pictures. */
const ranged = (format: Format): boolean => ['picture', 'sequence'].includes(formatOf(format).takes);
const pictured = (format: Format): boolean => formatOf(format).takes === 'picture';

/** Delivers the scene as files. */
export function ExportSheet() {
  const scene = useDocument((state) => state.scene);
  const frame = useView((state) => state.frame);
  const [format, setFormat] = useState<Format>('mp4');
  const [size, setSize] = useState({ width: '1280', height: '720' });
  const [range, setRange] = useState({ first: String(scene.range[0]), last: String(scene.range[1]) });
  const [quality, setQuality] = useState<Rendering['quality']>('fine');
  const [work, setWork] = useState<Work | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const abort = useRef<AbortController | null>(null);
  useEffect(() => () => abort.current?.abort(), []);

  const [width, height, first, last] = [size.width, size.height, range.first, range.last].map((text) =>
    text.trim() === '' ? NaN : Number(text),
  );
  const wrong =
    (pictured(format) ? sizeFault(width, height) : null) ?? (ranged(format) ? rangeFault(first, last) : null);
  const close = (): void => {
    if (!work) setView({ sheet: null });
  };
  const start = async (): Promise<void> => {
    const { signal } = (abort.current = new AbortController());
    // Cancel works even where something never answers.
    const cancelled = new Promise<never>((_, reject) =>
      signal.addEventListener('abort', () => reject(new Stopped()), { once: true }),
    );
    setFault(null);
    setWork({ done: 0, total: 1, started: performance.now(), heard: performance.now() });
    try {
      const delivery = deliver({
        format,
        scene,
        range: [first, last],
        frame,
        style: { width, height, quality },
        signal,
        progress: (done, total) => setWork((before) => before && { ...before, done, total, heard: performance.now() }),
      });
      const file = await Promise.race([delivery, cancelled]);
      save(file);
      say({ tone: 'success', text: `${file.name} is made (${megabytes(file.blob.size)}).` });
      setView({ sheet: null });
    } catch (error) {
      if (error instanceof Stopped) return;
      const { message, advice } = asProblem(error);
      setFault(`${message} ${advice}`);
    } finally {
      setWork(null);
    }
  };

  const field = (label: string, value: string, set: (text: string) => void) => (
    <TextField
      size="small"
      label={label}
      value={value}
      onChange={(event) => set(event.target.value)}
      disabled={work !== null}
      slotProps={{ htmlInput: { inputMode: 'numeric' } }}
      sx={{ width: 104 }}
    />
  );

  return (
    <Dialog open onClose={close} maxWidth="sm" fullWidth>
      <DialogTitle>Export</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 2 }}>
        <Box
          role="radiogroup"
          aria-label="Format"
          onKeyDown={chooseByArrows}
          sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1 }}
        >
          {FORMATS.map(({ id, label, help }) => (
            <ButtonBase
              key={id}
              role="radio"
              aria-checked={format === id}
              tabIndex={format === id ? 0 : -1}
              disabled={work !== null}
              onClick={() => setFormat(id)}
              sx={{
                display: 'block',
                textAlign: 'left',
                p: 1.25,
                borderRadius: 3,
                border: `1px solid ${format === id ? INK.sprout : INK.line}`,
                bgcolor: format === id ? INK.raised : 'transparent',
                fontFamily: 'inherit',
              }}
            >
              <Box sx={{ fontWeight: 650, fontSize: 14, color: format === id ? INK.sprout : INK.text }}>{label}</Box>
              <Box sx={{ fontSize: 12, color: 'text.secondary' }}>{help}</Box>
            </ButtonBase>
          ))}
        </Box>
        {pictured(format) && (
          <Box sx={{ display: 'flex', gap: 0.75, flexWrap: 'wrap' }}>
            {SIZES.map((option) => (
              <Button
                key={option.id}
                variant="outlined"
                color={
                  Number(size.width) === option.width && Number(size.height) === option.height ? 'primary' : 'inherit'
                }
                disabled={work !== null}
                onClick={() => setSize({ width: String(option.width), height: String(option.height) })}
                sx={{ py: 0.1, borderColor: INK.line }}
              >
                {option.label}
              </Button>
            ))}
          </Box>
        )}
        {ranged(format) && (
          <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
            {pictured(format) && field('Width', size.width, (next) => setSize({ ...size, width: next }))}
            {pictured(format) && field('Height', size.height, (next) => setSize({ ...size, height: next }))}
            {field('First frame', range.first, (next) => setRange({ ...range, first: next }))}
            {field('Last frame', range.last, (next) => setRange({ ...range, last: next }))}
          </Box>
        )}
        {pictured(format) && (
          <Box
            role="radiogroup"
            aria-label="Quality"
            onKeyDown={chooseByArrows}
            sx={{ display: 'flex', gap: 0.75, alignItems: 'center', fontSize: 13, color: 'text.secondary' }}
          >
            Quality
            {QUALITIES.map((option) => (
              <Button
                key={option}
                role="radio"
                aria-checked={quality === option}
                tabIndex={quality === option ? 0 : -1}
                variant="outlined"
                color={quality === option ? 'primary' : 'inherit'}
                disabled={work !== null}
                onClick={() => setQuality(option)}
                sx={{ py: 0.1, borderColor: INK.line, textTransform: 'capitalize' }}
              >
                {option}
              </Button>
            ))}
          </Box>
        )}
        {formatOf(format).takes === 'frame' && (
          <Box sx={{ fontSize: 13, color: 'text.secondary' }}>
            Frame {frame}, all visible growths, in metres with Y up.
          </Box>
        )}
        {(wrong ?? fault) && (
          <Box role="alert" sx={{ color: 'error.main', fontSize: 13 }}>
            {wrong ?? fault}
          </Box>
        )}
        {work && (
          <Box>
            <LinearProgress
              variant={work.total > 1 ? 'determinate' : 'indeterminate'}
              value={(100 * work.done) / work.total}
              aria-label="Progress"
            />
            <Box role="status" sx={{ pt: 0.75, fontSize: 12.5, color: 'text.secondary' }}>
              {work.total > 1 ? `${work.done} of ${work.total} frames${remaining(work)}` : 'Working …'}
              <Silence since={work.heard} />
            </Box>
          </Box>
        )}
      </DialogContent>
      <DialogActions sx={{ px: 3, pb: 2 }}>
        {work ? (
          <Button color="inherit" onClick={() => abort.current?.abort()}>
            Cancel
          </Button>
        ) : (
          <>
            <Button color="inherit" onClick={close}>
              Close
            </Button>
            <Button variant="contained" disabled={wrong !== null} onClick={() => void start()}>
              Make the file
            </Button>
          </>
        )}
      </DialogActions>
    </Dialog>
  );
}

interface Work {
  done: number;
  total: number;
  /** When it began, and when it last made progress: milliseconds of `performance.now`. */
  started: number;
  heard: number;
}

/** Says how long there has been no progress, once that is long. */
function Silence({ since }: { since: number }) {
  const [now, setNow] = useState(() => performance.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(performance.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  const seconds = Math.round((now - since) / 1000);
  return seconds < 20 ? null : <> No progress for {seconds} s: wait, or cancel and try a smaller range or quality.</>;
}

function remaining({ done, total, started }: Work): string {
  if (done < 3) return '';
  const seconds = ((performance.now() - started) / 1000 / done) * (total - done);
  return seconds >= 90 ? `, about ${Math.round(seconds / 60)} min left` : `, about ${Math.ceil(seconds)} s left`;
}

const megabytes = (bytes: number): string =>
  bytes >= 1e6 ? `${(bytes / 1e6).toFixed(1)} MB` : `${Math.max(1, Math.round(bytes / 1e3))} kB`;
