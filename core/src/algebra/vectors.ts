export type Vector3 = [number, number, number];

export const dot = (a: Vector3, b: Vector3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

export const cross = (a: Vector3, b: Vector3): Vector3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];

export const scaled = (a: Vector3, by: number): Vector3 => [a[0] * by, a[1] * by, a[2] * by];

export const lengthOf = (a: Vector3): number => Math.hypot(a[0], a[1], a[2]);
