/** Names that people of an invented island might bear; put together at random, they mean nobody. */
export const givenNames = (
  'Amara Anouk Aran Asel Bao Beca Bryn Caro Chidi Coral Dara Davy Demelza Elin Elowen Emre Esi Fenna Finn Gwil Hale Hana ' +
  'Harun Idris Ilya Imani Ines Iolo Isla Jago Jana Joss Juno Kaia Kenver Kit Kwame Lamorna Leif Linh Lowenna Luca Mabli ' +
  'Marek Mei Merryn Mirren Morwen Nadia Nessa Niko Nuala Odile Omar Oona Orla Otis Pasco Perran Petra Quinn Rafi Rhona Rosen ' +
  'Runa Sana Sefton Senara Silke Sorrel Tamsin Tariq Tegan Theo Tomas Tressa Uma Vesna Wanda Wren Yara Yestin Zahra Zeno'
).split(' ');

/** What some go by. */
export const shortNames: Readonly<Record<string, string>> = {
  Demelza: 'Mel',
  Kenver: 'Ken',
  Lamorna: 'Mo',
  Lowenna: 'Wenna',
  Perran: 'Pez',
  Sefton: 'Sef',
  Tamsin: 'Tam',
};

export const familyNames = (
  'Abara Adair Amsel Arkwright Asante Bakkar Barnacle Brack Brine Caddow Carrow Castaway Chandler Coble Corran Cutler Dace ' +
  'Darrow Delph Dunlin Eddystone Elver Fathom Fenn Ferro Fetch Fulmar Gannow Garrick Glass Grebe Gull Gunwale Halyard Harrow ' +
  'Heron Holt Horne Iqbal Islay Jory Keast Keel Kestle Kittow Lammas Lark Leeward Lisle Lodestone Longshore Marlow Marrack ' +
  'Mizzen Moor Nance Nayar Ness Nightingale Oake Okoro Orr Osprey Pascoe Penhallow Pilchard Plover Quill Quist Rask Reed ' +
  'Rook Rowse Sallow Samphire Sandpiper Scully Shearwater Shoal Skerry Sorley Spindrift Strand Swale Tallis Teague Tern ' +
  'Thorn Thrift Tolland Trevail Tully Umber Vale Varga Venn Wader Wake Whitby Wick Winch Wrasse Yarrow Yeo Zennor'
).split(' ');
