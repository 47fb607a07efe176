import { createRequire } from 'node:module';
import { Worker } from 'node:worker_threads';
import { loadFonts } from './fonts';

const require = createRequire(import.meta.url);

/**
 * What runs beside the server: a document of a hundred pages takes seconds, and nobody’s page waits for it. It is text, since a thread
 * begins with a file or a text, and a file would have to be built beside the server.
 */
const inThread = `
  const { parentPort, workerData } = require('node:worker_threads');
  const { NodeCompiler } = require(workerData.compiler);
  const compiler = NodeCompiler.create({ workspace: workerData.workspace, fontArgs: [{ fontBlobs: workerData.fonts.map(Buffer.from) }] });
  parentPort.on('message', ({ id, template, content }) => {
    try {
      const made = compiler.compile({ mainFileContent: template, inputs: { content } });
      if (!made.result) throw new Error(JSON.stringify(compiler.fetchDiagnostics(made.takeDiagnostics())));
      const pdf = compiler.pdf(made.result, { pdfStandard: 'ua-1' });
      parentPort.postMessage({ id, pdf, pages: made.result.numOfPages });
    } catch (error) {
      parentPort.postMessage({ id, failed: String(error && error.message || error) });
    }
    compiler.evictCache(0);
  });
`;

interface Waiting {
  resolve: (made: Typeset) => void;
  reject: (error: Error) => void;
}

export interface Typeset {
  pdf: Buffer;
  pages: number;
}

type Answer = { id: number; failed: string } | { id: number; failed?: undefined; pdf: Uint8Array; pages: number };

const waiting = new Map<number, Waiting>();
let thread: Promise<Worker> | undefined;
let asked = 0;

/**
 * Sets pages from a template of Typst and what is filled in, as a PDF that keeps to PDF/UA-1 (ISO 14289-1): tagged, with bookmarks.
 *
 * @param content  reaches the template as `sys.inputs.content`, as JSON
 * @throws Error when the template fails, or what is filled in breaks the standard
 */
export async function typeset(template: string, content: unknown): Promise<Typeset> {
  // What could not begin may begin the next time.
  thread ??= start().catch((error) => {
    thread = undefined;
    throw error;
  });
  const worker = await thread;
  const id = asked++;
  return new Promise((resolve, reject) => {
    waiting.set(id, { resolve, reject });
    worker.ref();
    worker.postMessage({ id, template, content: JSON.stringify(content) });
  });
}

async function start(): Promise<Worker> {
  const { files } = await loadFonts();
  const worker = new Worker(inThread, {
    eval: true,
    workerData: {
      compiler: require.resolve('@myriaddreamin/typst-ts-node-compiler'),
      // Nothing is read from it: all that a template needs is handed to it.
      workspace: '/no-such-folder',
      fonts: files,
    },
  });
  worker.on('message', (answer: Answer) => {
    const asker = waiting.get(answer.id);
    waiting.delete(answer.id);
    // A process may end while nothing is being set.
    if (waiting.size === 0) worker.unref();
    if (answer.failed !== undefined) asker?.reject(new Error(`A document could not be set: ${answer.failed}`));
    else asker?.resolve({ pdf: Buffer.from(answer.pdf), pages: answer.pages });
  });
  worker.on('error', (error) => {
    thread = undefined;
    for (const { reject } of waiting.values()) reject(error instanceof Error ? error : new Error(String(error)));
    waiting.clear();
  });
  worker.unref();
  return worker;
}
