/** An angle in radians brought into (−π, π]. */
export function wrapped(angle: number): number {
  const turned = angle - 2 * Math.PI * Math.floor((angle + Math.PI) / (2 * Math.PI));
  return turned <= -Math.PI ? turned + 2 * Math.PI : turned;
}
