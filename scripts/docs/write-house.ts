// npm run docs:house: draws docs/house.md anew from the imports.
import { writeFileSync } from 'node:fs';
import { housePage } from './house';

writeFileSync('docs/house.md', housePage());
