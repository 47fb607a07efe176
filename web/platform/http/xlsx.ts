import { create as contentDisposition } from 'content-disposition';
import type { Table } from '~/core/documents/table';
import { spreadsheet } from '~/server/platform/spreadsheet';

/**
 * Tables as a spreadsheet file.
 *
 * @param name  of the file, without its ending
 */
export async function xlsxFile(name: string, tables: readonly Table[]): Promise<Response> {
  return new Response(new Uint8Array(await spreadsheet(tables)), {
    headers: {
      'Content-Type': 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
      'Content-Disposition': contentDisposition(`${name}.xlsx`),
    },
  });
}
