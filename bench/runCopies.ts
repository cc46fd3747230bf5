// Copies alone, beside three's Object3D matrices: `npm run bench:copies`.
import { benchCopies } from './copies';
import { print, printExponents } from './harness';

const { rows, exponents } = await benchCopies();
print(rows);
printExponents(exponents);
