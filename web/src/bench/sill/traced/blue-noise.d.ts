declare module 'three-gpu-pathtracer/src/textures/blueNoise/BlueNoiseGenerator.js' {
  export class BlueNoiseGenerator {
    /** Numbers 0…1. */
    random: () => number;
    /** Edge in pixels. */
    size: number;
    /** The rank of every pixel. */
    generate(): { data: Uint32Array; maxValue: number };
  }
}
