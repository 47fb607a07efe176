const escaped = (text: string) =>
  text.replace(
    /[&<>"']/g,
    (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' })[sign] ?? sign,
  );

/** An address as we write it into messages: up to the next space, without the sign that ends a sentence. */
const ADDRESS = /https?:\/\/[^\s<>"']*[^\s<>"'.,;:!?)]/g;

/** Addresses become links; all else stays what it was typed as. */
function linked(line: string): string {
  let made = '';
  let from = 0;
  for (const { 0: address, index } of line.matchAll(ADDRESS)) {
    made += `${escaped(line.slice(from, index))}<a href="${escaped(address)}">${escaped(address)}</a>`;
    from = index + address.length;
  }
  return made + escaped(line.slice(from));
}

const style = "font-family:system-ui,'Segoe UI',sans-serif;font-size:16px;line-height:1.5;color:#1c2b2c;max-width:36em";

/**
 * A message’s text as simple HTML: its paragraphs and lines, its addresses as links, and nothing that is fetched from anywhere.
 *
 * @example messageHtml('Hello') // '<div style="…" lang="en"><p>Hello</p></div>'
 */
export function messageHtml(text: string): string {
  const paragraphs = text
    .split(/\n{2,}/)
    .map((paragraph) => `<p>${paragraph.split('\n').map(linked).join('<br>')}</p>`)
    .join('');
  return `<div style="${style}" lang="en">${paragraphs}</div>`;
}
