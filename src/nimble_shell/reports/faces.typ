// Faces of a set-out, a page each, A3. All text comes as data and is set as text: nothing in it is markup.
#let data = json(bytes(sys.inputs.data))
#let ink = rgb("#1B2530")
#let grey = rgb("#575F68")
#let sans = ("Spline Sans", "Shell Greek", "Shell Math")
#let mono = ("Spline Sans Mono", "Shell Greek", "Shell Math")
#set document(title: data.title, author: "Nimble Shell")
#set page(
  paper: "a3",
  flipped: true,
  margin: (x: 20mm, top: 14mm, bottom: 16mm),
  footer: context text(size: 7.5pt, fill: grey)[
    #data.project · #data.building · #data.footer #h(1fr) #counter(page).display("1 / 1", both: true)
  ],
)
#set text(font: sans, size: 8.5pt, fill: ink, lang: "en")
#let number(body) = text(font: mono, size: 8pt, body)

#for (n, one) in data.pages.enumerate() [
  #if n > 0 { pagebreak() }
  #grid(columns: (auto, 1fr, auto), column-gutter: 4mm, align: horizon,
    box(stroke: 0.8pt + ink, inset: (x: 3mm, y: 1.6mm), text(font: mono, weight: 600, size: 11pt, one.mark)),
    [#heading(level: 1, outlined: true, text(size: 14pt, weight: 600, one.title)) #text(fill: grey, one.caption)],
    text(font: mono, size: 11pt, one.scale),
  )
  #v(2mm)
  #image(bytes(one.svg), format: "svg", alt: one.title)
  #v(2mm)
  #grid(columns: (auto,) * one.tables.len(), column-gutter: 8mm, align: top, ..one.tables.map(table_ => [
    #block(below: 1.5mm, sticky: true, text(weight: 600, size: 9.5pt, table_.head))
    #table(
      columns: (auto,) * table_.columns.len(),
      stroke: none,
      inset: (x: 1.2mm, y: 0.7mm),
      table.hline(stroke: 0.7pt + ink),
      table.header(..table_.columns),
      table.hline(stroke: 0.4pt + ink),
      ..table_.rows.map(row => row.map(number)).flatten(),
      table.hline(stroke: 0.7pt + ink),
    )
  ]))
]

#v(4mm)
#list(..data.cautions)
