import { create as contentDisposition } from 'content-disposition';
import { z } from 'zod';
import type { ReportDocument } from '~/core/documents/document';
import { type Format, formats } from '~/core/documents/file-name';
import { cellText, type Table } from '~/core/documents/table';
import { NotFound } from '~/server/platform/failures';
import type { School } from '~/server/school/school';
import { csvFile } from '../platform/http/csv';
import { xlsxFile } from '../platform/http/xlsx';
import { fileAnswerWords } from './words';

const types = {
  pdf: 'application/pdf',
  docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
};

/** @throws NotFound for a format that there is not */
export function formatFrom(text: string | undefined): Format {
  const parsed = z.enum(formats).safeParse(text);
  if (!parsed.success) throw new NotFound(fileAnswerWords.noSuchFormat);
  return parsed.data;
}

/** A file that the browser keeps or shows; its name says no more than what it is. */
export function fileAnswer(content: Uint8Array, type: string, name: string): Response {
  return new Response(new Uint8Array(content), {
    headers: {
      'Content-Type': type,
      'Content-Disposition': contentDisposition(name),
      'Cache-Control': 'no-store',
    },
  });
}

/** What a page can be taken away as; only what is asked for is made. */
export interface Contents {
  /** To be read. */
  paper: () => ReportDocument;
  /** Whose paper it is set for. */
  school: Pick<School, 'paper'>;
  /** To be computed with: a sheet each, of which comma-separated text holds the first. */
  tables: () => readonly [Table, ...Table[]];
}

/** A document in the format that was asked for. */
export async function documentFile(
  format: Format,
  name: string,
  { paper, tables, school }: Contents,
): Promise<Response> {
  if (format === 'xlsx') return xlsxFile(name, tables());
  if (format === 'csv') {
    const [{ fields, rows }] = tables();
    const texts = rows.map((row) => row.map(cellText));
    return csvFile(name, fields, texts);
  }
  // What makes documents is large, and is loaded when the first one is asked for.
  const content =
    format === 'pdf'
      ? await (await import('~/server/documents/pdf')).documentPdf(paper(), school.paper)
      : await (await import('~/server/documents/docx')).documentDocx(paper(), school.paper);
  return fileAnswer(content, types[format], `${name}.${format}`);
}
