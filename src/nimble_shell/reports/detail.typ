// The page of a joint or a fixing. All text comes as data and is set as text: nothing in it is markup.
#let data = json(bytes(sys.inputs.data))
#let ink = rgb("#1B2530")
#let grey = rgb("#575F68")
#let sans = ("Spline Sans", "Shell Greek", "Shell Math")
#let mono = ("Spline Sans Mono", "Shell Greek", "Shell Math")
#set document(title: data.title, author: "Nimble Shell")
#set page(
  paper: "a4",
  margin: (x: 18mm, top: 16mm, bottom: 18mm),
  footer: context text(size: 7.5pt, fill: grey)[
    #data.project · #data.building · #data.footer #h(1fr) #counter(page).display("1 / 1", both: true)
  ],
)
#set text(font: sans, size: 9pt, fill: ink, lang: "en")
#set par(leading: 0.55em)
#let number(body) = text(font: mono, size: 8.5pt, body)
#let head(body) = block(above: 5mm, below: 2.2mm, sticky: true, text(weight: 600, size: 10.5pt, body))

#grid(columns: (auto, 1fr), column-gutter: 4mm, align: horizon,
  box(stroke: 0.8pt + ink, inset: (x: 3mm, y: 1.6mm), text(font: mono, weight: 600, size: 11pt, data.zone)),
  [#text(size: 15pt, weight: 600, data.title) \ #text(fill: grey)[#data.project · #data.building · #data.kind]],
)
#v(1mm)
#text(fill: grey, data.caption)

#image(bytes(sys.inputs.drawing), format: "svg", width: 100%)

#for section in data.sections [
  #head(section.head)
  #if "rows" in section [
    #table(
      columns: (1fr, ..(auto,) * (section.columns.len() - 1)),
      stroke: none,
      inset: (x: 1.4mm, y: 1mm),
      align: (left, ..(right,) * (section.columns.len() - 1)),
      table.hline(stroke: 0.8pt + ink),
      table.header(..section.columns),
      table.hline(stroke: 0.5pt + ink),
      ..section.rows.map(row => (row.at(0), ..row.slice(1).map(number))).flatten(),
      table.hline(stroke: 0.8pt + ink),
    )
  ] else if section.numbered [
    #enum(..section.items)
  ] else [
    #list(..section.items)
  ]
]

#head[Cautions]
#list(
  ..data.cautions,
  [This sheet states building physics. It is no structural design and no approval: local codes and licensed practice decide.],
)
