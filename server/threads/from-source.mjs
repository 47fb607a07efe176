// The same program where nothing is built: in tests, and in processes that run from their source.
import { register } from 'tsx/esm/api';

register();
const { default: run } = await import('./program.ts');
export default run;
