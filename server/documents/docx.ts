import type { ReportDocument } from '~/core/documents/document';
import type { PageSize } from '~/core/school/page-size';
import { inThread } from '../platform/threads';

const written = inThread<{ report: string; paper: PageSize }, Uint8Array>('writeText', {
  seconds: 60,
  isReading: false,
});

/** A document as a text document (Office Open XML), to be worked on further. It is written in a thread. @throws Busy */
export const documentDocx = async (report: ReportDocument, paper: PageSize): Promise<Buffer> =>
  Buffer.from(await written({ report: JSON.stringify(report), paper }));
