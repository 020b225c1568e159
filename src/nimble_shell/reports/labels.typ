// Labels of panels, ten on an A4 sheet. All text comes as data and is set as text: nothing in it is markup.
#let data = json(bytes(sys.inputs.data))
#let ink = rgb("#1B2530")
#let grey = rgb("#575F68")
#set document(title: data.title, author: "Nimble Shell")
#set page(paper: "a4", margin: (x: 8mm, y: 11mm))
#set text(font: ("Spline Sans", "Shell Greek", "Shell Math"), size: 8.5pt, fill: ink, lang: "en")
#let mono = ("Spline Sans Mono", "Shell Greek", "Shell Math")

#grid(columns: (1fr, 1fr), column-gutter: 4mm, row-gutter: 3mm,
  ..data.labels.map(one => box(width: 100%, height: 52mm, stroke: 0.6pt + ink, inset: 4mm)[
    #grid(columns: (1fr, auto),
      text(font: mono, weight: 600, size: 24pt, one.mark),
      align(right)[#text(size: 13pt, weight: 600)[↑ #one.up] \ #text(fill: grey, one.hand)],
    )
    #v(-1mm)
    #text(font: mono, size: 11pt, one.size) \
    #text(weight: 600, one.carry) \
    #place(right + bottom, dy: -7mm, image(bytes(one.svg), format: "svg", alt: one.mark))
    #v(1fr)
    #one.edges \
    #text(fill: grey)[#data.project · #data.building · #one.place]
  ])
)
