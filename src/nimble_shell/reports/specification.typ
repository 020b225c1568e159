// The specification sheet. All text comes as data and is set as text: nothing in it is markup.
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
#let head(body) = block(above: 5mm, below: 2.2mm, text(weight: 600, size: 10.5pt, body))

#grid(columns: (auto, 1fr), column-gutter: 4mm, align: horizon,
  box(stroke: 0.8pt + ink, inset: (x: 3mm, y: 1.6mm), text(font: mono, weight: 600, size: 11pt, data.zone)),
  [#text(size: 15pt, weight: 600, data.title) \ #text(fill: grey)[#data.project · #data.building · #data.system]],
)
#v(1mm)
#text(fill: grey)[Section, scale #data.scale, dimensions in #data.length_unit. Layers are numbered from inside. #data.condition]

#image(bytes(sys.inputs.drawing), format: "svg", width: 100%)

#head[Layers, outside to inside]
#table(
  columns: (auto, 1fr, auto, auto, auto, auto, auto),
  stroke: none,
  inset: (x: 1.4mm, y: 1mm),
  align: (left, left, right, right, right, right, left),
  table.hline(stroke: 0.8pt + ink),
  table.header(
    [], [material], [thickness], [λ, #data.units.conductivity], [#data.vapour], [area, %], [source],
  ),
  table.hline(stroke: 0.5pt + ink),
  ..data.layers.map(row => (
    number(row.at(0)), row.at(1), number(row.at(2)), number(row.at(3)), number(row.at(4)), number(row.at(5)),
    text(size: 8pt, fill: grey, row.at(6)),
  )).flatten(),
  table.hline(stroke: 0.8pt + ink),
)

#if data.points.len() > 0 [
  #list(..data.points)
]

#head[Thermal resistance, each with its kind and method]
#table(
  columns: (1fr, auto, auto),
  stroke: none,
  inset: (x: 1.4mm, y: 1mm),
  align: (left, right, right),
  table.hline(stroke: 0.8pt + ink),
  table.header([], [R, #data.units.resistance], [U, #data.units.transmittance]),
  table.hline(stroke: 0.5pt + ink),
  ..data.figures.map(row => (row.at(0), number(row.at(1)), number(row.at(2)))).flatten(),
  table.hline(stroke: 0.8pt + ink),
)

#head[Assumptions]
#list(..data.assumptions)

#head[Lines, fitting and declarations]
#list(..data.properties)

#if data.remarks.len() > 0 [
  #head[To decide and to know]
  #list(..data.remarks)
]

#if data.open.len() > 0 [
  #head[Open in the building]
  #list(..data.open)
]

#head[Cautions]
#list(
  ..data.cautions,
  [This sheet states building physics. It is no structural design and no approval: local codes and licensed practice decide.],
)
