/** Lines of a cell that are kept together on paper: less than half a page. */
const MOST_LINES = 26;
/** Signs in a line of a narrow column, at the least. */
const IN_LINE = 44;

const linesOf = (text: string) =>
  text.split('\n').reduce((sum, line) => sum + Math.max(1, Math.ceil(line.length / IN_LINE)), 0);

/**
 * A text in pieces that each fit on a page, cut between paragraphs, else between words: what is kept together must not be taller than
 * the page it stands on.
 *
 * @returns one piece where it is short; joined they are the text again, but for the space where it was cut
 * @example inPieces('Planed both edges.') // ['Planed both edges.']
 */
export function inPieces(text: string): string[] {
  const pieces: string[] = [];
  let piece: string[] = [];
  let height = 0;
  const close = () => {
    if (piece.length > 0) pieces.push(piece.join('\n'));
    piece = [];
    height = 0;
  };
  for (const line of text.split('\n').flatMap(cut)) {
    const lines = linesOf(line);
    if (height + lines > MOST_LINES) close();
    piece.push(line);
    height += lines;
  }
  close();
  return pieces.length > 0 ? pieces : [''];
}

/** A paragraph in pieces of a page at most, between words where there are any. */
function cut(line: string): string[] {
  const most = MOST_LINES * IN_LINE;
  const pieces: string[] = [];
  let rest = line;
  while (rest.length > most) {
    const space = rest.lastIndexOf(' ', most);
    const at = space > most / 2 ? space : most;
    pieces.push(rest.slice(0, at));
    rest = rest.slice(at).trimStart();
  }
  return [...pieces, rest];
}
