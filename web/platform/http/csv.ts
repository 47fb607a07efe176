import { create as contentDisposition } from 'content-disposition';
import { commaSeparated } from '~/server/platform/comma-separated';

/**
 * Rows as a file of comma-separated text.
 *
 * @param name  of the file, without its ending
 */
export function csvFile(name: string, fields: readonly string[], rows: readonly (readonly unknown[])[]): Response {
  return new Response(commaSeparated(fields, rows), {
    headers: {
      'Content-Type': 'text/csv; charset=utf-8',
      'Content-Disposition': contentDisposition(`${name}.csv`),
    },
  });
}
