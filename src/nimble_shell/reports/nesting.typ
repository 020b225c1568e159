// Bars and boards with what is cut out of them. All text comes as data and is set as text: nothing in it is markup.
#let data = json(bytes(sys.inputs.data))
#let ink = rgb("#1B2530")
#let grey = rgb("#575F68")
#set document(title: data.title, author: "Nimble Shell")
#set page(
  paper: "a4",
  margin: (x: 16mm, top: 14mm, bottom: 16mm),
  footer: context text(size: 7.5pt, fill: grey)[
    #data.project · #data.building · #data.footer #h(1fr) #counter(page).display("1 / 1", both: true)
  ],
)
#set text(font: ("Spline Sans", "Shell Greek", "Shell Math"), size: 9pt, fill: ink, lang: "en")

#text(size: 15pt, weight: 600, data.title)
#for section in data.sections [
  #block(above: 6mm, below: 2mm, sticky: true)[
    #text(weight: 600, size: 10.5pt, section.head) #h(2mm) #text(fill: grey, section.caption)
  ]
  #for one in section.drawings [
    #block(breakable: false, above: 1.6mm, below: 1.6mm)[
      #image(bytes(one.svg), format: "svg", alt: one.words)
      #text(size: 7.5pt, fill: grey, one.words)
    ]
  ]
]
#v(4mm)
#list(..data.cautions)
