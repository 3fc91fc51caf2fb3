/** Every word printed on name cards that is not the school's or the child's own. */
export const strings = {
  cards: (of: string) => `Name cards, ${of}`,
  qrOf: (name: string) => `${name}’s card as a code for cameras`,
}
