import type { EvidenceFile } from '~/server/entries/evidence/list';

/** A picture to look at, or a file to keep: it is never run, whatever is in it. */
export function evidenceAnswer({ name, type, content }: EvidenceFile): Response {
  const isPicture = type !== 'application/pdf';
  const safe = name.replace(/[^\w. -]/g, '_');
  return new Response(new Uint8Array(content), {
    headers: {
      'Content-Type': type,
      'Content-Disposition': `${isPicture ? 'inline' : 'attachment'}; filename="${safe}"`,
      'Content-Security-Policy': "default-src 'none'; sandbox",
      'Cache-Control': 'private, max-age=300',
    },
  });
}
