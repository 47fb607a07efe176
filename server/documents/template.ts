/**
 * How a document looks on paper, in Typst’s language. What is filled in comes as data and is never read as markup. Sizes in points: text of
 * 11, so that it can be read across a table.
 */
export const template = String.raw`
#let input = json(bytes(sys.inputs.content))
#let quiet = rgb("#4d5758")
#let rule = rgb("#dcd9d0")

#set document(title: input.title, author: "Gentle Margin")
#set text(lang: "en", region: "us", size: 11pt, font: input.faces.text, hyphenate: false)
#set par(leading: 0.55em, spacing: 0.7em)
#set list(indent: 0.5em)
#set enum(indent: 0.5em)
#show heading: set text(font: input.faces.heading, weight: 600)
#show heading.where(level: 1): set text(size: 22pt)
#show heading.where(level: 1): set block(below: 0.7em)
#show heading.where(level: 2): set text(size: 15pt)
#show heading.where(level: 2): set block(above: 1.3em, below: 0.6em)
#show heading.where(level: 3): set text(size: 12pt)
#show heading.where(level: 3): set block(above: 1em, below: 0.5em)

#let lines(words) = if "\n" in words { words.split("\n").map(line => text(line)).join(linebreak()) } else { text(words) }
#let paragraph(runs) = par(runs.map(run => {
  let body = lines(run.text)
  if run.bold { body = strong(body) }
  if run.italic { body = emph(body) }
  body
}).join())

#let draw(block_) = {
  let kind = block_.kind
  if kind == "heading" { heading(level: block_.level, block_.text) }
  else if kind == "text" {
    let body = lines(block_.text)
    block(sticky: block_.sticky, par(if block_.quiet { text(fill: quiet, body) } else { body }))
  }
  else if kind == "rich" {
    for one in block_.content {
      if one.type == "paragraph" { paragraph(one.runs) }
      else {
        let items = one.items.map(paragraphs => paragraphs.map(paragraph).join(parbreak()))
        if one.type == "bulletList" { list(..items) } else { enum(..items) }
      }
    }
  }
  else if kind == "facts" {
    block(sticky: block_.sticky, terms(
      separator: [],
      hanging-indent: block_.width * 1pt,
      ..block_.facts.map(fact => terms.item(box(width: block_.width * 1pt, text(fact.at(0))), lines(fact.at(1)))),
    ))
  }
  else if kind == "graph" {
    block(breakable: false, below: 1.2em, {
      image(bytes(block_.svg), format: "svg", width: 100%, alt: block_.alt)
      v(-0.4em)
      par(text(fill: quiet, block_.caption))
    })
  }
  else if kind == "table" {
    table(
      columns: block_.widths.map(width => if width == none { 1fr } else { width * 1pt }),
      // A list of one, for every column: to call a function for each cell takes a third of a long table's time.
      stroke: ((bottom: 0.5pt + rule),),
      inset: (x: 4pt, y: 4pt),
      table.header(..block_.columns.map(name => strong(name))),
      ..block_.rows.map(row => row.cells.map(cell => table.cell(breakable: row.breaks, lines(cell)))).flatten(),
    )
  }
  else if kind == "sheet" {
    table(
      columns: block_.widths.map(width => if width == none { 1fr } else { width * 1pt }),
      stroke: 0.6pt + quiet,
      inset: (x: 4pt, y: 5pt),
      align: horizon,
      table.header(..block_.columns.map(name => text(size: if block_.columns.len() > 6 { 8.5pt } else { 11pt }, strong(name)))),
      // A row is as high as what stands in it, and at least high enough to write in.
      ..block_.rows.map(row => row.enumerate().map(((at, cell)) => table.cell(breakable: false, if at == 0 { box(height: block_.height * 1pt, lines(cell)) } else { lines(cell) }))).flatten(),
    )
  }
  else if kind == "pageBreak" { pagebreak() }
  else if kind == "signatures" {
    block(breakable: false, above: 3.2em, grid(
      columns: block_.names.map(_ => 1fr),
      column-gutter: 14pt,
      ..block_.names.map(name => { line(length: 100%, stroke: 0.6pt); v(-0.5em); text(name + ", date") }),
    ))
  }
}

#for (at, one) in input.documents.enumerate() {
  let ends = label("end-" + str(at))
  // Printed on both sides and handed out, nobody has another's page on the back.
  if at > 0 { pagebreak(weak: true, to: "odd") }
  set page(
    paper: input.paper,
    flipped: one.wide,
    margin: (x: 54pt, top: 68pt, bottom: 56pt),
    header: text(size: 9pt, weight: 700, one.head),
    footer: align(right, text(size: 9pt, fill: quiet, context [Page #counter(page).display() of #counter(page).at(ends).first()])),
  )
  counter(page).update(1)
  for block_ in one.blocks { draw(block_) }
  [#metadata(at) #ends]
}
`;
