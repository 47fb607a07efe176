import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** What a PDF says: the text of each page, its title and its language. */
export async function textOfPdf(pdf: Uint8Array): Promise<{ pages: string[]; title: string; language: string }> {
  const document = await getDocument({ data: new Uint8Array(pdf), verbosity: 0 }).promise;
  const pages = await Promise.all(
    Array.from({ length: document.numPages }, async (_, i) => {
      const { items } = await (await document.getPage(i + 1)).getTextContent();
      return items
        .map((item) => ('str' in item ? item.str : ''))
        .join(' ')
        .replace(/\s+/g, ' ');
    }),
  );
  const { info } = await document.getMetadata();
  const { Title: title = '', Language: language = '' } = info as { Title?: string; Language?: string };
  return { pages, title, language };
}
