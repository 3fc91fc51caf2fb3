/** Every word printed in a letter to parents. */
export const strings = {
  lettersTitle: (school: string) => `Invitations to parents, ${school}`,
  letterHead: (children: string) => `${children}’s work, on your phone`,
  letter: (name: string, children: string) =>
    `Dear ${name},\n\nNibquill shows you what ${children} makes at school, as soon as the teacher has put it into a folder. Hold your phone’s camera over the square below and open the page it shows, or type the address.`,
  code: (children: string) => `Opens the page with ${children}’s work`,
  letterFoot:
    'This letter is for you alone: whoever has it sees your child’s work. If it gets lost, tell the school; it can be ended and made anew.',
  and: ' and ',
}
