import { stopPostgres } from './setup/postgres.mjs';

console.log(stopPostgres() ? 'The database has stopped.' : 'The database was not running.');
