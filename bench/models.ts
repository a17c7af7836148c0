/** The text of a model with so many entities, five attributes each, and two and a half relationships each. */
export function modelText(entities: number): string {
  const blocks: string[] = [];
  const sentences: string[] = [];
  for (let index = 0; index < entities; index++) {
    blocks.push(
      [
        `entity Thing${index} "The thing numbered ${index}"`,
        '  name: text(1..80), required, unique',
        '  size: integer(0..9000), default 1',
        '  weight: decimal(0.., scale 2)',
        '  kind: choice(plain, heavy, "very heavy"), required',
        '  changedAt: instant, touched',
      ].join('\n'),
    );
    const parent = Math.floor(index / 4);
    if (index > 0)
      sentences.push(`each Thing${parent} owns many Thing${index} as parts${index}, back as whole`);
    const other = (index * 7 + 3) % entities;
    sentences.push(`each Thing${index} refers to optional Thing${other} as like, back as likedBy${index}`);
    const third = (index * 13 + 5) % entities;
    if (index % 2 === 0)
      sentences.push(`each Thing${index} pairs with many Thing${third} as mates, back as matesOf${index}`);
  }
  return `design "Of ${entities} entities"\n\n${blocks.join('\n\n')}\n\n${sentences.join('\n')}\n`;
}
