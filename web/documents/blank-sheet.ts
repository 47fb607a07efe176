import { z } from 'zod';
import type { ReportDocument } from '~/core/documents/document';
import { titleAsName } from '~/core/documents/file-name';
import type { School } from '~/server/school/school';
import { fileAnswer } from './file-answer';

/** Rows or times that a sheet has room for, as its address says it. */
const roomFor = z.coerce.number().int().min(1).max(60);

/** How much room is asked for; `usual` where nothing is said, or nothing that can be. */
export const roomIn = (request: Request, usual: number): number =>
  roomFor.catch(usual).parse(new URL(request.url).searchParams.get('rows') ?? usual);

/** A blank sheet to print. It says nothing that was recorded, and so stands in no access log. */
export async function sheetAnswer(sheet: ReportDocument, { paper }: Pick<School, 'paper'>): Promise<Response> {
  const { documentPdf } = await import('~/server/documents/pdf');
  return fileAnswer(await documentPdf(sheet, paper), 'application/pdf', `${titleAsName(sheet.title)}.pdf`);
}
