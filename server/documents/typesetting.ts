import { createRequire } from 'node:module';
import { beside } from '../platform/beside';
import { loadFonts } from './fonts';

const require = createRequire(import.meta.url);

export interface Typeset {
  pdf: Buffer;
  pages: number;
}

/** A document of a hundred pages takes seconds. */
const inThread = beside<{ template: string; content: string }, { pdf: Uint8Array; pages: number }>(
  `(() => {
    const { NodeCompiler } = require(given.compiler);
    const compiler = NodeCompiler.create({ workspace: given.workspace, fontArgs: [{ fontBlobs: given.fonts.map(Buffer.from) }] });
    return ({ template, content }) => {
      try {
        const made = compiler.compile({ mainFileContent: template, inputs: { content } });
        if (!made.result) throw new Error(JSON.stringify(compiler.fetchDiagnostics(made.takeDiagnostics())));
        return { pdf: compiler.pdf(made.result, { pdfStandard: 'ua-1' }), pages: made.result.numOfPages };
      } finally {
        // Once the answer is away.
        setImmediate(() => compiler.evictCache(0));
      }
    };
  })()`,
  async () => ({
    compiler: require.resolve('@myriaddreamin/typst-ts-node-compiler'),
    // Nothing is read from it: all that a template needs is handed to it.
    workspace: '/no-such-folder',
    fonts: (await loadFonts()).files,
  }),
);

/**
 * Sets pages from a template of Typst and what is filled in, as a PDF that keeps to PDF/UA-1 (ISO 14289-1): tagged, with bookmarks.
 *
 * @param content  reaches the template as `sys.inputs.content`, as JSON
 * @throws Error when the template fails, or what is filled in breaks the standard
 */
export async function typeset(template: string, content: unknown): Promise<Typeset> {
  const { pdf, pages } = await inThread({ template, content: JSON.stringify(content) });
  return { pdf: Buffer.from(pdf), pages };
}
