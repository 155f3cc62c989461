import * as THREE from 'three';
import { keyLight } from '../light/key-light.ts';
import type { Part } from './drawing.ts';
import { drawn } from './drawn.ts';
import { gathered } from './gathered.ts';
import { allOf, Gatherer, type View } from './gatherer.ts';
import { canGather } from './gathering.ts';
import { Glow } from './glow.ts';
import { type MovingTier, MovingTiers } from './moving-tiers.ts';
import { type Bloom, Screen } from './screen.ts';
import { ScreenOcclusion } from './screen-occlusion.ts';

/** So long nothing moves before light is gathered. */
const REST_MS = 180;
const REST_MS_BY_PROCESSOR = 450;
/** Light is gathered for about so long, in at least and at most so many frames. */
const GATHERING_MS = 9000;
const FEWEST = 15;
const MOST = 144;
/** So many frames are gathered before their mean is better than the first one. */
const BEFORE_SHOWN = 12;
const SAMPLES = 4;

/** The frames of the Sill: one at once whenever something moves, and many for the whole light once it rests. */
export class Frames {
  readonly #gl: THREE.WebGLRenderer;
  readonly #software: boolean;
  readonly #screen: Screen;
  readonly #glow: Glow;
  #whole: Gatherer | null = null;
  #small: Gatherer | null = null;
  #size = '';
  /** By what the sides of the small gatherer are divided. */
  #smallBy = 1;
  readonly #tiers: MovingTiers;
  /** Made once it is wanted. */
  #occlusion: ScreenOcclusion | null = null;
  /** Where the viewer and the light were in the last frame. */
  #camera = new THREE.Matrix4();
  #light = new THREE.Vector3();
  /** What has moved and is not drawn yet, and whether a frame is being drawn before it. */
  #next: View | null = null;
  #isFollowing = false;
  /** When the last frame was finished. */
  #ready = 0;
  #timer = 0;
  /** Counts up whenever gathering must start again. */
  #turn = 0;
  #busy = false;

  constructor(gl: THREE.WebGLRenderer, software: boolean) {
    this.#gl = gl;
    this.#software = software;
    this.#screen = new Screen(gl);
    this.#glow = new Glow(gl, this.#screen);
    this.#tiers = new MovingTiers(!software);
  }

  #sized(whole: Part['whole']): Gatherer {
    const size = `${whole.width} ${whole.height}`;
    if (!this.#whole || this.#size !== size) {
      this.#whole?.dispose();
      this.#small?.dispose();
      this.#small = null;
      this.#whole = new Gatherer(this.#gl, this.#screen, whole, this.#software ? 0 : SAMPLES);
      this.#size = size;
      this.#tiers.forget();
    }
    return this.#whole;
  }

  #bloomOf(view: View): Bloom | null {
    const texture = this.#glow.of(view);
    return texture && { texture, from: [0, 0], size: [1, 1] };
  }

  /** What draws frames as large as the view, or with their sides divided. */
  #divided(whole: Part['whole'], by: number): Gatherer {
    const gatherer = this.#sized(whole);
    if (by === 1) return gatherer;
    if (!this.#small || this.#smallBy !== by) {
      this.#small?.dispose();
      const small = { width: Math.ceil(whole.width / by), height: Math.ceil(whole.height / by) };
      this.#small = new Gatherer(this.#gl, this.#screen, small, 0);
      this.#smallBy = by;
    }
    return this.#small;
  }

  #draw(view: View, gatherer: Gatherer, isOccluded: boolean): THREE.Texture {
    if (!isOccluded) return gatherer.draw(view);
    this.#occlusion ??= new ScreenOcclusion(this.#gl);
    return gatherer.drawOccluded(view, this.#occlusion);
  }

  #develop(light: THREE.Texture, view: View): void {
    this.#screen.develop(light, view.developing, this.#software ? null : this.#bloomOf(view), null);
  }

  /** Draws a frame and shows it; what it took, in milliseconds. */
  async #show(view: View, { dividedBy, isOccluded }: MovingTier): Promise<number> {
    const asked = performance.now();
    const gatherer = this.#divided(view.whole, dividedBy);
    const light = this.#draw(view, gatherer, isOccluded);
    // The page waits for all that was asked of the processor before it shows the canvas.
    if (this.#software) await drawn(this.#gl);
    if (gatherer === this.#whole || gatherer === this.#small) this.#develop(light, view);
    if (!this.#software) await drawn(this.#gl);
    // A frame waits for those before it.
    const now = performance.now();
    const took = now - Math.max(asked, this.#ready);
    this.#ready = now;
    await this.#shown();
    return took;
  }

  /** Ends once the page shows what the canvas holds, where a processor draws both. */
  async #shown(): Promise<void> {
    if (!this.#software) return;
    for (let k = 0; k < 2; k++) await new Promise(requestAnimationFrame);
  }

  /** Draws a frame as large as the view, for what measures it. */
  whole(view: View): void {
    this.stop();
    this.#develop(this.#sized(view.whole).draw(view), view);
  }

  /** Whether only the viewer has moved since the last frame: shadows are where they were. */
  #isLookAlone({ camera }: View): boolean {
    const light = keyLight.now?.light.position;
    camera.updateMatrixWorld();
    const isMoved = !camera.matrixWorld.equals(this.#camera);
    const isSameLight = light?.equals(this.#light) === true;
    this.#camera.copy(camera.matrixWorld);
    if (light) this.#light.copy(light);
    return isMoved && isSameLight;
  }

  /** Draws a frame now, and all of it once nothing has moved for a while. */
  moved(view: View): void {
    this.stop();
    if (this.#busy) return;
    gathered.setState({ isMoving: true, frames: 0, of: 0 });
    this.#next = view;
    if (!this.#isFollowing) void this.#follow();
  }

  /** Shows what has moved: at once, or after the frame that a processor is still drawing. */
  async #follow(): Promise<void> {
    this.#isFollowing = this.#software;
    try {
      while (this.#next) {
        const view = this.#next;
        this.#next = null;
        const turn = this.#turn;
        this.#sized(view.whole);
        const tier = this.#tiers.now;
        const isOccluded = this.#isOccluded(view, tier);
        const { shadowMap } = this.#gl;
        shadowMap.autoUpdate = !this.#isLookAlone(view);
        const showing = this.#show(view, { ...tier, isOccluded });
        shadowMap.autoUpdate = true;
        const took = await showing;
        if (this.#busy) break;
        const movingMs = this.#tiers.took(tier, took);
        if (movingMs !== null) gathered.setState({ movingMs, dividedBy: tier.dividedBy, isOccluded });
        if (turn === this.#turn) this.#rest(view, tier.dividedBy === 1);
      }
    } finally {
      this.#isFollowing = false;
    }
  }

  /** Whether what is seen hides the sky in a moving frame: two whole views side by side have no one depth. */
  #isOccluded({ developing, split, isAlwaysOccluded }: View, tier: MovingTier): boolean {
    if (developing.tone === null || split?.by === 'halves') return false;
    return tier.isOccluded || isAlwaysOccluded;
  }

  /** Draws the whole light of what has not moved for a while; `isWhole` where the moving frame was as large as the view. */
  #rest(view: View, isWhole: boolean): void {
    const isGathered = view.developing.tone !== null && canGather();
    if (isWhole && !isGathered) {
      gathered.setState({ isMoving: false });
      return;
    }
    const turn = this.#turn;
    const wait = this.#software ? REST_MS_BY_PROCESSOR : REST_MS;
    this.#timer = window.setTimeout(async () => {
      const whole = isWhole ? 0 : await this.#show(view, { dividedBy: 1, isOccluded: false });
      if (turn !== this.#turn) return;
      if (isGathered) void this.#gather(view, whole);
      else gathered.setState({ isMoving: false });
    }, wait);
  }

  /** Gathers light over frames of which one takes at least `leastMs`. */
  async #gather(view: View, leastMs: number): Promise<void> {
    const turn = ++this.#turn;
    // It leaves shadows of other lights behind.
    this.#light.setScalar(Number.NaN);
    const gatherer = this.#sized(view.whole);
    const part = allOf(view.whole);
    const bloom = this.#bloomOf(view);
    await drawn(this.#gl);
    let start = performance.now();
    let count: number = FEWEST;
    if (leastMs * FEWEST < GATHERING_MS) {
      // How many frames there is time for is measured; the first one also makes programs.
      if (turn !== this.#turn) return;
      gatherer.add(view, part, 0, count);
      await drawn(this.#gl);
      const each = performance.now() - start;
      count = 3 * Math.round(Math.min(MOST, Math.max(FEWEST, GATHERING_MS / each)) / 3);
      start = performance.now();
    }
    for (let k = 0; k < count; k++) {
      if (turn !== this.#turn || this.#gl.getContext().isContextLost()) return;
      const mean = gatherer.add(view, part, k, count);
      await drawn(this.#gl);
      if (turn !== this.#turn) return;
      if (k + 1 >= BEFORE_SHOWN && ((k + 1) % 6 === 0 || k + 1 === count)) {
        this.#screen.develop(mean, view.developing, bloom, null);
        await this.#shown();
      }
      if (turn === this.#turn)
        gathered.setState({
          isMoving: false,
          frames: k + 1,
          of: count,
          frameMs: (performance.now() - start) / (k + 1),
        });
    }
  }

  /** Ends gathering: what is shown stays. */
  stop(): void {
    window.clearTimeout(this.#timer);
    this.#turn++;
  }

  /** Does a longer work with the canvas at rest. */
  async alone<T>(work: () => Promise<T>): Promise<T> {
    this.stop();
    this.#busy = true;
    this.#light.setScalar(Number.NaN);
    gathered.setState({ isMoving: true });
    try {
      return await work();
    } finally {
      this.#busy = false;
    }
  }

  dispose(): void {
    this.stop();
    this.#whole?.dispose();
    this.#small?.dispose();
    this.#whole = null;
    this.#small = null;
    this.#glow.dispose();
    this.#occlusion?.dispose();
    this.#screen.dispose();
  }
}
