import writeExcelFile from 'write-excel-file/node';

/**
 * Rows as a spreadsheet file. Numbers are numbers there, to be computed with; a text is a text, whatever it begins with.
 *
 * @param name  of the file, without its ending
 */
export async function xlsxFile(
  name: string,
  fields: readonly string[],
  rows: readonly (string | number | null)[][],
): Promise<Response> {
  const cell = (value: string | number | null) => {
    if (value === null || value === '') return null;
    return typeof value === 'number' ? { value, type: Number } : { value, type: String };
  };
  const head = fields.map((value) => ({ value, type: String, fontWeight: 'bold' as const }));
  const file = await writeExcelFile([head, ...rows.map((row) => row.map(cell))]).toBuffer();
  return new Response(new Uint8Array(file), {
    headers: {
      'Content-Type': 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
      'Content-Disposition': `attachment; filename="${name}.xlsx"`,
    },
  });
}
