// Runs in a thread.
import { NodeCompiler } from '@myriaddreamin/typst-ts-node-compiler';
import { loadFonts } from './fonts';

let compiler: Promise<NodeCompiler> | undefined;

const begin = async () =>
  // Nothing is read from the folder: all that a template needs is handed to it.
  NodeCompiler.create({ workspace: '/no-such-folder', fontArgs: [{ fontBlobs: (await loadFonts()).files }] });

/** The task behind `typeset`. */
export async function setPages({ template, content }: { template: string; content: string }) {
  compiler ??= begin().catch((error) => {
    compiler = undefined;
    throw error;
  });
  const typst = await compiler;
  try {
    const made = typst.compile({ mainFileContent: template, inputs: { content } });
    if (!made.result) throw new Error(JSON.stringify(typst.fetchDiagnostics(made.takeDiagnostics() as never)));
    return { pdf: typst.pdf(made.result, { pdfStandard: 'ua-1' as never }), pages: made.result.numOfPages };
  } finally {
    // Once the answer is away.
    setImmediate(() => typst.evictCache(0));
  }
}
