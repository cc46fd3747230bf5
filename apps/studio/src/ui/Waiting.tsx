import Box from '@mui/material/Box';

/** The empty room before the studio stands. */
export function Waiting() {
  return <Box role="status" aria-label="Opening" sx={{ height: '100vh', bgcolor: 'background.default' }} />;
}
