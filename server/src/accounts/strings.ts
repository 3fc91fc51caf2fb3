/** Every word printed on cards that is not the school's or the child's own. */
export const strings = {
  cards: (of: string) => `Name cards, ${of}`,
  qrOf: (name: string) => `${name}’s card as a code for cameras`,
  doorCard: (className: string) => `Door card, ${className}`,
  qrOfDoor: (className: string) => `The door card of ${className} as a code for cameras`,
  doorHelp:
    'For teachers. Hold it to the camera of a shared tablet, or type the letters: the tablet then shows the pegs of the class while its door is open. Keep it where pupils and visitors do not take it along.',
}
