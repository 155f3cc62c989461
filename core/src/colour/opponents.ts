/** How much of red, green and blue: lightness, and the two differences of colour by which the eye tells colours apart (Hering 1878). */
export const OPPONENTS = [
  [1 / 3, 1 / 3, 1 / 3],
  [1, -1, 0],
  [0.5, 0.5, -1],
];
